'use client';
import Button from '@mui/material/Button';
import Checkbox from '@mui/material/Checkbox';
import FormControlLabel from '@mui/material/FormControlLabel';
import { useTranslations } from 'use-intl';
import type { WorkHours } from '@/contract/people/hours.ts';
import { readTime } from '../common/fields/read-time.ts';
import { TimeField } from '../common/fields/time-field.tsx';
import { DAY, weekday } from '../common/times.ts';
import frameCss from './frame.module.css';

const MONDAY = 4 * DAY;
const USUAL: [string, string] = ['09:00', '18:00'];

/** Whether an end isn't after its start; what is no time at all is said by its field. */
const isBefore = (end: string, start: string) => end <= start && (end === '' || readTime(end) !== null);

/** When somebody works, by day of the week; what has more than one range keeps the others. */
export function WorkHoursField({ value, onChange }: { value: WorkHours; onChange: (value: WorkHours) => void }) {
  const t = useTranslations('settings');
  const tf = useTranslations('fields');
  if (value === null)
    return (
      <div>
        <Button variant="outlined" onClick={() => onChange([[USUAL], [USUAL], [USUAL], [USUAL], [USUAL], [], []])}>
          {t('workSay')}
        </Button>
      </div>
    );
  const set = (day: number, ranges: [string, string][]) => onChange(value.map((was, i) => (i === day ? ranges : was)));
  return (
    <fieldset className="bare gap-3 stack">
      <legend className="no-room firm">{t('work')}</legend>
      <p className="small soft">{t('workHelp')}</p>
      {value.map((ranges, i) => {
        const day = weekday(MONDAY + i * DAY);
        const [first, ...more] = ranges;
        return (
          <div key={day} className="row as-tall">
            <FormControlLabel
              className={frameCss.day}
              control={
                <Checkbox
                  size="small"
                  checked={first !== undefined}
                  onChange={(e) => set(i, e.target.checked ? [USUAL] : [])}
                />
              }
              label={day}
              slotProps={{ typography: { variant: 'body1' } }}
            />
            {first ? (
              <>
                <TimeField
                  label={t('workFrom', { day })}
                  width={136}
                  value={first[0]}
                  error={first[0] === '' ? tf('time') : undefined}
                  onChange={(from) => set(i, [[from, first[1]], ...more])}
                />
                <TimeField
                  label={t('workTo', { day })}
                  width={136}
                  value={first[1] === '24:00' ? '00:00' : first[1]}
                  error={isBefore(first[1], first[0]) ? t('workWrong') : undefined}
                  onChange={(until) => set(i, [[first[0], until === '00:00' ? '24:00' : until], ...more])}
                />
              </>
            ) : (
              <span className="small soft">{t('workOff')}</span>
            )}
          </div>
        );
      })}
      <div>
        <Button variant="text" onClick={() => onChange(null)}>
          {t('workNot')}
        </Button>
      </div>
    </fieldset>
  );
}
