'use client';
import Alert from '@mui/material/Alert';
import Button from '@mui/material/Button';
import LinearProgress from '@mui/material/LinearProgress';
import { useQueryClient } from '@tanstack/react-query';
import { useEffect, useRef, useState } from 'react';
import { useTranslations } from 'use-intl';
import { call, sendFile } from '@/contract/call.ts';
import type { ImportPreview } from '@/contract/items/files.ts';
import type { BoardHead } from '@/contract/items/items.ts';
import boardsCss from '../../common/boards.module.css';
import { useActing } from '../../common/fetched/acting.ts';
import { KEYS } from '../../common/fetched/query-keys.ts';
import { said } from '../../common/fetched/refusal.ts';
import { useFrame } from '../../common/frame-context.tsx';
import pageCss from '../../common/page.module.css';
import { firstName } from '../../common/token.tsx';
import { PanelHead } from '../details/panel-head.tsx';

const SHOWN = 60;

/** Brings a calendar file in: what would come, what is there, what can't be read and why; then all of it or none. */
export function ImportPanel(props: {
  head: BoardHead;
  onClose: () => void;
  onTakeBack: (token: string) => () => Promise<void>;
}) {
  const { head, onClose, onTakeBack } = props;
  const t = useTranslations('import');
  const tc = useTranslations('common');
  const { toast } = useFrame();
  const client = useQueryClient();
  const file = useRef<HTMLInputElement>(null);
  const [reading, setReading] = useState<string | null>(null);
  const { attempt, busy, refused, setRefused } = useActing();
  const [preview, setPreview] = useState<ImportPreview | null>(null);
  const [coming, setComing] = useState<{ done: number; of: number } | null>(null);
  const sending = useRef<AbortController | null>(null);
  const owner = firstName(head.owner.name);
  // Whoever leaves while a file is still read no longer waits for it.
  useEffect(() => () => sending.current?.abort(), []);
  useEffect(() => {
    if (!busy || !preview) return;
    const params = { preview: preview.preview };
    const poll = setInterval(() => {
      call('readImport', { params })
        .then((state) => setComing(state.kind === 'comingIn' ? state : null))
        .catch(() => {});
    }, 400);
    return () => clearInterval(poll);
  }, [busy, preview]);

  const read = async (chosen: File | undefined) => {
    if (!chosen) return;
    setReading(chosen.name);
    setRefused(null);
    setPreview(null);
    const sent = new AbortController();
    sending.current = sent;
    try {
      setPreview(await sendFile(head.calendar.key, chosen, sent.signal));
    } catch (error) {
      if (!sent.signal.aborted) setRefused(said(error, tc('unreachable')).sentence);
    } finally {
      setReading(null);
      if (file.current) file.current.value = '';
    }
  };
  const bringIn = async () => {
    if (!preview) return;
    const broughtIn = await attempt(async () => {
      const done = await call('bringIn', { params: { preview: preview.preview } });
      toast({
        text: t('done', { count: done.broughtIn, renewed: done.renewed, left: done.left }),
        undo: onTakeBack(done.undo),
      });
      await client.invalidateQueries({ queryKey: KEYS.calendar(head.calendar.key) });
      onClose();
    });
    if (!broughtIn) setComing(null);
  };
  const stop = () => {
    if (preview && busy) call('stopImport', { params: { preview: preview.preview } }).catch(() => {});
    else onClose();
  };
  const { fresh = 0, newer = 0 } = preview?.counts ?? {};
  const left = preview ? preview.counts.there + preview.counts.problems : 0;
  return (
    <aside className={`${boardsCss.panel} ${boardsCss.broad}`} aria-label={t('title')}>
      <PanelHead head={head} onClose={onClose} />
      <h2>{t('title')}</h2>
      <p className="soft">{head.own ? t('forMine') : t('for', { name: owner })}</p>
      <input
        ref={file}
        type="file"
        accept=".ics,.ical,text/calendar"
        className="visually-hidden"
        id="calendar-file"
        aria-label={t('choose')}
        onChange={(event) => void read(event.target.files?.[0])}
      />
      <label
        htmlFor="calendar-file"
        className={`${pageCss.card} ${boardsCss.drop}`}
        onDragOver={(event) => event.preventDefault()}
        onDrop={(event) => {
          event.preventDefault();
          void read(event.dataTransfer.files[0]);
        }}
      >
        <b>{preview ? t('another') : t('choose')}</b> <span className="soft">{t('drop')}</span>
      </label>
      {reading && <p role="status">{t('reading', { name: reading })}</p>}
      {refused && <Alert severity="error">{refused}</Alert>}
      {preview && (
        <>
          {!preview.ended && <Alert severity="warning">{t('unended')}</Alert>}
          <section>
            <h3>{t('fresh', { count: preview.counts.fresh })}</h3>
            <Rows rows={preview.fresh} />
          </section>
          {newer > 0 && (
            <section>
              <h3>{t('newer', { count: newer })}</h3>
              <Rows rows={preview.newer} />
            </section>
          )}
          {preview.counts.there > 0 && (
            <section>
              <h3>{t('there', { count: preview.counts.there })}</h3>
              <Rows rows={preview.there} />
            </section>
          )}
          {preview.counts.problems > 0 && (
            <section>
              <h3 className="wrong">{t('problems', { count: preview.counts.problems })}</h3>
              <ul className="dots">
                {preview.problems.slice(0, SHOWN).map((p) => (
                  <li key={`${p.line} ${p.code}`} className="small">
                    {p.title ? <b>{p.title} </b> : null}
                    <ProblemText code={p.code} fact={p.fact} />{' '}
                    <span className="soft">({t('line', { line: p.line })})</span>
                  </li>
                ))}
              </ul>
            </section>
          )}
          {preview.remarks.map((r) => (
            <p key={`${r.code}${r.fact}`} className="small soft">
              {t(`remark.${r.code as 'floating'}`, { fact: r.fact, count: r.count })}
            </p>
          ))}
          <div className={boardsCss.foot}>
            <p className="small soft" role="status">
              {coming ? t('comingIn', coming) : fresh + newer > 0 ? t('allOrNothing') : t('nothing')}
            </p>
            {coming && (
              <LinearProgress
                variant="determinate"
                value={(100 * coming.done) / Math.max(1, coming.of)}
                aria-label={t('title')}
                className={boardsCss.progress}
              />
            )}
            <div className="row">
              {fresh + newer > 0 && (
                <Button variant="contained" loading={busy} onClick={bringIn}>
                  {newer > 0
                    ? t('doNewer', { fresh, newer, left })
                    : left > 0
                      ? t('do', { fresh, left })
                      : t('doAll', { fresh })}
                </Button>
              )}
              <Button variant="outlined" onClick={stop}>
                {busy ? t('stop') : t('cancel')}
              </Button>
            </div>
          </div>
        </>
      )}
    </aside>
  );
}

function ProblemText({ code, fact }: { code: string; fact: string | null }) {
  const t = useTranslations('import.problem');
  return <>{t(code as 'badStart', { fact: fact ?? '' })}</>;
}

function Rows({ rows }: { rows: ImportPreview['fresh'] }) {
  const t = useTranslations('import');
  return (
    <ul className="list box">
      {rows.slice(0, SHOWN).map((r) => (
        <li key={`${r.line}`} className="small">
          <b>{r.title}</b>{' '}
          <span className="soft">
            {r.start.replace('T', ' ').slice(0, 16)}
            {!r.allDay && ` ${r.zone}`}
            {r.repeats && ` · ${t('repeats')}`}
            {r.replaces && ` · ${t('replaces')}`}
            {r.visibility !== 'follow' && ` · ${r.visibility}`}
          </span>
        </li>
      ))}
      {rows.length > SHOWN && <li className="small soft">{t('moreRows', { count: rows.length - SHOWN })}</li>}
    </ul>
  );
}
