'use client';
import Button from '@mui/material/Button';
import { useQuery, useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import { useTranslations } from 'use-intl';
import { call } from '@/contract/call.ts';
import type { BoardHead, WrittenAnswer } from '@/contract/items/items.ts';
import type { RemovedAnswer, TrailAnswer } from '@/contract/trail.ts';
import { parseInstant, toWall } from '@/core/time/index.ts';
import boardsCss from '../../common/boards.module.css';
import { useActingWithToast } from '../../common/fetched/acting.ts';
import { KEYS } from '../../common/fetched/query-keys.ts';
import { QueryState } from '../../common/fetched/query-state.tsx';
import { useFrame } from '../../common/frame-context.tsx';
import { clock, fullDay, whenText } from '../../common/times.ts';
import lanesCss from '../views/lanes.module.css';
import { PanelHead } from './panel-head.tsx';

/** What happened to an item, folded away until it is asked for: who, for whom, when, and what was otherwise before. */
export function TrailList({ item, calendar }: { item: string; calendar: string }) {
  const t = useTranslations('trail');
  const { attempt } = useActingWithToast();
  const { style } = useFrame();
  const client = useQueryClient();
  const [open, setOpen] = useState(false);
  const query = useQuery({
    queryKey: KEYS.calendar(calendar, 'trail', item),
    queryFn: () => call('readTrail', { params: { item } }),
    enabled: open,
    retry: false,
  });
  const undo = async (key: string) => {
    await attempt(async () => {
      await call('undo', { body: { undo: key } });
    });
    await client.invalidateQueries({ queryKey: KEYS.calendar(calendar) });
  };
  const shown = (field: string, value: string | null) => {
    if (value === null) return t('none');
    const at = (field === 'start' || field === 'end') && value.endsWith('Z') ? parseInstant(value) : null;
    if (at === null) return `“${value}”`;
    return `${fullDay(toWall(style.zone, at))}, ${clock(toWall(style.zone, at), style.hours)}`;
  };
  return (
    <section>
      <Button variant="text" aria-expanded={open} onClick={() => setOpen(!open)} className="flush">
        {t('title')}
      </Button>
      {open && <QueryState query={query} />}
      {open && (
        <ol className="list stack">
          {(query.data as TrailAnswer | undefined)?.entries.map((e) => (
            <li key={e.key} className="small marked">
              <b>
                {t('who', {
                  actor: e.hands === null ? e.actor : t('hands', { actor: e.actor, name: e.hands }),
                  principal: e.principal,
                  same: e.actor === e.principal ? 'yes' : 'no',
                })}
              </b>{' '}
              {t('did', { verb: e.verb })}
              <span className="soft block">
                {fullDay(toWall(style.zone, parseInstant(e.at) ?? 0))},{' '}
                {clock(toWall(style.zone, parseInstant(e.at) ?? 0), style.hours)}
              </span>
              {e.changed.map((c) => (
                <span key={c.field} className="block anywhere">
                  {t('from', {
                    field: t(`fields.${c.field as 'title'}`),
                    before: shown(c.field, c.before),
                    after: shown(c.field, c.after),
                  })}
                </span>
              ))}
              {e.undo && (
                <Button variant="text" onClick={() => void undo(e.key)} className="flush">
                  {t('undo')}
                </Button>
              )}
            </li>
          ))}
        </ol>
      )}
    </section>
  );
}

/** What was removed from a calendar in the last thirty days, each brought back by one press. */
export function RemovedPanel(props: { head: BoardHead; onClose: () => void; onBack: (answer: WrittenAnswer) => void }) {
  const { head, onClose, onBack } = props;
  const t = useTranslations('trail');
  const { attempt } = useActingWithToast();
  const { style } = useFrame();
  const calendar = head.calendar.key;
  const query = useQuery({
    queryKey: KEYS.calendar(calendar, 'removed'),
    queryFn: () => call('listRemoved', { params: { calendar } }),
    retry: false,
  });
  const data = query.data as RemovedAnswer | undefined;
  const back = async (item: string) => {
    await attempt(async () => {
      onBack(await call('bringBack', { params: { item: item.split('~')[0] ?? '' } }));
    });
    await query.refetch();
  };
  return (
    <aside className={boardsCss.panel} aria-label={t('removed')}>
      <PanelHead head={head} onClose={onClose} />
      <h2>{t('removed')}</h2>
      <QueryState query={query} />
      {data && data.removed.length === 0 && <p className="soft">{t('removedNone')}</p>}
      <ul className={lanesCss.list}>
        {data?.removed.map(({ at, by, item }) => (
          <li key={item.id} className="with-act">
            <span>
              <b>{item.title}</b>
              <span className="small soft block">
                {whenText(item, style)} ·{' '}
                {t('removedBy', { name: by, day: fullDay(toWall(style.zone, parseInstant(at) ?? 0)) })}
              </span>
            </span>
            <Button variant="outlined" onClick={() => void back(item.id)}>
              {t('bringBack')}
            </Button>
          </li>
        ))}
      </ul>
      {data?.cut && <p className="small soft">{t('removedCut')}</p>}
    </aside>
  );
}
