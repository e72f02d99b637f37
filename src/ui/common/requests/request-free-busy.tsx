'use client';
import Button from '@mui/material/Button';
import { useQueryClient } from '@tanstack/react-query';
import { useTranslations } from 'use-intl';
import { call } from '@/contract/call.ts';
import { MOST_ASKED } from '@/contract/mosts.ts';
import { useActing } from '../fetched/acting.ts';
import { KEYS } from '../fetched/query-keys.ts';
import { requestTo, useAccessRequests } from './own-access-requests.ts';
import { FREE_BUSY } from './plain-rights.ts';

/**
 * Asks people of whom one sees nothing, in one press and in one's own name, to show when they are free or busy. What came of it stands in
 * Messages, with every other ask; whoever was asked and hasn't answered isn't asked again.
 */
export function RequestFreeBusy({ people }: { people: readonly { readonly handle: string; readonly name: string }[] }) {
  const t = useTranslations('askFree');
  const client = useQueryClient();
  const requests = useAccessRequests(people.length > 0);
  const { attempt, busy, refused } = useActing();
  if (people.length === 0 || !requests.data) return null;
  const { own } = requests.data;
  const stateOf = (handle: string) => requestTo(own, handle, 'calendar')?.state;
  const rest = people
    .filter((p) => stateOf(p.handle) !== 'open' && stateOf(p.handle) !== 'refused')
    .slice(0, MOST_ASKED);
  const waiting = people.filter((p) => stateOf(p.handle) === 'open');
  const refusers = people.filter((p) => stateOf(p.handle) === 'refused');
  const request = async () => {
    await attempt(async () => {
      await call('requestAccess', {
        body: {
          to: rest.map((p) => p.handle),
          what: 'calendar',
          calendar: null,
          rights: FREE_BUSY,
          span: null,
          why: t('why'),
          offers: null,
        },
      });
      await client.invalidateQueries({ queryKey: KEYS.accessRequests });
    });
  };
  const names = (list: typeof people) => list.map((p) => p.name).join(', ');
  return (
    <>
      {rest.length > 0 && (
        <Button variant="outlined" loading={busy} onClick={() => void request()} className="own-width own-height">
          {t('ask', { count: rest.length })}
        </Button>
      )}
      {waiting.length > 0 && (
        <p className="small soft">{t('waiting', { count: waiting.length, names: names(waiting) })}</p>
      )}
      {refusers.length > 0 && <p className="small soft">{t('refused', { names: names(refusers) })}</p>}
      {refused && (
        <p className="wrong small" role="alert">
          {refused}
        </p>
      )}
    </>
  );
}
