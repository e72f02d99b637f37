'use client';
import Alert from '@mui/material/Alert';
import Button from '@mui/material/Button';
import FormControlLabel from '@mui/material/FormControlLabel';
import Switch from '@mui/material/Switch';
import TextField from '@mui/material/TextField';
import { keepPreviousData, useQuery, useQueryClient } from '@tanstack/react-query';
import Link from 'next/link';
import { useState } from 'react';
import { useTranslations } from 'use-intl';
import { call } from '@/contract/call.ts';
import type { AskAnswerBody, AsksAnswer, AskToAnswer, OwnAsk } from '@/contract/sharing/access-requests.ts';
import type { PreviewAnswer } from '@/contract/sharing/sharing.ts';
import type { RightsWire } from '@/contract/sharing/sight.ts';
import { dateText, parseInstant, toWall, weekStart } from '@/core/time/index.ts';
import { AccessRequestState } from '../common/access-request-state.tsx';
import { DateField } from '../common/date-field.tsx';
import { useFrame } from '../common/frame-context.tsx';
import { useLevelName } from '../common/level-name.ts';
import pageCss from '../common/page.module.css';
import { KEYS } from '../common/query-keys.ts';
import { said } from '../common/refusal.ts';
import { DAY, dayMonth, weekTitle } from '../common/times.ts';
import { firstName, Token } from '../common/token.tsx';
import asksCss from './access-requests.module.css';
import { audienceParam } from './audience-param.ts';
import { MiniWeek } from './mini-week.tsx';
import { RightsPart } from './rights-part.tsx';
import { useSentence } from './sentence.tsx';

/** So many that wait stand open at first, each beside its week; the others at a press. */
const OPEN_AT_FIRST = 2;
/** So many of what is answered, and of one's own, before the rest is asked for. */
const FEW = 3;

/** Who asks for access that one may give, what was answered, and how one's own asks stand. Takes no room where there is none. */
export function Asks({ asks }: { asks: AsksAnswer }) {
  const t = useTranslations('ask');
  const own = asks.own.filter((ask) => ask.state !== 'takenBack');
  return (
    <>
      {asks.waiting.length > 0 && (
        <section aria-label={t('waitingTitle')} style={{ marginBottom: 14 }}>
          <h2 style={{ marginBottom: 8 }}>{t('waitingTitle')}</h2>
          {asks.waiting.map((ask, i) => (
            <AskCard key={ask.key} ask={ask} openFirst={i < OPEN_AT_FIRST} />
          ))}
        </section>
      )}
      {own.length > 0 && <OwnAsks own={own} />}
      {asks.answered.length > 0 && <Answered answered={asks.answered} />}
      {asks.cut && <p className="small soft">{t('cut')}</p>}
    </>
  );
}

function OwnAsks({ own }: { own: readonly OwnAsk[] }) {
  const t = useTranslations('ask');
  const { frame, ask } = useFrame();
  const [all, setAll] = useState(false);
  // What waits, or has news, isn't folded away.
  const first = own.filter((one, i) => one.state === 'open' || one.news || i < FEW);
  return (
    <section aria-label={t('ownTitle')} style={{ marginBottom: 14 }}>
      <h2 style={{ marginBottom: 8 }}>{t('ownTitle')}</h2>
      <ul className={asksCss.own}>
        {(all ? own : first).map((one) => (
          <li key={one.key}>
            <p className="row" style={{ gap: 8 }}>
              <Token name={one.to.name} colour={one.to.colour} tiny />
              <b>{one.to.name}</b>
              {one.further?.name && <span className="soft">{one.further.name}</span>}
              {one.news && <b className="wrong small">{t('news')}</b>}
              {one.has.sight !== 'nothing' && (
                <Link
                  className={asksCss.push}
                  href={`/for/${frame.me.handle}/calendar?of=${one.to.handle}${one.further?.key ? `&c=${one.further.key}` : ''}`}
                >
                  {t('look')}
                </Link>
              )}
              {one.state !== 'open' && ask && (
                <Button
                  variant="text"
                  sx={{ minHeight: 0 }}
                  onClick={() =>
                    ask({ people: [one.to], calendar: one.further?.key ? one.further : null, has: one.has })
                  }
                >
                  {t('again')}
                </Button>
              )}
            </p>
            <AccessRequestState ask={one} />
          </li>
        ))}
      </ul>
      {!all && first.length < own.length && (
        <Button variant="text" onClick={() => setAll(true)}>
          {t('allOwn', { count: own.length })}
        </Button>
      )}
    </section>
  );
}

/** What was answered, to be turned round from where it was answered, whenever that is. */
function Answered({ answered }: { answered: readonly AskToAnswer[] }) {
  const t = useTranslations('ask');
  const [all, setAll] = useState(false);
  return (
    <section aria-label={t('answeredTitle')} style={{ marginBottom: 14 }}>
      <h2 style={{ marginBottom: 8 }}>{t('answeredTitle')}</h2>
      {(all ? answered : answered.slice(0, FEW)).map((ask) => (
        <AskCard key={ask.key} ask={ask} openFirst={false} />
      ))}
      {!all && answered.length > FEW && (
        <Button variant="text" onClick={() => setAll(true)}>
          {t('allAnswered', { count: answered.length })}
        </Button>
      )}
    </section>
  );
}

const useDay = () => {
  const { style } = useFrame();
  return (instant: string, back = 0) => dayMonth(toWall(style.zone, (parseInstant(instant) ?? 0) - back));
};

function AskCard({ ask, openFirst }: { ask: AskToAnswer; openFirst: boolean }) {
  const t = useTranslations('ask');
  const { frame } = useFrame();
  const levelName = useLevelName();
  const day = useDay();
  const [open, setOpen] = useState(openFirst);
  const last = ask.answers.at(-1);
  const words = {
    who: ask.from.name,
    owner: ask.to.name,
    first: firstName(ask.to.name),
    own: ask.own ? 'yes' : 'no',
    what: levelName(ask.wants),
  };
  const by = last?.by ? (last.by.actor === last.by.principal ? last.by.actor : t('hand', last.by)) : '';
  return (
    <article
      className={`${pageCss.card} ${asksCss.card} who-${ask.to.colour % 6}`}
      aria-label={t('cardLabel', { who: ask.from.name, owner: ask.to.name })}
    >
      <Token name={ask.from.name} colour={ask.from.colour} />
      <div className={asksCss.body}>
        <p>
          <b>{ask.from.name}</b> {ask.from.detail && <span className="small soft">{ask.from.detail} · </span>}
          {t('asks', words)} {ask.further && <span className="soft">“{ask.further.name}”</span>}{' '}
          <span className="small soft">
            {day(ask.at)}
            {ask.nudged && ` · ${t('nudgedOn', { date: day(ask.nudged) })}`}
          </span>
        </p>
        {ask.why && <p style={{ whiteSpace: 'pre-line' }}>“{ask.why}”</p>}
        {(ask.starts || ask.ends) && (
          <p className="small">
            {ask.starts && `${t('fromDay', { date: day(ask.starts) })} `}
            {ask.ends && t('untilDay', { date: day(ask.ends, 1) })}
          </p>
        )}
        {ask.gave && (
          <p className="small">
            {t('gave', { who: firstName(ask.from.name), what: levelName(ask.gave) })}{' '}
            {ask.own && (
              <Link href={`/for/${frame.me.handle}/calendar?of=${ask.from.handle}`}>{t('lookAtTheirs')}</Link>
            )}
          </p>
        )}
        {ask.state !== 'open' && last && (
          <p className="small">
            {last.answer === 'given'
              ? t('answeredYes', { who: by, what: last.rights ? levelName(last.rights) : '', date: day(last.at) })
              : t('answeredNo', { who: by, date: day(last.at) })}
            {last.note && ` “${last.note}”`}
          </p>
        )}
        <p className="small soft">{t('hasNow', { who: firstName(ask.from.name), what: levelName(ask.has) })}</p>
        {open ? (
          <Answer ask={ask} onLeave={() => setOpen(false)} />
        ) : (
          <div>
            <Button variant="outlined" onClick={() => setOpen(true)}>
              {t(ask.state === 'open' ? 'answer' : ask.state === 'given' ? 'turnGiven' : 'turnRefused')}
            </Button>
          </div>
        )}
      </div>
    </article>
  );
}

/** The level that is given, beside the week as the asker would then see it; a no, with words or without; or neither. */
function Answer({ ask, onLeave }: { ask: AskToAnswer; onLeave: () => void }) {
  const t = useTranslations();
  const ta = useTranslations('ask');
  const { style, now, toast } = useFrame();
  const client = useQueryClient();
  const sentence = useSentence();
  const levelName = useLevelName();
  const today = Math.floor(toWall(style.zone, now()) / DAY) * DAY;
  const [rights, setRights] = useState<RightsWire>(ask.wants);
  const asUntil = ask.ends ? dateText(toWall(style.zone, (parseInstant(ask.ends) ?? 0) - 1)) : '';
  const asFrom = ask.starts ? dateText(toWall(style.zone, parseInstant(ask.starts) ?? 0)) : '';
  const [until, setUntil] = useState(asUntil >= dateText(today) ? asUntil : '');
  const [choosing, setChoosing] = useState(false);
  const [refusing, setRefusing] = useState(ask.state === 'given');
  const [note, setNote] = useState('');
  const [busy, setBusy] = useState(false);
  const [refused, setRefused] = useState<string | null>(null);
  const [fields, setFields] = useState<Readonly<Record<string, string>>>({});
  const week = weekStart(today, style.weekFirst);
  const range = { from: dateText(week), to: dateText(week + 7 * DAY), zone: style.zone };
  // What is given for a time stands beside what stands; what is standing takes the place of what stood.
  const seen =
    ask.standing.find((g) => (until === '' ? g.from === null && g.until === null : g.byAsk && g.until !== null))?.key ??
    null;
  const preview = useQuery({
    queryKey: KEYS.calendar(ask.calendar, 'preview', ask.audience, seen, rights, range),
    queryFn: () =>
      call('previewAccess', {
        params: { calendar: ask.calendar },
        body: { audience: ask.audience, rights, seen, range },
      }) as Promise<PreviewAnswer>,
    placeholderData: keepPreviousData,
  });
  const who = firstName(ask.from.name);
  const owner = firstName(ask.to.name);
  const send = async (body: AskAnswerBody, text: string) => {
    setBusy(true);
    setRefused(null);
    setFields({});
    try {
      await call('answerAccessRequest', { params: { ask: ask.key }, body });
      toast({ text });
      onLeave();
      await client.invalidateQueries();
    } catch (error) {
      const s = said(error, t('common.unreachable'));
      setRefused(s.sentence);
      setFields(s.fields);
      await client.invalidateQueries({ queryKey: KEYS.asks });
      // Where somebody else was quicker the card moves on, and the sentence with it.
      if (s.code === 'askAnswered' || s.code === 'askGone') toast({ text: s.sentence });
    } finally {
      setBusy(false);
    }
  };
  const { turns } = ask;
  const give = () =>
    send(
      {
        answer: 'give',
        turns,
        rights,
        span: until ? { from: asFrom >= dateText(today) ? asFrom : null, until, zone: style.zone } : null,
        seen,
        note,
      },
      ta('givenDone', { who: ask.from.name, what: levelName(rights) }),
    );
  const refuse = (takes: string[], quiet: boolean) =>
    send(
      { answer: 'refuse', turns, takes, note: quiet ? '' : note, quiet },
      ta(quiet ? 'closedDone' : 'refusedDone', { who }),
    );
  const answer = preview.data;
  const does = sentence(rights, owner, ask.own);
  const noteField = (label: string) => (
    <TextField
      label={label}
      value={note}
      multiline
      maxRows={4}
      error={!!fields.note}
      helperText={fields.note}
      onChange={(e) => setNote(e.target.value)}
    />
  );
  return (
    <div className={asksCss.answer}>
      <div className={asksCss.choose}>
        {refused && <Alert severity="error">{refused}</Alert>}
        {refusing ? (
          <Refusal
            ask={ask}
            busy={busy}
            note={noteField(ta('noWords'))}
            onNo={refuse}
            onBack={ask.state === 'given' ? onLeave : () => setRefusing(false)}
          />
        ) : (
          <>
            <p aria-live="polite">
              <b>{who}</b> {does.does} <span className="soft">{does.cannot}</span>
            </p>
            {answer && JSON.stringify(answer.effective) !== JSON.stringify(rights) && !preview.isPlaceholderData && (
              <p className="small wrong">{ta('cut2', { what: levelName(answer.effective) })}</p>
            )}
            {choosing && (
              <RightsPart
                rights={rights}
                choices={answer?.choices ?? []}
                audience="one"
                fields={fields}
                onPick={(group, value) => {
                  const found = answer?.choices.find((c) => c.group === group && c.value === value);
                  if (found && !found.needs && !found.barred) setRights(found.rights);
                }}
              />
            )}
            {(choosing || until !== '') && (
              <DateField
                label={ta('until')}
                value={until}
                error={fields.until}
                help={ta('untilHelp')}
                onChange={setUntil}
              />
            )}
            {noteField(ta('yesWords'))}
            <div className="row">
              <Button
                variant="contained"
                loading={busy}
                disabled={!answer || preview.isPlaceholderData || rights.sight === 'nothing'}
                onClick={() => void give()}
              >
                {ask.own
                  ? ta('giveMine', { what: levelName(rights) })
                  : ta('giveFor', { what: levelName(rights), owner })}
              </Button>
              <Button variant="outlined" aria-expanded={choosing} onClick={() => setChoosing(!choosing)}>
                {ta('another')}
              </Button>
              {ask.state === 'open' && (
                <Button variant="outlined" onClick={() => setRefusing(true)}>
                  {ta('sayNo')}
                </Button>
              )}
              <Button variant="text" onClick={onLeave}>
                {ta('leave')}
              </Button>
            </div>
          </>
        )}
      </div>
      {!refusing && (
        <div className={asksCss.week}>
          <p className="small soft" style={{ marginBottom: 4 }}>
            {ta('weekThen', { who, week: weekTitle(week) })}
          </p>
          {preview.isError && <Alert severity="error">{t('lines.failed')}</Alert>}
          {answer && <MiniWeek items={answer.items} first={week} selected={null} onPick={null} low />}
        </div>
      )}
    </div>
  );
}

/** A no: what it takes away, said before; and whether the asker is told or only sees that it is closed. */
function Refusal(props: {
  ask: AskToAnswer;
  busy: boolean;
  note: React.ReactNode;
  onNo: (takes: string[], quiet: boolean) => void;
  onBack: () => void;
}) {
  const { ask, busy, note, onNo, onBack } = props;
  const t = useTranslations('ask');
  const { frame } = useFrame();
  const levelName = useLevelName();
  const day = useDay();
  const [quiet, setQuiet] = useState(false);
  const who = firstName(ask.from.name);
  const byHand = ask.standing.filter((g) => !g.byAsk);
  const byAsk = ask.standing.filter((g) => g.byAsk);
  // A no to what waits leaves what they have; one that turns a yes round takes it away.
  const turning = ask.state === 'given' && ask.standing.length > 0;
  const all = ask.standing.map((g) => g.key);
  return (
    <>
      {turning ? (
        <div role="alert" style={{ display: 'grid', gap: 4 }}>
          <p>{t('takesHead', { who })}</p>
          <ul className={asksCss.takes}>
            {ask.standing.map((g) => (
              <li key={g.key}>
                {t(g.byAsk ? 'takesAsked' : 'takesByHand', {
                  what: levelName(g.rights),
                  date: day(g.since),
                  by: g.given.actor,
                  mine: g.given.actor === frame.me.name ? 'yes' : 'no',
                })}
              </li>
            ))}
          </ul>
          <p className="small soft">{t('takesThen', { who, what: levelName(ask.without) })}</p>
        </div>
      ) : (
        <p className="small soft">{t('noLeaves', { who, what: levelName(ask.has) })}</p>
      )}
      {!quiet && note}
      <FormControlLabel
        sx={{ m: 0, gap: 1 }}
        label={t('quiet', { who })}
        control={<Switch size="small" checked={quiet} onChange={(e) => setQuiet(e.target.checked)} />}
      />
      <div className="row">
        {turning ? (
          <>
            <Button variant="contained" color="error" loading={busy} onClick={() => onNo(all, quiet)}>
              {t('takeAll')}
            </Button>
            {byHand.length > 0 && (
              <Button
                variant="outlined"
                loading={busy}
                onClick={() =>
                  onNo(
                    byAsk.map((g) => g.key),
                    quiet,
                  )
                }
              >
                {t('keepByHand')}
              </Button>
            )}
          </>
        ) : (
          <Button variant="contained" color="error" loading={busy} onClick={() => onNo([], quiet)}>
            {t('no')}
          </Button>
        )}
        <Button variant="text" onClick={onBack}>
          {t('back')}
        </Button>
        <Link
          className="small"
          href={`/for/${ask.to.handle}/sightlines?who=${encodeURIComponent(audienceParam(ask.audience))}`}
        >
          {t('inSightlines')}
        </Link>
      </div>
    </>
  );
}
