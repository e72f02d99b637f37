'use client';
import FormControlLabel from '@mui/material/FormControlLabel';
import MenuItem from '@mui/material/MenuItem';
import Switch from '@mui/material/Switch';
import TextField from '@mui/material/TextField';
import { useTranslations } from 'use-intl';
import { SIGHTS, type Sight } from '@/core/calendar/index.ts';

/** What an owner asks for of somebody else's calendar while giving them theirs: nothing until it is switched on. */
export function RequestInReturn(props: {
  who: string;
  /** There is more of theirs to be asked for. */
  offered: boolean;
  /** What is given: as much is asked for at first. */
  given: Sight;
  level: Sight | null;
  wrong: string | undefined;
  onLevel: (level: Sight | null) => void;
}) {
  const { who, offered, given, level, wrong, onLevel } = props;
  const t = useTranslations();
  return (
    <>
      {offered && (
        <FormControlLabel
          className="choice"
          label={t('lines.askBack', { name: who })}
          control={
            <Switch
              size="small"
              checked={level !== null}
              onChange={(e) => onLevel(e.target.checked ? (given === 'nothing' ? 'busy' : given) : null)}
            />
          }
        />
      )}
      {level !== null && (
        <TextField
          select
          label={t('lines.askBackLevel', { name: who })}
          value={level}
          error={!!wrong}
          helperText={wrong}
          onChange={(e) => onLevel(e.target.value as Sight)}
        >
          {SIGHTS.filter((s) => s !== 'nothing').map((s) => (
            <MenuItem key={s} value={s}>
              {t(`sights.${s}`)}, {t(`sightHelp.${s}`)}
            </MenuItem>
          ))}
        </TextField>
      )}
    </>
  );
}
