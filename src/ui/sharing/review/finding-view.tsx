'use client';
import { useQuery } from '@tanstack/react-query';
import { useTranslations } from 'use-intl';
import { call } from '@/contract/call.ts';
import type { Finding } from '@/contract/sharing/review.ts';
import type { PreviewAnswer } from '@/contract/sharing/sharing.ts';
import { dateText, toWall, weekStart } from '@/core/time/index.ts';
import { KEYS } from '../../common/fetched/query-keys.ts';
import { QueryState } from '../../common/fetched/query-state.tsx';
import { useFrame } from '../../common/frame-context.tsx';
import pageCss from '../../common/page.module.css';
import { NOTHING } from '../../common/requests/plain-rights.ts';
import { DAY, weekTitle } from '../../common/times.ts';
import { MiniWeek } from '../mini-week.tsx';

/** A finding's view as it is now and as it will be once mended, made by the server as it will send it. */
export function FindingView({ calendar, finding }: { calendar: string; finding: Finding }) {
  const t = useTranslations('findings');
  const { style, now } = useFrame();
  const week = weekStart(Math.floor(toWall(style.zone, now()) / DAY) * DAY, style.weekFirst);
  const range = { from: dateText(week), to: dateText(week + 7 * DAY), zone: style.zone };
  const everyone = { kind: 'everyone' } as const;
  // Of several people who get the same, the first stands for all.
  const [audience, seen] =
    finding.kind === 'sensitive'
      ? [everyone, null]
      : finding.kind === 'everyone'
        ? [everyone, finding.seen]
        : finding.kind === 'spare'
          ? [finding.people[0]?.audience ?? everyone, finding.people[0]?.seen ?? null]
          : [finding.audience, finding.seen];
  const query = useQuery({
    queryKey: KEYS.calendar(calendar, 'finding', finding.kind, seen, range),
    enabled: finding.kind !== 'sensitive',
    queryFn: () =>
      call('previewAccess', {
        params: { calendar },
        body: {
          audience,
          rights: finding.kind === 'everyone' ? { ...NOTHING, sight: 'busy' } : null,
          seen,
          range,
        },
      }) as Promise<PreviewAnswer>,
  });
  if (finding.kind === 'sensitive')
    return (
      <dl className={`${pageCss.facts} small`}>
        <dt>{t('before')}</dt>
        <dd>{t('sensitiveBefore', { people: finding.people, title: finding.item.title })}</dd>
        <dt>{t('after')}</dt>
        <dd>{t('sensitiveAfter')}</dd>
      </dl>
    );
  return (
    <div>
      <QueryState query={query} />
      {query.data && (
        <>
          <p className="small soft">
            {t('before')}, {weekTitle(week)}
          </p>
          <MiniWeek items={query.data.itemsBefore} first={week} low selected={null} onPick={null} />
          <p className="small soft">{t('after')}</p>
          <MiniWeek items={query.data.items} first={week} low selected={null} onPick={null} />
        </>
      )}
    </div>
  );
}
