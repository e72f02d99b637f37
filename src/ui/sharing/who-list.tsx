'use client';
import { useTranslations } from 'use-intl';
import { reachOf } from '@/contract/sharing/reach.ts';
import type { GrantWire, SightlineRow } from '@/contract/sharing/sharing.ts';
import { SIGHTS } from '@/core/calendar/index.ts';
import type { CollectionKind } from '@/core/collection/index.ts';
import { parseInstant, toWall } from '@/core/time/index.ts';
import { useFrame } from '../common/frame-context.tsx';
import { ReachMeter, SightMeter } from '../common/meters.tsx';
import { OF_KIND } from '../common/of-kind.ts';
import { NOTHING } from '../common/requests/plain-rights.ts';
import { dayMonth } from '../common/times.ts';
import { audienceParam } from './audience-param.ts';
import type { Undo } from './grants/undo-grant.ts';
import { RowLevel } from './row-level.tsx';
import whoListCss from './who-list.module.css';

/** What an owner may do with what is theirs: everything. */
const OWNER = { ...NOTHING, sight: 'full', add: true, change: 'all', remove: 'all' } as const;

/** The audiences of a calendar by what they may do, each with its meters, what it was given and until when. */
export function WhoList(props: {
  rows: readonly SightlineRow[];
  everyone: SightlineRow;
  current: SightlineRow;
  own: boolean;
  kind: CollectionKind;
  owner: string;
  ownerName: string;
  calendar: string;
  onChanged: (text: string, undo?: Undo) => Promise<void>;
  onChoose: (row: SightlineRow) => void;
}) {
  const { rows, everyone, current, own, kind, owner, ownerName, calendar, onChanged, onChoose } = props;
  const t = useTranslations();
  const inside = (r: SightlineRow) => !r.outside;
  const named = rows.filter((r) => r.audience.kind !== 'everyone');
  const live = (r: SightlineRow) => r.grants.filter((g) => g.state !== 'ended');
  const acts = (r: SightlineRow) =>
    live(r).some(({ rights: g }) => g.add || g.change !== 'none' || g.suggest || g.speaks);
  const ended = (r: SightlineRow) => r.grants.length > 0 && live(r).length === 0;
  const out = (r: SightlineRow) => live(r).length > 0 && live(r).every((g) => g.rights.sight === 'nothing');
  // Who isn't signed in gets what the links give, and nothing where there is none.
  const links = rows.filter((r) => r.audience.kind === 'link' && r.effective.sight !== 'nothing');
  const most = SIGHTS[Math.max(0, ...links.map((r) => SIGHTS.indexOf(r.effective.sight)))] ?? 'nothing';
  const sections: [string, SightlineRow[]][] = [
    [t('lines.everyone'), [everyone]],
    [own ? t('lines.acting') : t('lines.actingFor', { name: owner }), named.filter((r) => acts(r))],
    [t('lines.more'), named.filter((r) => inside(r) && !acts(r) && !out(r) && !ended(r))],
    [t('lines.outsideHead'), named.filter((r) => !inside(r) && !acts(r) && !out(r) && !ended(r))],
    [t('lines.out'), named.filter((r) => out(r))],
    [t('lines.endedHead'), named.filter((r) => ended(r))],
  ];
  return (
    <>
      <div className={`${whoListCss['who-row']} ${whoListCss.heads} small soft`}>
        <span />
        <span>{t('lines.sees')}</span>
        <span>{t('lines.mayDo')}</span>
      </div>
      <div className={whoListCss['who-row']}>
        <span>
          <span className={whoListCss.name}>{ownerName}</span>
          <span className={whoListCss.sub}>{t('lines.ownerRow')}</span>
        </span>
        <SightMeter sight="full" />
        <ReachMeter rights={OWNER} />
      </div>
      {sections.map(
        ([head, list]) =>
          list.length > 0 && (
            <section key={head} aria-label={head}>
              <h2>{head}</h2>
              {list.map((row) => (
                <div key={audienceParam(row.audience)} className={whoListCss.line}>
                  <WhoRow row={row} current={row === current} everyone={everyone} onChoose={() => onChoose(row)} />
                  {changedHere(row) && (
                    <RowLevel calendar={calendar} row={row} grant={changedHere(row) as GrantWire} onDone={onChanged} />
                  )}
                </div>
              ))}
            </section>
          ),
      )}
      <section aria-label={t('lines.signedOutHead')}>
        <h2>{t('lines.signedOutHead')}</h2>
        <div className={whoListCss['who-row']}>
          <span>
            <span className={whoListCss.name}>{t('lines.signedOutWho')}</span>
            <span className={whoListCss.sub}>{t(`lines.signedOut${OF_KIND[kind]}`, { count: links.length })}</span>
          </span>
          <SightMeter sight={most} />
          <ReachMeter rights={NOTHING} />
        </div>
      </section>
    </>
  );
}

/**
 * The grant that can be changed where its row stands: what somebody inside has standing. What leaves the house, or reaches everyone, is said once
 * more before it is given, in the editor.
 */
const changedHere = (row: SightlineRow): GrantWire | null =>
  row.outside || (row.audience.kind !== 'person' && row.audience.kind !== 'group')
    ? null
    : (row.grants.find((g) => g.from === null && g.until === null) ?? null);

function WhoRow(props: { row: SightlineRow; current: boolean; everyone: SightlineRow; onChoose: () => void }) {
  const { row, current, everyone, onChoose } = props;
  const t = useTranslations();
  const { style } = useFrame();
  const grant =
    row.grants.find((g) => g.state === 'now') ?? row.grants.find((g) => g.state === 'toCome') ?? row.grants[0];
  const out = grant !== undefined && grant.rights.sight === 'nothing' && row.audience.kind !== 'everyone';
  const day = (instant: string | null, back = 0) =>
    instant ? dayMonth(toWall(style.zone, (parseInstant(instant) ?? 0) - back)) : '';
  const level = grant
    ? grant.preset
      ? t(`presets.${grant.preset as 'full'}`)
      : `${t(`sights.${grant.rights.sight}`)}, ${t(`reaches.${reachOf(grant.rights)}`).toLowerCase()}`
    : '';
  const dates = grant
    ? grant.state === 'ended'
      ? t('lines.ended', { date: day(grant.until, 1) })
      : [
          grant.state === 'toCome' ? t('lines.toCome', { date: day(grant.from) }) : null,
          grant.until
            ? t('lines.ends', { date: day(grant.until, 1) })
            : grant.state === 'now'
              ? t('lines.since', { date: day(grant.since) })
              : null,
        ]
          .filter(Boolean)
          .join(', ')
    : '';
  const sub =
    row.audience.kind === 'everyone'
      ? t('lines.everyoneDetail', { sight: t(`sightWords.${row.effective.sight}`) })
      : !grant
        ? t('lines.unsaved')
        : out && grant.state === 'now'
          ? t('lines.outDetail', { sight: t(`sightWords.${everyone.effective.sight}`) })
          : [
              level,
              grant.rights.private ? t('extras.private').toLowerCase() : null,
              row.audience.kind === 'group' ? t('lines.groupOf', { count: Number(row.who.detail) }) : null,
              dates,
              row.outside && row.audience.kind !== 'link' ? t('lines.outsideTag') : null,
              row.audience.kind === 'link' ? t('lines.linkTag') : null,
              row.role ? t('lines.roleTag') : null,
              grant.byAdministrator ? t('lines.byAdministrator', grant.given) : null,
              grant.letter === 'failed' ? t('lines.letterFailed') : null,
              row.audience.kind === 'group' || row.audience.kind === 'link'
                ? null
                : !grant.told
                  ? t('lines.notTold')
                  : grant.heard?.opened === 0 && !grant.used
                    ? t('lines.notOpened')
                    : null,
            ]
              .filter(Boolean)
              .join(' · ');
  return (
    <button
      type="button"
      className={`plain ${whoListCss['who-row']}${out ? ` ${whoListCss.out}` : ''}`}
      aria-current={current ? 'true' : undefined}
      onClick={onChoose}
    >
      <span>
        <span className={whoListCss.name}>
          {row.audience.kind === 'everyone' ? t('lines.everyoneInside') : row.who.name || t('lines.newLinkTitle')}
        </span>
        <span className={whoListCss.sub}>{sub}</span>
      </span>
      <SightMeter sight={row.effective.sight} />
      <ReachMeter rights={row.effective} />
    </button>
  );
}
