'use client';
import Button from '@mui/material/Button';
import { useTranslations } from 'use-intl';
import type { GrantWire, SightlineRow } from '@/contract/sharing/sharing.ts';
import { parseInstant, toWall } from '@/core/time/index.ts';
import { useFrame } from '../../common/frame-context.tsx';
import { dayMonth, fullDay } from '../../common/times.ts';

const LETTER = { waiting: 'letterWaiting', sent: 'letterSent', failed: 'letterFailed' } as const;

/** Who a grant speaks to, since when, by whom, and whether they were told and have looked. */
export function GrantHead(props: {
  row: SightlineRow;
  grant: GrantWire | null;
  name: string;
  busy: boolean;
  onTell: () => void;
}) {
  const { row, grant, name, busy, onTell } = props;
  const tl = useTranslations('lines');
  const { style } = useFrame();
  const everyoneRow = row.audience.kind === 'everyone';
  const link = row.audience.kind === 'link' || row.audience.kind === 'newLink';
  return (
    <div>
      <h2>{name}</h2>
      <p className="small soft">
        {[
          row.audience.kind === 'group' ? tl('groupOf', { count: Number(row.who.detail) }) : row.who.detail,
          grant ? tl('since', { date: fullDay(toWall(style.zone, parseInstant(grant.since) ?? 0)) }) : null,
          grant?.byAdministrator
            ? tl('byAdministrator', grant.given)
            : grant && grant.given.actor !== grant.given.principal
              ? tl('givenFor', grant.given)
              : null,
          grant?.letter ? tl(LETTER[grant.letter]) : null,
          grant && !everyoneRow && !link
            ? grant.told
              ? tl('told', { date: dayMonth(toWall(style.zone, parseInstant(grant.told) ?? 0)) })
              : tl('notTold')
            : null,
          grant?.heard && !everyoneRow
            ? tl('heard', {
                told: grant.heard.told,
                opened: grant.heard.opened,
                date: grant.heard.last ? dayMonth(toWall(style.zone, parseInstant(grant.heard.last) ?? 0)) : '',
              })
            : null,
          grant && !everyoneRow
            ? grant.used
              ? tl('used', { date: dayMonth(toWall(style.zone, parseInstant(grant.used) ?? 0)) })
              : tl('neverUsed')
            : null,
        ]
          .filter(Boolean)
          .join(' · ')}
        {grant && !everyoneRow && !link && (!grant.told || grant.letter === 'failed') && grant.state !== 'ended' && (
          <Button variant="text" className="low" loading={busy} onClick={onTell}>
            {tl('tellNow')}
          </Button>
        )}
      </p>
    </div>
  );
}
