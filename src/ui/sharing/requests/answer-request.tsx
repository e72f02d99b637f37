'use client';
import Alert from '@mui/material/Alert';
import Button from '@mui/material/Button';
import FormControlLabel from '@mui/material/FormControlLabel';
import Switch from '@mui/material/Switch';
import TextField from '@mui/material/TextField';
import { useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import { useTranslations } from 'use-intl';
import { call } from '@/contract/call.ts';
import type { AccessRequestToAnswer, AnswerAccessRequestBody } from '@/contract/sharing/access-requests.ts';
import type { RightsWire } from '@/contract/sharing/sight.ts';
import { dateText, parseInstant, toWall, weekStart } from '@/core/time/index.ts';
import { useActing } from '../../common/fetched/acting.ts';
import { useChoosing } from '../../common/fetched/choosing.ts';
import { KEYS } from '../../common/fetched/query-keys.ts';
import { DateField } from '../../common/fields/date-field.tsx';
import { useFrame } from '../../common/frame-context.tsx';
import { Link } from '../../common/link.tsx';
import { useLevelName } from '../../common/requests/level-name.ts';
import { DAY, dayMonth, weekTitle } from '../../common/times.ts';
import { firstName } from '../../common/token.tsx';
import { audienceParam } from '../audience-param.ts';
import { Caution } from '../grants/caution.tsx';
import { RightsPart } from '../grants/rights-part.tsx';
import { useRightsPreview } from '../grants/rights-preview.ts';
import { MiniWeek } from '../mini-week.tsx';
import { useSentence } from '../sentence.tsx';
import { TheirList } from '../their-list.tsx';
import asksCss from './access-requests.module.css';

/** A day of an instant on the reader's clock; `back` milliseconds before it. */
export const useDay = () => {
  const { style } = useFrame();
  return (instant: string, back = 0) => dayMonth(toWall(style.zone, (parseInstant(instant) ?? 0) - back));
};

/** The level that is given, beside the week as the asker would then see it; a no, with words or without; or neither. */
export function AnswerRequest({ request, onLeave }: { request: AccessRequestToAnswer; onLeave: () => void }) {
  const t = useTranslations();
  const ta = useTranslations('ask');
  const { style, now, toast } = useFrame();
  const client = useQueryClient();
  const sentence = useSentence();
  const levelName = useLevelName();
  const today = Math.floor(toWall(style.zone, now()) / DAY) * DAY;
  const [rights, setRights] = useState<RightsWire>(request.wants);
  const asUntil = request.ends ? dateText(toWall(style.zone, (parseInstant(request.ends) ?? 0) - 1)) : '';
  const asFrom = request.starts ? dateText(toWall(style.zone, parseInstant(request.starts) ?? 0)) : '';
  const [until, setUntil] = useState(asUntil >= dateText(today) ? asUntil : '');
  const [open, setOpen] = useState(false);
  const [refusing, setRefusing] = useState(request.state === 'given');
  const [note, setNote] = useState('');
  const { attempt, busy, refused, fields } = useActing();
  const week = weekStart(today, style.weekFirst);
  // What is given for a time stands beside what stands; what is standing takes the place of what stood.
  const seen =
    request.standing.find((g) => (until === '' ? g.from === null && g.until === null : g.byAsk && g.until !== null))
      ?.key ?? null;
  const preview = useRightsPreview(request.calendar, request.audience, rights, seen, week);
  const choosing = useChoosing(preview, setRights);
  const who = firstName(request.from.name);
  const owner = firstName(request.to.name);
  const send = async (body: AnswerAccessRequestBody, text: string) => {
    const answered = await attempt(
      async () => {
        await call('answerAccessRequest', { params: { ask: request.key }, body });
        toast({ text });
        onLeave();
        await client.invalidateQueries();
      },
      ({ code, sentence }) => {
        // Where somebody else was quicker the card moves on, and the sentence with it.
        if (code === 'askAnswered' || code === 'askGone') toast({ text: sentence });
        return sentence;
      },
    );
    if (!answered) await client.invalidateQueries({ queryKey: KEYS.accessRequests });
  };
  const { turns } = request;
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
      ta('givenDone', { who: request.from.name, what: levelName(rights) }),
    );
  const refuse = (takes: string[], quiet: boolean) =>
    send(
      { answer: 'refuse', turns, takes, note: quiet ? '' : note, quiet },
      ta(quiet ? 'closedDone' : 'refusedDone', { who }),
    );
  const { answer, settled } = preview;
  const kind = request.further?.kind ?? 'calendar';
  const does = sentence(rights, owner, request.own, kind);
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
            request={request}
            busy={busy}
            note={noteField(ta('noWords'))}
            onNo={refuse}
            onBack={request.state === 'given' ? onLeave : () => setRefusing(false)}
          />
        ) : (
          <>
            <p aria-live="polite">
              <b>{who}</b> {does.does} <span className="soft">{does.cannot}</span>
            </p>
            {answer && JSON.stringify(answer.effective) !== JSON.stringify(rights) && settled && (
              <p className="small wrong">{ta('cut2', { what: levelName(answer.effective) })}</p>
            )}
            <Caution {...{ who, owner, rights }} />
            {open && (
              <RightsPart
                rights={rights}
                choices={answer?.choices ?? []}
                audience="one"
                kind={kind}
                fields={fields}
                onPick={choosing.pick}
              />
            )}
            {(open || until !== '') && (
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
                disabled={!settled || choosing.waits || rights.sight === 'nothing'}
                onClick={() => void give()}
              >
                {request.own
                  ? ta('giveMine', { what: levelName(rights) })
                  : ta('giveFor', { what: levelName(rights), owner })}
              </Button>
              <Button variant="outlined" aria-expanded={open} onClick={() => setOpen(!open)}>
                {ta('another')}
              </Button>
              {request.state === 'open' && (
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
          <p className="small soft below-2">
            {kind === 'calendar' ? ta('weekThen', { who, week: weekTitle(week) }) : ta('listThen', { who })}
          </p>
          {preview.why && <Alert severity="error">{t('lines.failed')}</Alert>}
          {answer && kind !== 'calendar' && (
            // biome-ignore lint/a11y/noNoninteractiveTabindex: a scrolling region must be reachable by keyboard
            <section className={asksCss.listed} tabIndex={0} aria-label={ta('listThen', { who })}>
              <TheirList kind={kind} answer={answer} which="after" />
            </section>
          )}
          {answer && kind === 'calendar' && (
            <MiniWeek items={answer.items} first={week} selected={null} onPick={null} low />
          )}
        </div>
      )}
    </div>
  );
}

/** A no: what it takes away, said before; and whether the asker is told or only sees that it is closed. */
function Refusal(props: {
  request: AccessRequestToAnswer;
  busy: boolean;
  note: React.ReactNode;
  onNo: (takes: string[], quiet: boolean) => void;
  onBack: () => void;
}) {
  const { request, busy, note, onNo, onBack } = props;
  const t = useTranslations('ask');
  const { frame } = useFrame();
  const levelName = useLevelName();
  const day = useDay();
  const [quiet, setQuiet] = useState(false);
  const who = firstName(request.from.name);
  const givenDirectly = request.standing.filter((g) => !g.byAsk);
  const byRequest = request.standing.filter((g) => g.byAsk);
  // A no to what waits leaves what they have; one that turns a yes round takes it away.
  const turning = request.state === 'given' && request.standing.length > 0;
  const all = request.standing.map((g) => g.key);
  return (
    <>
      {turning ? (
        <div role="alert" className="gap-2 stack">
          <p>{t('takesHead', { who })}</p>
          <ul className={asksCss.takes}>
            {request.standing.map((g) => (
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
          <p className="small soft">{t('takesThen', { who, what: levelName(request.without) })}</p>
        </div>
      ) : (
        <p className="small soft">{t('noLeaves', { who, what: levelName(request.has) })}</p>
      )}
      {!quiet && note}
      <FormControlLabel
        className="choice"
        label={t('quiet', { who })}
        control={<Switch size="small" checked={quiet} onChange={(e) => setQuiet(e.target.checked)} />}
      />
      <div className="row">
        {turning ? (
          <>
            <Button variant="contained" color="error" loading={busy} onClick={() => onNo(all, quiet)}>
              {t('takeAll')}
            </Button>
            {givenDirectly.length > 0 && (
              <Button
                variant="outlined"
                loading={busy}
                onClick={() =>
                  onNo(
                    byRequest.map((g) => g.key),
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
          href={`/for/${request.to.handle}/sightlines?${new URLSearchParams({
            who: audienceParam(request.audience),
            ...(request.further ? { c: request.further.key } : {}),
          })}`}
        >
          {t('inSightlines')}
        </Link>
      </div>
    </>
  );
}
