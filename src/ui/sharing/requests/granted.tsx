'use client';
import Button from '@mui/material/Button';
import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { useTranslations } from 'use-intl';
import { call } from '@/contract/call.ts';
import type { PersonWire } from '@/contract/people/people.ts';
import type { CollectionKind } from '@/core/collection/index.ts';
import { useCollectionGoal } from '../../common/collection-goal.ts';
import { useCollectionName } from '../../common/collection-name.ts';
import { useComesNext } from '../../common/comes-next.ts';
import { KEYS } from '../../common/fetched/query-keys.ts';
import { QueryState } from '../../common/fetched/query-state.tsx';
import { useFrame } from '../../common/frame-context.tsx';
import { Link } from '../../common/link.tsx';
import { ReachMeter, SightMeter } from '../../common/meters.tsx';
import pageCss from '../../common/page.module.css';
import { RequestMore } from '../../common/requests/request-more.tsx';
import { firstName, Token } from '../../common/token.tsx';
import { useSentence } from '../sentence.tsx';

/** A calendar of somebody's that one sees, with what one may do there. */
interface Mine extends Pick<PersonWire, 'rights' | 'through' | 'until' | 'next'> {
  readonly person: PersonWire;
  readonly further: { readonly key: string; readonly name: string; readonly kind: CollectionKind } | null;
}

/** So many of what everyone gets are shown before the rest is asked for. */
const FEW = 20;

/** What one may see and do of others' calendars, in whole sentences, with what one can't: through what, until when, told of invitations or not. */
export function Granted() {
  const t = useTranslations('granted');
  const { frame } = useFrame();
  const query = useQuery({ queryKey: KEYS.people, queryFn: () => call('listPeople', {}) });
  const [all, setAll] = useState(false);
  const mine = (query.data?.people ?? [])
    .filter((p) => p.handle !== frame.me.handle)
    .flatMap((person): Mine[] => [
      // What is yet to come stands here too.
      ...(person.rights.sight === 'nothing' && person.next === null ? [] : [{ ...person, person, further: null }]),
      ...[...person.further.map((one) => ({ ...one, kind: 'calendar' as const })), ...person.lists].map(
        ({ key, name, kind, ...seen }) => ({ ...seen, person, further: { key, name, kind } }),
      ),
    ]);
  // What is yet to come was given too.
  const isGiven = (one: Mine) => one.through !== 'everyone' || one.next !== null;
  const given = mine.filter(isGiven);
  const everyones = mine.filter((one) => !isGiven(one));
  return (
    <div className={`${pageCss.page} page-wide`}>
      <div className="row below-6">
        <h1>{t('title')}</h1>
        <Link className="at-end" href={`/for/${frame.me.handle}/sightlines`}>
          {t('other')}
        </Link>
      </div>
      <QueryState query={query} />
      {query.data && (
        <>
          <section aria-label={t('given')}>
            <h2 className="below-4">{t('given')}</h2>
            {given.length === 0 && <p className="soft">{t('none')}</p>}
            {given.map((one) => (
              <One key={`${one.person.handle} ${one.further?.key ?? ''}`} one={one} />
            ))}
          </section>
          {everyones.length > 0 && (
            <section aria-label={t('everyone', { count: everyones.length })} className="above-7">
              <h2 className="below-4">{t('everyone', { count: everyones.length })}</h2>
              {(all ? everyones : everyones.slice(0, FEW)).map((one) => (
                <One key={`${one.person.handle} ${one.further?.key ?? ''}`} one={one} />
              ))}
              {!all && everyones.length > FEW && (
                <Button variant="text" onClick={() => setAll(true)}>
                  {t('all', { count: everyones.length })}
                </Button>
              )}
            </section>
          )}
        </>
      )}
    </div>
  );
}

function One({ one }: { one: Mine }) {
  const { person, further, rights, through } = one;
  const t = useTranslations('granted');
  const comesNext = useComesNext();
  const sentence = useSentence();
  const nameOf = useCollectionName();
  const goal = useCollectionGoal();
  const called = further && nameOf(further.kind, further.name);
  const { does, cannot } = sentence(rights, firstName(person.name), false, further?.kind);
  const meta = [
    t('through', { through }),
    comesNext(one) ?? t('standing'),
    rights.add || rights.speaks ? t(rights.copies ? 'told' : 'notTold') : null,
  ];
  return (
    <article
      className={`${pageCss.card} who-${person.colour % 6} gap-6 below-4 line top`}
      aria-label={called ? `${person.name}, ${called}` : person.name}
    >
      <Token name={person.name} colour={person.colour} />
      <div className="gap-2 grow may-shrink stack">
        <p className="row gap-4">
          <b>{person.name}</b> {called && <span>{called}</span>} <span className="small soft">{person.role}</span>
          <SightMeter sight={rights.sight} /> <ReachMeter rights={rights} />
        </p>
        <p>
          {t('you', { does })} <span className="soft">{cannot && t('youCannot', { cannot })}</span>
        </p>
        <p className="small soft">{meta.filter(Boolean).join(' · ')}</p>
      </div>
      <span className="gap-3 stack to-end">
        <Link href={goal(person.handle, further)} aria-label={`${t('open')}: ${called ?? person.name}`}>
          {t('open')}
        </Link>
        {(rights.sight !== 'full' || !rights.add) && (
          <RequestMore
            handle={person.handle}
            name={person.name}
            of={further ? { ...further, main: false } : undefined}
            has={rights}
          />
        )}
      </span>
    </article>
  );
}
