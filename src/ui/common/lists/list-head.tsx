'use client';
import type { ReactNode } from 'react';
import { useTranslations } from 'use-intl';
import type { RightsWire } from '@/contract/sharing/sight.ts';
import { useFrame } from '../frame-context.tsx';
import { Link } from '../link.tsx';
import { RequestMore } from '../requests/request-more.tsx';
import { firstName } from '../token.tsx';
import type { ListsOf } from './list-nav.tsx';
import listsCss from './lists.module.css';

/** What a list is called, whose it is and how much is in it; who sees it, and what else is done with all of it. */
export function ListHead(props: {
  of: ListsOf;
  list: {
    readonly key: string;
    readonly name: string;
    readonly own: boolean;
    readonly owner: { readonly handle: string; readonly name: string };
    readonly rights: RightsWire;
    readonly may: { readonly share: boolean; readonly add: boolean };
  };
  /** How much is in it, in words. */
  count: string;
  children: ReactNode;
}) {
  const { of, list, count, children } = props;
  const t = useTranslations(of);
  const { frame } = useFrame();
  const { handle, name } = list.owner;
  const who = frame.principals.some((p) => p.handle === handle) ? handle : frame.me.handle;
  const below = list.rights.sight !== 'full';
  const query = new URLSearchParams({ c: list.key, ...(list.own ? {} : { of: handle }) });
  return (
    <>
      <header className={listsCss.head}>
        <h1>{list.name ? list.name : t('titleOf', { own: String(list.own), name: firstName(name) })}</h1>
        <span className="soft small">
          {list.name && !list.own ? `${name} · ` : ''}
          {count}
        </span>
        <span className={listsCss.push}>
          {list.may.share && <Link href={`/for/${who}/sightlines?${query}`}>{t('whoSees')}</Link>}
          {children}
        </span>
      </header>
      {(!list.may.add || below) && (
        <p className={`small soft ${listsCss.note}`}>
          {!list.may.add && t('readOnly', { name: firstName(name) })}{' '}
          <RequestMore handle={handle} name={name} of={{ ...list, main: false, kind: of }} has={list.rights} small />
        </p>
      )}
    </>
  );
}
