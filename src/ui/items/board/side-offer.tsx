'use client';
import { useQueryClient } from '@tanstack/react-query';
import { useTranslations } from 'use-intl';
import { call } from '@/contract/call.ts';
import type { BoardHead } from '@/contract/items/items.ts';
import { useActing } from '../../common/fetched/acting.ts';
import { KEYS } from '../../common/fetched/query-keys.ts';
import { firstName } from '../../common/token.tsx';
import { useMetMost } from '../times/met-most.ts';
import { MetMostRow } from '../times/met-most-row.tsx';
import boardCss from './board.module.css';

/** Where nobody stands beside them yet: whom they meet most, each put beside them by a press. As high before it is known as after. */
export function SideOffer({ head, today }: { head: BoardHead; today: number }) {
  const t = useTranslations('lanes');
  const client = useQueryClient();
  const { attempt, refused } = useActing();
  const met = useMetMost(head.calendar.key, head.owner.handle, today, true);
  return (
    <div className={boardCss.offer}>
      <MetMostRow
        words={t('beside', { own: String(head.own), name: firstName(head.owner.name) })}
        people={met ?? []}
        onChoose={({ handle }) =>
          void attempt(async () => {
            await call('saveLanes', { body: { people: [handle], group: null, calendars: [] } });
            await client.invalidateQueries({ queryKey: KEYS.lanes });
          })
        }
      />
      {met?.length === 0 && <p className="small soft">{t('besideNobody', { own: String(head.own) })}</p>}
      {refused && <p className="wrong small">{refused}</p>}
    </div>
  );
}
