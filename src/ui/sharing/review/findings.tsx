'use client';
import Alert from '@mui/material/Alert';
import Button from '@mui/material/Button';
import { useQuery, useQueryClient } from '@tanstack/react-query';
import { useEffect, useState } from 'react';
import { useTranslations } from 'use-intl';
import { call } from '@/contract/call.ts';
import type { Finding } from '@/contract/sharing/review.ts';
import type { SightlineRow } from '@/contract/sharing/sharing.ts';
import { parseInstant, toWall } from '@/core/time/index.ts';
import { useActing } from '../../common/fetched/acting.ts';
import { KEYS } from '../../common/fetched/query-keys.ts';
import { useFrame } from '../../common/frame-context.tsx';
import pageCss from '../../common/page.module.css';
import { NOTHING } from '../../common/requests/plain-rights.ts';
import { dayMonth, whenText } from '../../common/times.ts';
import { type Undo, undoOf, undoTakes } from '../grants/undo-grant.ts';
import { FindingView } from './finding-view.tsx';
import { Words } from './words.tsx';

/** As high as its head in two lines. */

/** What is more open than it should be, each with its reason, its view before and after, and the one step that mends it. */
export function Findings(props: {
  calendar: string;
  /** The rows that stand, by which what is taken away is given back. */
  rows: readonly SightlineRow[];
  onMended: (text: string, undo?: Undo) => Promise<void>;
}) {
  const { calendar, rows, onMended } = props;
  const t = useTranslations();
  const { style } = useFrame();
  const [open, setOpen] = useState(false);
  const [shown, setShown] = useState<string | null>(null);
  const { attempt, busy: acting, refused } = useActing();
  const [mending, setMending] = useState<string | null>(null);
  const busy = acting ? mending : null;
  const { data } = useQuery({
    queryKey: KEYS.calendar(calendar, 'findings'),
    queryFn: () => call('readFindings', { params: { calendar } }),
  });
  const client = useQueryClient();
  // What is counted beside the section's name is what was just found.
  useEffect(() => {
    if (data) void client.invalidateQueries({ queryKey: KEYS.frame });
  }, [data, client]);
  // Its place is kept from the beginning: what stands below must not move under a press.
  if (!data) return <div className={`${pageCss.card} below-6 as-card`} />;
  const { findings, words, mayChangeWords } = data;
  if (findings.length === 0 && !mayChangeWords) return null;
  const keyOf = (f: Finding): string =>
    f.kind === 'sensitive' ? f.item.id : f.kind === 'spare' ? f.kind : `${f.kind} ${f.seen}`;
  const tooOpen = findings.filter((f) => f.kind !== 'spare').length;
  const preset = (name: string | null) => (name ? t(`presets.${name as 'full'}`) : t('reaches.words'));
  const day = (instant: string) => dayMonth(toWall(style.zone, parseInstant(instant) ?? 0));
  const textOf = (f: Finding): string => {
    switch (f.kind) {
      case 'sensitive':
        return t('findings.sensitive', {
          title: f.item.title,
          topic: f.item.topic ? t(`topics.${f.item.topic}`) : '',
          people: f.people,
        });
      case 'everyone':
        return t('findings.everyone', { sight: t(`sightWords.${f.sight}`) });
      case 'unused':
        return t('findings.unused', {
          name: f.name,
          what: preset(f.preset),
          used: f.lastUsed ? 'once' : 'never',
          date: f.lastUsed ? day(f.lastUsed) : '',
        });
      case 'endless':
        return t('findings.endless', { name: f.name, what: preset(f.preset) });
      case 'link':
        return t('findings.link', { name: f.name, sight: t(`sightWords.${f.sight}`) });
      case 'leftGroup':
        return t('findings.leftGroup', {
          name: f.name,
          group: f.group,
          date: day(f.left),
          what: preset(f.preset),
        });
      case 'spare':
        return t('findings.spare', { count: f.people.length, names: f.people.map((p) => p.name).join(', ') });
      default:
        return f satisfies never;
    }
  };
  const mend = async (f: Finding) => {
    setMending(keyOf(f));
    await attempt(async () => {
      if (f.kind === 'sensitive') {
        const answer = await call('changeItem', {
          params: { item: f.item.id },
          body: { version: f.version, scope: f.series ? 'all' : 'one', fields: { visibility: 'private' } },
        });
        await onMended(t('findings.sensitiveDone'), () => call('undo', { body: { undo: answer.undo } }));
      } else if (f.kind === 'everyone') {
        const audience = { kind: 'everyone' as const };
        const body = { audience, rights: { ...NOTHING, sight: 'busy' as const }, seen: f.seen };
        const given = await call('giveAccess', { params: { calendar }, body });
        const row = rows.find((one) => one.audience.kind === 'everyone');
        const grant = row?.grants.find(({ key }) => key === f.seen) ?? null;
        await onMended(t('findings.everyoneDone'), row && undoOf(calendar, row, grant, given, style.zone));
      } else if (f.kind === 'spare') {
        const takes = f.people.map(({ audience, seen }) => ({ audience, seen }));
        await call('takeSeveral', { params: { calendar }, body: { takes } });
        const undo = undoTakes(calendar, rows, new Set(takes.map(({ seen }) => seen)), style.zone);
        await onMended(t('findings.spareDone', { count: takes.length }), undo);
      } else {
        await call('takeAccess', { params: { calendar }, body: { audience: f.audience, seen: f.seen } });
        // The address of a link that was withdrawn stays dead.
        if (f.kind === 'link') await onMended(t('lines.withdrawn'));
        else
          await onMended(
            t('findings.takenDone', { name: f.name }),
            undoTakes(calendar, rows, new Set([f.seen]), style.zone),
          );
      }
    });
  };
  return (
    <section
      className={`${pageCss.card} below-6 as-card${tooOpen > 0 ? ` ${pageCss['wrong-card']}` : ''}`}
      aria-label={t('findings.title')}
    >
      <div className="row spread nowrap">
        <b className={tooOpen > 0 ? 'wrong' : 'soft'}>
          {tooOpen > 0 ? t('findings.head', { count: tooOpen }) : t('findings.none')}
          {tooOpen === 0 && findings.length > 0 && ` ${t('findings.headSpare')}`}
        </b>
        <Button variant="text" aria-expanded={open} onClick={() => setOpen(!open)}>
          {open ? t('findings.hide') : t('findings.look')}
        </Button>
      </div>
      {refused && <Alert severity="error">{refused}</Alert>}
      {open && (
        <ul className="list gap-5 stack">
          {findings.map((f) => (
            <li key={keyOf(f)}>
              {textOf(f)}
              {f.kind === 'sensitive' && <span className="small soft"> {whenText(f.item, style)}</span>}
              <div className="row above-1">
                <Button
                  variant="outlined"
                  className="low"
                  loading={busy === keyOf(f)}
                  aria-label={f.kind === 'sensitive' ? `${t('findings.sensitiveFix')}: ${f.item.title}` : undefined}
                  onClick={() => void mend(f)}
                >
                  {t(`findings.${f.kind}Fix`)}
                </Button>
                <Button
                  variant="text"
                  className="low"
                  aria-expanded={shown === keyOf(f)}
                  aria-label={`${t('findings.show')}: ${textOf(f)}`}
                  onClick={() => setShown(shown === keyOf(f) ? null : keyOf(f))}
                >
                  {shown === keyOf(f) ? t('findings.showHide') : t('findings.show')}
                </Button>
              </div>
              {shown === keyOf(f) && <FindingView calendar={calendar} finding={f} />}
            </li>
          ))}
        </ul>
      )}
      {open && mayChangeWords && <Words calendar={calendar} words={words} />}
    </section>
  );
}
