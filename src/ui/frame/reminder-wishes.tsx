'use client';
import Checkbox from '@mui/material/Checkbox';
import FormControlLabel from '@mui/material/FormControlLabel';
import { useQuery } from '@tanstack/react-query';
import { useTranslations } from 'use-intl';
import { call } from '@/contract/call.ts';
import { useActingWithToast } from '../common/fetched/acting.ts';
import { KEYS } from '../common/fetched/query-keys.ts';
import { QueryState } from '../common/fetched/query-state.tsx';
import { BeforeChoice } from '../common/fields/before-choice.tsx';

/** How long before one is reminded, of one's own day and of the days of those one acts for. */
export function ReminderWishes() {
  const { attempt } = useActingWithToast();
  const tr = useTranslations('reminders');
  const query = useQuery({ queryKey: KEYS.reminders('wishes'), queryFn: () => call('listReminderWishes', {}) });
  const save = async (calendar: string, body: { minutes: number | null; byMail: boolean }) => {
    await attempt(async () => {
      await call('setReminderWish', { params: { calendar }, body });
      await query.refetch();
    });
  };
  return (
    <section className="gap-6 stack">
      <h2>{tr('title')}</h2>
      <p className="small soft">{tr('help')}</p>
      <QueryState query={query} />
      {query.data?.calendars.map((c) => (
        <div key={c.calendar} className="row">
          <BeforeChoice
            label={tr('of', { own: c.own ? 'yes' : 'no', owner: c.owner, name: c.name ?? 'none' })}
            value={c.minutes}
            onChange={(v) => v !== 'usual' && void save(c.calendar, { minutes: v, byMail: c.byMail })}
          />
          {c.minutes !== null && (
            <FormControlLabel
              control={
                <Checkbox
                  size="small"
                  checked={c.byMail}
                  onChange={(e) => void save(c.calendar, { minutes: c.minutes, byMail: e.target.checked })}
                />
              }
              label={tr('byMail')}
              slotProps={{ typography: { variant: 'body1' } }}
            />
          )}
        </div>
      ))}
    </section>
  );
}
