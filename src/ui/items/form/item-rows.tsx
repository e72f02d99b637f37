'use client';
import Button from '@mui/material/Button';
import Checkbox from '@mui/material/Checkbox';
import FormControlLabel from '@mui/material/FormControlLabel';
import MenuItem from '@mui/material/MenuItem';
import TextField from '@mui/material/TextField';
import { type Control, Controller } from 'react-hook-form';
import { useTranslations } from 'use-intl';
import type { TOPICS } from '@/core/review/index.ts';
import type { Values } from './item-values.ts';

/** Whether an item takes whole days, beside how long it is where it doesn't. */
export function AllDayRow({ control, length }: { control: Control<Values>; length: string }) {
  const t = useTranslations('form');
  return (
    <div className="row spread">
      <Controller
        name="allDay"
        control={control}
        render={({ field }) => (
          <FormControlLabel
            control={<Checkbox size="small" checked={field.value} onChange={(e) => field.onChange(e.target.checked)} />}
            label={t('allDay')}
            slotProps={{ typography: { variant: 'body1' } }}
          />
        )}
      />
      <span className="small soft">{length}</span>
    </div>
  );
}

/** Says that what is typed looks sensitive where many read titles, with the press that makes it private. */
export function LooksSensitive({ topic, onPrivate }: { topic: (typeof TOPICS)[number]; onPrivate: () => void }) {
  const t = useTranslations();
  return (
    <div className="row" role="status">
      <span className="small wrong">{t('form.looksSensitive', { topic: t(`topics.${topic}`) })}</span>
      <Button variant="outlined" className="low" onClick={onPrivate}>
        {t('form.markPrivate')}
      </Button>
    </div>
  );
}

/** How much of a series a change is about. */
export function ScopeField({ control }: { control: Control<Values> }) {
  const t = useTranslations('form');
  return (
    <Controller
      name="scope"
      control={control}
      render={({ field }) => (
        <TextField select label={t('scope')} {...field} slotProps={{ inputLabel: { shrink: true } }}>
          {(['one', 'later', 'all'] as const).map((scope) => (
            <MenuItem key={scope} value={scope}>
              {t(scope)}
            </MenuItem>
          ))}
        </TextField>
      )}
    />
  );
}
