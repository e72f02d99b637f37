'use client';
import MenuItem from '@mui/material/MenuItem';
import TextField from '@mui/material/TextField';
import { useTranslations } from 'use-intl';

const CHOICES = [0, 5, 10, 15, 30, 60, 120, 1440, 2880] as const;

/** How long before something one is reminded of it; `usual` as of everything in its calendar, where that can be chosen. */
export function BeforeChoice(props: {
  label: string;
  value: number | null | 'usual';
  usual?: number | null;
  onChange: (value: number | null | 'usual') => void;
}) {
  const { label, value, usual, onChange } = props;
  const t = useTranslations('reminders');
  const words = (minutes: number | null) => t('before', { minutes: minutes ?? -1, hours: (minutes ?? 0) / 60 });
  const standing = typeof value === 'number' && !CHOICES.some((c) => c === value) ? [value] : [];
  return (
    <TextField
      select
      label={label}
      value={value === null ? 'none' : String(value)}
      onChange={({ target }) =>
        onChange(target.value === 'none' ? null : target.value === 'usual' ? 'usual' : Number(target.value))
      }
      className="field-4"
    >
      {usual !== undefined && <MenuItem value="usual">{t('usual', { what: words(usual) })}</MenuItem>}
      <MenuItem value="none">{words(null)}</MenuItem>
      {[...CHOICES, ...standing].map((c) => (
        <MenuItem key={c} value={String(c)}>
          {words(c)}
        </MenuItem>
      ))}
    </TextField>
  );
}
