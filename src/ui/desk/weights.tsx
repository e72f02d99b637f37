import Button from '@mui/material/Button';
import TextField from '@mui/material/TextField';
import { useQuery, useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import { useTranslations } from 'use-intl';
import { call } from '@/contract/call.ts';
import type { DeskAnswer } from '@/contract/desk.ts';
import { DESK_KINDS, type DeskKind } from '@/core/desk/index.ts';
import { useActing } from '../common/fetched/acting.ts';
import { KEYS } from '../common/fetched/query-keys.ts';
import { QueryState } from '../common/fetched/query-state.tsx';
import { useFrame } from '../common/frame-context.tsx';
import { firstName } from '../common/token.tsx';
import deskCss from './desk.module.css';

const STEP = 10;
const MOST = 30;

/** How much each kind of row counts for somebody, and who goes first: saved where it is changed, with the rows beside it. */
export function Weights({ principal, onClose }: { principal: DeskAnswer['principals'][number]; onClose: () => void }) {
  const t = useTranslations('desk.weights');
  const tk = useTranslations('desk.kindNames');
  const tp = useTranslations('desk.panel');
  const { toast } = useFrame();
  const client = useQueryClient();
  const [address, setAddress] = useState('');
  const { attempt, busy, refused, fields } = useActing(['first']);
  const params = { person: principal.handle };
  const queryKey = KEYS.deskPreferences(principal.handle);
  const query = useQuery({ queryKey, queryFn: () => call('readDeskPreferences', { params }) });
  const { data } = query;
  const save = async (more: { shifts?: Partial<Record<DeskKind, number>>; first?: readonly string[] }) => {
    if (!data) return false;
    const { shifts, first, version } = data;
    const saved = await attempt(
      () =>
        call('saveDeskPreferences', {
          params,
          body: { shifts: { ...shifts, ...more.shifts }, first: [...(more.first ?? first)], version },
        }),
      (why) => {
        const field = Object.values(why.fields)[0];
        return why.code === 'changedMeanwhile' ? t('meanwhile') : (field ?? why.sentence);
      },
    );
    await client.invalidateQueries({ queryKey });
    void client.invalidateQueries({ queryKey: KEYS.desk(principal.handle) });
    if (saved) toast({ text: t('saved') });
    return saved;
  };
  const name = firstName(principal.name);
  return (
    <aside className={`${deskCss.panel} who-${principal.colour % 6}`} aria-label={t('title', { name })}>
      <div className={deskCss.for}>
        <span>{principal.own ? tp('mine') : tp('for', { name: principal.name })}</span>
        <Button variant="text" className="low" onClick={onClose}>
          {tp('close')}
        </Button>
      </div>
      <h2>{t('title', { name })}</h2>
      <p className="small soft">{t('hint', { name })}</p>
      {!data && <QueryState query={query} />}
      {refused && (
        <p className="wrong" role="alert">
          {refused}
        </p>
      )}
      {data && (
        <>
          <dl className={`${deskCss.parts} middle`}>
            {DESK_KINDS.map((kind) => {
              const shift = data.shifts[kind] ?? 0;
              return (
                <div key={kind} className="contents">
                  <dt>{tk(kind)}</dt>
                  <dd className="row gap-1 nowrap">
                    <Button
                      variant="text"
                      className="tiny"
                      disabled={busy || shift <= -MOST}
                      aria-label={t('less', { kind: tk(kind) })}
                      onClick={() => void save({ shifts: { [kind]: shift - STEP } })}
                    >
                      −
                    </Button>
                    <span className={deskCss.weight}>
                      {shift === 0 ? t('usual') : shift > 0 ? `+${shift}` : `−${-shift}`}
                    </span>
                    <Button
                      variant="text"
                      className="tiny"
                      disabled={busy || shift >= MOST}
                      aria-label={t('more', { kind: tk(kind) })}
                      onClick={() => void save({ shifts: { [kind]: shift + STEP } })}
                    >
                      +
                    </Button>
                  </dd>
                </div>
              );
            })}
          </dl>
          <h3>{t('first')}</h3>
          {data.first.map((who) => (
            <div key={who} className="row spread">
              <span className="anywhere">{who}</span>
              <Button
                variant="text"
                className="low may-shrink"
                aria-label={t('remove', { who })}
                onClick={() => void save({ first: data.first.filter((one) => one !== who) })}
              >
                ×
              </Button>
            </div>
          ))}
          <form
            className="row"
            onSubmit={async (event) => {
              event.preventDefault();
              if (await save({ first: [...data.first, address] })) setAddress('');
            }}
          >
            <TextField
              label={t('add')}
              value={address}
              onChange={(event) => setAddress(event.target.value)}
              error={Object.keys(fields).length > 0}
            />
            <Button type="submit" variant="outlined" disabled={busy || address.trim() === ''}>
              {t('addGo')}
            </Button>
          </form>
        </>
      )}
    </aside>
  );
}
