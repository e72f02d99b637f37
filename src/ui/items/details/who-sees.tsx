'use client';
import { useQuery } from '@tanstack/react-query';
import { useTranslations } from 'use-intl';
import { call } from '@/contract/call.ts';
import type { BoardHead } from '@/contract/items/items.ts';
import { KEYS } from '../../common/fetched/query-keys.ts';
import { useFrame } from '../../common/frame-context.tsx';
import { Link } from '../../common/link.tsx';
import { SightMeter } from '../../common/meters.tsx';
import pageCss from '../../common/page.module.css';
import { sightlinesDoor } from '../board/sightlines-door.ts';

/** Who inside sees what of the item: how many each way, and by name those who see more than everyone, each a way to why. */
export function WhoSees({ id, day, head }: { id: string; day: string; head: BoardHead }) {
  const t = useTranslations();
  const { frame, principal } = useFrame();
  const calendar = head.calendar.key;
  const { data } = useQuery({
    queryKey: KEYS.calendar(calendar, 'item-sight', id),
    queryFn: () => call('readItemSight', { params: { item: id } }),
    retry: false,
    meta: { item: id },
  });
  if (!data) return null;
  const door = (who?: string) =>
    sightlinesDoor(head, frame.me.handle, principal?.handle ?? null, who, who === undefined ? undefined : { id, day });
  return (
    <section className={pageCss.card} aria-label={t('panel.whoSees')}>
      <h3>{t('panel.whoSees')}</h3>
      {data.levels.map((level) => (
        <p key={level.seen} className="row spread top">
          <span>
            {t('panel.peopleCount', { count: level.people })}
            {level.named.map(({ name, handle }, i) => (
              <span key={handle} className="small soft">
                {i === 0 ? ' · ' : ', '}
                <Link href={door(`person:${handle}`)} title={t('panel.whySees', { name })}>
                  {name}
                </Link>
              </span>
            ))}
          </span>
          <span className="row small gap-3 oneline">
            {t(`seen.${level.seen as 'full'}`)}
            <SightMeter sight={level.seen === 'withheld' ? 'busy' : (level.seen as 'full')} />
          </span>
        </p>
      ))}
      {data.links.map((link) => (
        <p key={link.name} className="row spread">
          <span>{t('panel.byLink', { name: link.name })}</span>
          <span className="small">{t(`seen.${link.seen as 'full'}`)}</span>
        </p>
      ))}
      <p className="small">
        <Link href={door()}>{t('panel.toSightlines')}</Link>
      </p>
    </section>
  );
}
