'use client';
import TextField from '@mui/material/TextField';
import { useRef, useState } from 'react';
import { parseWall } from '@/core/time/index.ts';
import { useFrame } from './frame-context.tsx';
import { readTime } from './read-time.ts';
import { clock } from './times.ts';

/** A time of day, typed freely; kept as `HH:MM`, or as it was typed where it is no time. */
export function TimeField(props: {
  label: string;
  value: string;
  error: string | undefined;
  onChange: (value: string) => void;
  onLeave: (was: string, is: string) => void;
}) {
  const { label, value, error, onChange, onLeave } = props;
  const { style } = useFrame();
  const shown = readTime(value) === value ? clock(parseWall(`1970-01-01T${value}`) ?? 0, style.hours) : value;
  const [typed, setTyped] = useState<string | null>(null);
  const entered = useRef(value);
  return (
    <TextField
      label={label}
      value={typed ?? shown}
      error={!!error}
      helperText={error}
      slotProps={{ inputLabel: { shrink: true }, htmlInput: { autoComplete: 'off' } }}
      onFocus={(event) => {
        setTyped(shown);
        if (readTime(value)) entered.current = value;
        event.target.select();
      }}
      onChange={(event) => {
        setTyped(event.target.value);
        onChange(readTime(event.target.value) ?? event.target.value);
      }}
      onBlur={() => {
        setTyped(null);
        if (entered.current !== value) onLeave(entered.current, value);
      }}
    />
  );
}
