'use client';
import ToggleButton from '@mui/material/ToggleButton';
import ToggleButtonGroup from '@mui/material/ToggleButtonGroup';
import segCss from './seg.module.css';

export interface Level {
  readonly value: string;
  readonly word: string;
  readonly help: string;
  /** Why it isn't open, where a rule bars it. */
  readonly barred?: boolean;
  readonly why?: string | undefined;
}

/** One of the sliders of what somebody sees or may do: each level in a word and what it means. */
export function LevelChoice(props: {
  id: string;
  label: string;
  as: 'sight' | 'reach';
  value: string | null;
  levels: readonly Level[];
  onPick: (value: string) => void;
}) {
  const { id, label, as, value, levels, onPick } = props;
  return (
    <>
      <h3 id={id}>{label}</h3>
      <ToggleButtonGroup
        exclusive
        className={`${segCss.seg} ${segCss[as] ?? ''}`}
        aria-labelledby={id}
        value={value}
        onChange={(_, v: string | null) => v && onPick(v)}
      >
        {levels.map((level) => (
          <ToggleButton
            key={level.value}
            value={level.value}
            className={level.barred ? (segCss.barred ?? '') : ''}
            title={level.why}
          >
            {level.word}
            <small>{level.help}</small>
          </ToggleButton>
        ))}
      </ToggleButtonGroup>
    </>
  );
}
