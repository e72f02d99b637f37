'use client';
import Button from '@mui/material/Button';
import TextField from '@mui/material/TextField';
import { useSearchParams } from 'next/navigation';
import { useState } from 'react';
import { useTranslations } from 'use-intl';
import { call } from '@/contract/call.ts';
import type { RoundAnswer } from '@/contract/openings/round.ts';
import { dateText, instantText, parseInstant, toWall } from '@/core/time/index.ts';
import boardsCss from '../common/boards.module.css';
import { useActing } from '../common/fetched/acting.ts';
import { usePaused, usePreview } from '../common/fetched/preview.ts';
import { KEYS } from '../common/fetched/query-keys.ts';
import { QueryState as Asking } from '../common/fetched/query-state.tsx';
import { sentenceOf } from '../common/fetched/refusal.ts';
import { useFrame } from '../common/frame-context.tsx';
import { Link } from '../common/link.tsx';
import pageCss from '../common/page.module.css';
import { clock, DAY, dayName } from '../common/times.ts';
import { firstName } from '../common/token.tsx';
import { useItemWrites } from '../items/board/item-writes.ts';
import runListCss from '../items/times/run-list.module.css';
import { walkRows } from '../items/times/run-list.tsx';
import { HowFields, LengthFields, WhenFields } from '../items/times/times-fields.tsx';
import { bodyOf, requestFromParams, type TimesRequest } from '../items/times/times-request.ts';
import type { InvitedPerson } from '../meetings/heard.ts';
import { PeopleField } from '../meetings/people-field.tsx';
import { hoursOf } from './count-sheet.tsx';
import { DayLanes, dayOfWall } from './day-lanes.tsx';
import css from './openings.module.css';
import { type OnHead, WithHead } from './with-head.tsx';

const PAUSE_MS = 400;
const MOST = 8;
/** So long what is held stays held. */
const HELD_DAYS = 7;

interface Row {
  readonly key: number;
  readonly title: string;
  readonly length: number;
  readonly people: readonly InvitedPerson[];
}

/** Several meetings with people in common, placed together: what each is, where they would go and why, and all of them held or sent in one act. */
export function RoundScreen(props: { calendar: string; name: string }) {
  return <WithHead {...props} screen={Round} />;
}

function Round({ head, name, today, notice, onNotice }: OnHead) {
  const t = useTranslations('openings');
  const { frame, style, now } = useFrame();
  const calendar = head.calendar.key;
  const params = useSearchParams();
  const [request, setRequest] = useState<TimesRequest>(() =>
    requestFromParams(new URLSearchParams(params), dateText(today)),
  );
  const [rows, setRows] = useState<readonly Row[]>([emptyRow(1), emptyRow(2)]);
  const [looked, setLooked] = useState(0);
  const { attempt, busy } = useActing();
  const [made, setMade] = useState<{ body: string; placed: NonNullable<RoundAnswer['placed']> } | null>(null);
  const { wroteMany } = useItemWrites(
    () => ({ calendar, head }),
    onNotice,
    () => {},
  );
  const change = (more: Partial<TimesRequest>) => setRequest((was) => ({ ...was, ...more }));
  const set = (key: number, more: Partial<Row>) =>
    setRows(rows.map((row) => (row.key === key ? { ...row, ...more } : row)));
  const { length: _length, room: _room, sheet: _sheet, there: _there, ...all } = bodyOf(request, style.zone, false);
  const named = (people: readonly InvitedPerson[]) =>
    people.map(({ address, role }) => ({ address, must: role === 'must' }));
  const body = JSON.stringify({
    ...all,
    meetings: rows.map(({ length, people }) => ({ length, people: named(people) })),
  });
  const paused = usePaused(body, PAUSE_MS);
  const preview = usePreview(
    KEYS.calendar(calendar, 'round', paused),
    () => call('findRound', { params: { calendar }, body: JSON.parse(paused) }) as Promise<RoundAnswer>,
  );
  const found = preview.answer;
  const wall = (text: string) => toWall(style.zone, parseInstant(text) ?? 0);
  // Shown as placed only where it is what is asked for now.
  const proposed = paused === body && preview.settled && found?.placed?.length === rows.length ? found.placed : null;
  // What was made stands as it was placed, until something else is asked for.
  const stands = made?.body === body;
  const placed = stands ? made.placed : proposed;
  const one = placed?.[Math.min(looked, rows.length - 1)];
  const at = one && { start: wall(one.start), end: wall(one.end) };
  const everyone = [
    ...new Map([...request.people, ...rows.flatMap((row) => row.people)].map((p) => [p.address, p])).values(),
  ];
  const dayBody = JSON.stringify({ ...all, people: named(everyone), length: 60 });
  // What isn't said yet, before anything is offered for it.
  const untitled = rows.filter((row) => row.title.trim() === '').length;
  const alone = rows.filter((row) => row.people.length + request.people.length === 0).length;
  const titleOf = (row: Row, i: number) => row.title.trim() || t('round.nth', { n: i + 1 });
  const make = async (as: 'holds' | 'sent') => {
    onNotice(null);
    if (!placed || untitled > 0) return;
    await attempt(
      async () => {
        const meetings = rows.map((row, i) => {
          const people = [...new Map([...request.people, ...row.people].map((p) => [p.address, p])).values()];
          return {
            title: row.title.trim(),
            length: row.length,
            start: placed[i]?.start ?? '',
            people: people.map(({ address, name, role, group }) => ({
              address,
              name,
              role,
              group: group?.key ?? null,
            })),
          };
        });
        const lapses = instantText(now() + HELD_DAYS * DAY);
        const answer = await call('makeRound', {
          params: { calendar },
          body: { as, meetings, place: request.place.trim() || null, zone: style.zone, lapses },
        });
        setMade({ body, placed });
        wroteMany(answer, t(as === 'holds' ? 'round.held' : 'round.sent', { count: answer.written }), [calendar]);
      },
      (why) => onNotice(sentenceOf(why)),
    );
  };
  const own = head.own ? ('yes' as const) : ('no' as const);
  const owner = head.own ? frame.me.address : '';
  return (
    <div className={`${css.screen} who-${head.owner.colour % 6}`}>
      <div className={css.asked}>
        <div className="row">
          <h1>{head.own ? t('round.titleMine') : t('round.title', { name: firstName(name) })}</h1>
          <Link className="small" href={`/for/${head.owner.handle}/openings`}>
            {t('round.back')}
          </Link>
        </div>
        <p className="small soft">{t('round.help')}</p>
        {notice && (
          <p className={boardsCss.notice} role="alert">
            {notice}
          </p>
        )}
      </div>
      <div className={css.main}>
        <div className={css.round}>
          <section aria-label={t('round.all')} className={pageCss.card}>
            <h2>{t('round.all')}</h2>
            <PeopleField
              calendar={calendar}
              owner={owner}
              people={request.people}
              when={null}
              item={null}
              disabled={false}
              onChange={(people) => change({ people })}
            />
            <TextField
              label={t('place')}
              value={request.place}
              onChange={(e) => change({ place: e.target.value })}
              slotProps={{ inputLabel: { shrink: true }, htmlInput: { maxLength: 300 } }}
            />
            <WhenFields request={request} onChange={change} once />
            <HowFields request={request} onChange={change} />
          </section>
          {rows.map((row, i) => (
            <section key={row.key} aria-label={titleOf(row, i)} className={pageCss.card}>
              <div className="row spread">
                <h2>{t('round.nth', { n: i + 1 })}</h2>
                {rows.length > 2 && (
                  <Button variant="text" onClick={() => setRows(rows.filter((other) => other.key !== row.key))}>
                    {t('round.drop')}
                  </Button>
                )}
              </div>
              <TextField
                label={t('chosen.for')}
                value={row.title}
                onChange={(e) => set(row.key, { title: e.target.value })}
                slotProps={{ inputLabel: { shrink: true }, htmlInput: { maxLength: 300 } }}
              />
              <LengthFields
                request={{ ...request, length: row.length }}
                onChange={(more) => more.length !== undefined && set(row.key, { length: more.length })}
                bare
              />
              <PeopleField
                calendar={calendar}
                owner={owner}
                people={row.people}
                when={null}
                item={null}
                disabled={false}
                onChange={(people) => set(row.key, { people })}
              />
            </section>
          ))}
          {rows.length < MOST && (
            <Button
              variant="outlined"
              className="own-height"
              onClick={() =>
                setRows([
                  ...rows,
                  { ...emptyRow(Math.max(...rows.map((r) => r.key)) + 1), length: rows.at(-1)?.length ?? 60 },
                ])
              }
            >
              {t('round.more')}
            </Button>
          )}
        </div>
        {at && placed && (
          <DayLanes
            calendar={calendar}
            body={dayBody}
            day={dayOfWall(at.start)}
            walked={at}
            also={placed.map((p) => ({ start: wall(p.start), end: wall(p.end) }))}
            hours={hoursOf(
              [],
              placed.map((p) => ({ from: wall(p.start), end: wall(p.end) })),
            )}
          />
        )}
      </div>
      <aside className={boardsCss.panel} aria-label={t('round.goes')}>
        <h2>{t('round.goes')}</h2>
        <Asking query={preview.query} />
        {found && found.unknown.length > 0 && (
          <p className="small soft">
            {t('unknown', { count: found.unknown.length, names: found.unknown.slice(0, 4).join(', ') })}
          </p>
        )}
        {placed && (
          <ol className={runListCss.runs}>
            {placed.map((p, i) => {
              const row = rows[i] as Row;
              return (
                <li key={row.key}>
                  <button
                    type="button"
                    className={`plain ${runListCss.run}`}
                    onKeyDown={walkRows}
                    onFocus={() => setLooked(i)}
                    onMouseEnter={() => setLooked(i)}
                    onClick={() => setLooked(i)}
                  >
                    <b>{titleOf(row, i)}</b>
                    <span className="block">
                      {dayName(wall(p.start))}, {clock(wall(p.start), style.hours)}–{clock(wall(p.end), style.hours)}
                    </span>
                    <span className="small soft block">
                      {p.reasons.length === 0
                        ? t('nothingAgainst')
                        : p.reasons
                            .map((r) =>
                              t(`why.${r.why}`, { who: r.who, local: r.local ?? '', minutes: r.minutes ?? 0 }),
                            )
                            .join(' · ')}
                    </span>
                  </button>
                </li>
              );
            })}
          </ol>
        )}
        {found && paused === body && found.placed === null && (
          <p>
            {found.without.length > 0
              ? t('round.without', {
                  count: found.without.length,
                  which: found.without.map((i) => titleOf(rows[i] as Row, i)).join(', '),
                })
              : t('round.noWay')}
          </p>
        )}
        {found?.cut && <p className="small soft">{t('round.cut')}</p>}
        {stands && (
          <>
            <p role="status">{t('round.stands', { own, name: firstName(name) })}</p>
            <Link href={`/for/${head.owner.handle}/calendar?week=${dateText(wall(made.placed[0]?.start ?? ''))}`}>
              {t('round.see')}
            </Link>
            <span className="row">
              <Button variant="outlined" onClick={() => setMade(null)}>
                {t('round.again')}
              </Button>
              <Button
                variant="text"
                onClick={() => {
                  const next = Math.max(...rows.map((row) => row.key)) + 1;
                  setRows([emptyRow(next), emptyRow(next + 1)]);
                  setMade(null);
                }}
              >
                {t('round.another')}
              </Button>
            </span>
          </>
        )}
        {placed && !stands && head.may.add && (
          <>
            <Button variant="contained" loading={busy} disabled={untitled > 0} onClick={() => void make('holds')}>
              {t('round.hold', { count: rows.length, own, name: firstName(name) })}
            </Button>
            {head.may.speak && (
              <Button
                variant="outlined"
                loading={busy}
                disabled={untitled > 0 || alone > 0}
                onClick={() => void make('sent')}
              >
                {t('round.send', { count: rows.length, own, name: firstName(name), people: everyone.length })}
              </Button>
            )}
            {untitled > 0 ? (
              <p className="small">{t('round.untitled', { count: untitled })}</p>
            ) : (
              head.may.speak && alone > 0 && <p className="small">{t('round.alone', { count: alone })}</p>
            )}
            <p className="small soft">{t('round.lapse', { days: HELD_DAYS })}</p>
          </>
        )}
      </aside>
    </div>
  );
}

const emptyRow = (key: number): Row => ({ key, title: '', length: 60, people: [] });
