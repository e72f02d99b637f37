'use client';
import Button from '@mui/material/Button';
import Checkbox from '@mui/material/Checkbox';
import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { useTranslations } from 'use-intl';
import { CallRefused, call } from '@/contract/call.ts';
import { reachOf } from '@/contract/sharing/reach.ts';
import type { EverythingAnswer } from '@/contract/sharing/sharing.ts';
import { COLLECTION_KINDS, FIRST_COLLECTIONS } from '@/core/collection/index.ts';
import { useCollectionGoal } from '../common/collection-goal.ts';
import { useCollectionName } from '../common/collection-name.ts';
import { KEYS } from '../common/fetched/query-keys.ts';
import { QueryState } from '../common/fetched/query-state.tsx';
import { useFrame } from '../common/frame-context.tsx';
import { Link } from '../common/link.tsx';
import { SightMeter } from '../common/meters.tsx';
import pageCss from '../common/page.module.css';
import { RequestFromSomebody } from '../common/requests/request-from-somebody.tsx';
import { RequestMore } from '../common/requests/request-more.tsx';
import { firstName } from '../common/token.tsx';
import everythingCss from './everything.module.css';
import { GiveSeveral } from './give-several.tsx';

type One = EverythingAnswer['all'][number];

/** All of a person's that one may open, of every kind: what one may see and do there, and who else sees it where one gives that. */
export function Everything({ who }: { who: string }) {
  const t = useTranslations('everything');
  const sights = useTranslations('sights');
  const nameOf = useCollectionName();
  const { frame, principal, requestAccess } = useFrame();
  const goal = useCollectionGoal();
  const query = useQuery({
    queryKey: KEYS.everything(who),
    queryFn: () => call('listEverything', { params: { person: who } }),
    retry: false,
  });
  const [chosen, setChosen] = useState<ReadonlySet<string>>(new Set());
  const of = principal?.handle === who ? principal.name : who;
  const name = firstName(query.data?.owner.name ?? of);
  if (query.error instanceof CallRefused && query.error.body.code === 'notFound')
    return (
      <div className={pageCss.state}>
        <p>{t('nothing', { name })}</p>
        {principal?.handle !== who && <RequestFromSomebody of={who} />}
      </div>
    );
  if (!query.data)
    return (
      <div className={pageCss.state}>
        <QueryState query={query} />
      </div>
    );
  const { owner, own, all } = query.data;
  const acted = frame.principals.some((p) => p.handle === owner.handle);
  const words = { name: firstName(owner.name), own: own ? 'yes' : 'no' };
  const unseen = FIRST_COLLECTIONS.find((first) => !all.some((one) => one.first === first));
  const at = acted ? owner.handle : frame.me.handle;
  const called = (one: One): string => (one.main ? nameOf('calendar', '') : nameOf(one.kind, one.name));
  const ticked = all.filter((one) => chosen.has(one.key));
  const choose = (key: string, on: boolean) => {
    const next = new Set(chosen);
    if (on) next.add(key);
    else next.delete(key);
    setChosen(next);
  };
  const sightlines = (one: One): string =>
    `/for/${at}/sightlines?${new URLSearchParams({ ...(acted ? {} : { of: owner.handle }), ...(one.main ? {} : { c: one.key }) })}`;
  return (
    <div className={pageCss.page}>
      <div className="row">
        <h1>{t('title', words)}</h1>
        {!own && requestAccess && (
          <Button
            variant="outlined"
            className="at-end"
            onClick={() => requestAccess({ people: [owner], what: unseen ?? 'calendar', has: null })}
          >
            {t('askOther', words)}
          </Button>
        )}
      </div>
      <p className="soft above-3 below-6">{t('help', words)}</p>
      {ticked.length > 0 ? (
        <GiveSeveral of={query.data} chosen={ticked} onDone={() => setChosen(new Set())} />
      ) : (
        all.some((one) => one.share) && <p className="small soft">{t('choose', { count: 0 })}</p>
      )}
      {COLLECTION_KINDS.map((kind) => {
        const some = all.filter((one) => one.kind === kind);
        if (some.length === 0) return null;
        return (
          <section key={kind} className={everythingCss.kind} aria-label={t(`kinds.${kind}`)}>
            <h2>{t(`kinds.${kind}`)}</h2>
            <ul>
              {some.map((one) => (
                <li key={one.key}>
                  <span className={everythingCss.named}>
                    {one.share && (
                      <Checkbox
                        size="small"
                        checked={chosen.has(one.key)}
                        onChange={(e) => choose(one.key, e.target.checked)}
                        slotProps={{ input: { 'aria-label': t('tick', { name: called(one) }) } }}
                        className="no-room"
                      />
                    )}
                    <Link href={goal(owner.handle, one.main ? null : one)}>{called(one)}</Link>
                  </span>
                  {own ? (
                    <span />
                  ) : (
                    <span className={everythingCss.sight}>
                      <SightMeter sight={one.rights.sight} /> {sights(one.rights.sight)}
                    </span>
                  )}
                  <span className="small soft">{own ? '' : t('may', { reach: reachOf(one.rights) })}</span>
                  <span className="small soft">
                    {one.given === null
                      ? ''
                      : [t('given', { count: one.given }), one.suspended ? t('suspended') : '']
                          .filter(Boolean)
                          .join(' · ')}
                  </span>
                  {one.share ? (
                    <Link className="small" href={sightlines(one)}>
                      {t('whoSees')}
                    </Link>
                  ) : one.rights.sight === 'full' && one.rights.add ? (
                    <span />
                  ) : (
                    <RequestMore handle={owner.handle} name={owner.name} of={one} has={one.rights} small />
                  )}
                </li>
              ))}
            </ul>
          </section>
        );
      })}
    </div>
  );
}
