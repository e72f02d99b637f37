'use client';
import type { UseQueryResult } from '@tanstack/react-query';
import { useSearchParams } from 'next/navigation';
import type { ReactNode } from 'react';
import { useTranslations } from 'use-intl';
import { CallRefused } from '@/contract/call.ts';
import { QueryState } from '../fetched/query-state.tsx';
import { useFrame } from '../frame-context.tsx';
import pageCss from '../page.module.css';
import { firstName } from '../token.tsx';
import { type Listed, ListNav, type ListsOf } from './list-nav.tsx';
import listsCss from './lists.module.css';

/** Somebody's lists of a kind: those one may open, and the chosen one, which the address names. */
export function ListsPage<L extends Omit<Listed, 'count'>>(props: {
  of: ListsOf;
  who: string;
  query: UseQueryResult<{ readonly lists: readonly L[]; readonly others: readonly L[] }>;
  /** How much is in a list, in words. */
  count: (list: L) => string;
  children: (chosen: L, lists: readonly L[], others: readonly L[]) => ReactNode;
}) {
  const { of, who, query, count, children } = props;
  const t = useTranslations(of);
  const { frame, principal } = useFrame();
  const wanted = useSearchParams().get('list');
  const name = firstName(principal?.name ?? '');
  if (query.error instanceof CallRefused && query.error.body.code === 'notFound')
    return (
      <div className={pageCss.state}>
        <h1>{t('titleOf', { own: 'false', name })}</h1>
        <p>{t('notGiven', { name })}</p>
      </div>
    );
  if (!query.data)
    return (
      <div className={pageCss.state}>
        <QueryState query={query} />
      </div>
    );
  const { lists, others } = query.data;
  const chosen = [...lists, ...others].find(({ key }) => key === wanted) ?? lists[0] ?? others[0];
  const counted = (list: L) => ({ ...list, count: count(list) });
  return (
    <div className={listsCss.page}>
      {(who === frame.me.handle || lists.length + others.length > 1) && (
        <ListNav
          of={of}
          who={who}
          lists={lists.map(counted)}
          others={others.map(counted)}
          chosen={chosen?.key ?? null}
        />
      )}
      {chosen ? children(chosen, lists, others) : <p className={`${pageCss.state} soft`}>{t('noList')}</p>}
    </div>
  );
}
