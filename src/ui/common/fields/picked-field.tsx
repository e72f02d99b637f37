'use client';
import IconButton from '@mui/material/IconButton';
import InputAdornment from '@mui/material/InputAdornment';
import Popover from '@mui/material/Popover';
import TextField from '@mui/material/TextField';
import { type KeyboardEvent, type ReactNode, Suspense, useRef, useState } from 'react';

/**
 * A field that is typed into freely and has a picker beside it. `shown` is its value as the person reads it, `read` what typed text
 * comes to (`null` for what can't be read: it stays as it was typed). The arrows go one step on or back.
 */
export function PickedField(props: {
  label: string;
  value: string;
  shown: string;
  error: string | undefined;
  /** What is said once the field is left while what stands in it can't be read; `null` where it can. */
  unread: string | null;
  help?: string | undefined;
  open: string;
  icon: ReactNode;
  width?: number;
  read: (text: string) => string | null;
  step: (value: string, by: number) => string | null;
  onChange: (value: string) => void;
  onLeave?: (was: string, is: string) => void;
  picker: (pick: (value: string) => void) => ReactNode;
  /** How large the picker is, so that it has its place before it has arrived. */
  size: { readonly width: number; readonly height: number };
}) {
  const { label, value, shown, help, read, step, onChange, onLeave } = props;
  const [typed, setTyped] = useState<string | null>(null);
  const error = props.error ?? (typed === null ? props.unread : null);
  const [anchor, setAnchor] = useState<HTMLElement | null>(null);
  const entered = useRef(value);
  const field = useRef<HTMLInputElement>(null);
  const pick = (next: string) => {
    const was = value;
    onChange(next);
    setTyped(null);
    setAnchor(null);
    if (next !== was) onLeave?.(was, next);
    entered.current = next;
  };
  const onKeyDown = (event: KeyboardEvent) => {
    if (event.key !== 'ArrowUp' && event.key !== 'ArrowDown') return;
    event.preventDefault();
    if (event.altKey) {
      setAnchor(field.current);
      return;
    }
    const next = step(value, event.key === 'ArrowUp' ? 1 : -1);
    if (next === null) return;
    setTyped(null);
    onChange(next);
  };
  return (
    <>
      <TextField
        label={label}
        value={typed ?? shown}
        error={!!error}
        helperText={error ?? help}
        inputRef={field}
        {...(props.width ? { sx: { maxWidth: props.width } } : {})}
        slotProps={{
          inputLabel: { shrink: true },
          htmlInput: { autoComplete: 'off', 'aria-keyshortcuts': 'Alt+ArrowDown' },
          input: {
            sx: { pr: 1, '& input': { pl: 1, pr: 0 } },
            endAdornment: (
              <InputAdornment position="end">
                <IconButton
                  size="small"
                  edge="end"
                  className="no-room"
                  tabIndex={-1}
                  aria-label={props.open}
                  onClick={() => setAnchor(field.current)}
                >
                  {props.icon}
                </IconButton>
              </InputAdornment>
            ),
          },
        }}
        onKeyDown={onKeyDown}
        onFocus={(event) => {
          setTyped(shown);
          entered.current = value;
          event.target.select();
        }}
        onChange={(event) => {
          setTyped(event.target.value);
          onChange(read(event.target.value) ?? event.target.value);
        }}
        onBlur={() => {
          setTyped(null);
          if (entered.current !== value) onLeave?.(entered.current, value);
        }}
      />
      <Popover
        open={anchor !== null}
        anchorEl={anchor}
        onClose={() => setAnchor(null)}
        anchorOrigin={{ vertical: 'bottom', horizontal: 'left' }}
        slotProps={{ paper: { variant: 'outlined' } }}
      >
        <div style={{ minWidth: props.size.width, minHeight: props.size.height }}>
          <Suspense fallback={null}>{anchor && props.picker(pick)}</Suspense>
        </div>
      </Popover>
    </>
  );
}
