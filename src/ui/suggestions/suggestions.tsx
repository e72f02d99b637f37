'use client';
import Alert from '@mui/material/Alert';
import Button from '@mui/material/Button';
import TextField from '@mui/material/TextField';
import { useQueryClient } from '@tanstack/react-query';
import { type ReactNode, useState } from 'react';
import { useTranslations } from 'use-intl';
import { call } from '@/contract/call.ts';
import type { SuggestionsAnswer, SuggestionWire } from '@/contract/suggestions.ts';
import { dateText, parseDate, parseInstant, toWall } from '@/core/time/index.ts';
import { useActing, useActingWithToast } from '../common/fetched/acting.ts';
import { KEYS } from '../common/fetched/query-keys.ts';
import type { Said } from '../common/fetched/refusal.ts';
import { useFrame } from '../common/frame-context.tsx';
import { Link } from '../common/link.tsx';
import pageCss from '../common/page.module.css';
import { whenText } from '../common/times.ts';
import { firstName, Token } from '../common/token.tsx';
import { repeatKind } from '../items/form/repeat-kinds.ts';

/** What waits for one's yes, and what one put forward oneself. Takes no room where there is neither. */
export function Suggestions({ list: { waiting, own } }: { list: SuggestionsAnswer }) {
  const t = useTranslations('messages');
  return (
    <>
      {waiting.length > 0 && (
        <section aria-label={t('forwardTitle')} className="below-6">
          <h2 className="below-4">{t('forwardTitle')}</h2>
          {waiting.map((s) => (
            <Waiting key={s.key} suggestion={s} />
          ))}
        </section>
      )}
      {own.length > 0 && (
        <section className={`${pageCss.card} gap-6 below-6 stack`} aria-label={t('forwardOwnTitle')}>
          <h2>{t('forwardOwnTitle')}</h2>
          {own.map((s) => (
            <Own key={s.key} suggestion={s} />
          ))}
        </section>
      )}
    </>
  );
}

/** Sends an answer; what is said of it, and a refusal at its place. */
function useAnswer(s: SuggestionWire) {
  const t = useTranslations();
  const { toast } = useFrame();
  const client = useQueryClient();
  const { attempt, busy, refused } = useActing();
  const { attempt: undoing } = useActingWithToast();
  const answer = async (how: 'yes' | 'no' | 'withdrawn', note: string, text: string) => {
    let sentence = '';
    const answered = async () => {
      const params = { suggestion: s.key };
      const { undo } = await call('answerSuggestion', { params, body: { answer: how, note, version: s.version } });
      const takeBack = async () => {
        await undoing(async () => {
          await call('undo', { body: { undo: undo ?? '' } });
          toast({ text: t('board.undone') });
        });
        await client.invalidateQueries();
      };
      toast(undo ? { text, undo: () => void takeBack() } : { text });
      await client.invalidateQueries();
    };
    const refusedWith = (why: Said) => {
      sentence = why.sentence;
      return sentence;
    };
    if (await attempt(answered, refusedWith)) return;
    await client.invalidateQueries({ queryKey: KEYS.suggestions });
    // Where somebody else was quicker, its card is gone, and the sentence with it.
    const now = client.getQueryData<SuggestionsAnswer>(KEYS.suggestions);
    if (now && ![...now.waiting, ...now.own].some((other) => other.key === s.key)) toast({ text: sentence });
  };
  return { answer, busy, refused };
}

const HEAD = { add: 'forwardAdd', change: 'forwardChange', remove: 'forwardRemove', answer: 'forwardAnswer' } as const;

function Waiting({ suggestion: s }: { suggestion: SuggestionWire }) {
  const t = useTranslations('messages');
  const { frame } = useFrame();
  const { answer, busy, refused } = useAnswer(s);
  const day = useDay(s);
  const [note, setNote] = useState('');
  const mine = s.owner.handle === frame.me.handle;
  const owner = firstName(s.owner.name);
  const words = { who: s.who, owner };
  const yes =
    s.kind === 'answer'
      ? t('forwardSayYesAnswer')
      : s.kind === 'remove'
        ? t('forwardSayYesRemove')
        : mine
          ? t('forwardSayYesMine')
          : t('forwardSayYes', { owner });
  const overlaps = s.overlaps.map((title) => title ?? t('forwardSomething')).join(', ');
  return (
    <article
      className={`${pageCss.card} who-${s.owner.colour % 6} gap-6 below-5 line`}
      aria-label={s.wanted.title ?? s.now?.title ?? ''}
    >
      <Token name={s.owner.name} colour={s.owner.colour} />
      <div className="gap-3 grow stack">
        <p>
          {t(mine ? `${HEAD[s.kind]}Mine` : HEAD[s.kind], words)}
          {s.further && <span className="soft"> · {s.further.name}</span>}
        </p>
        <Compared suggestion={s} />
        {s.why && <p className="lines">“{s.why}”</p>}
        {overlaps && <p className="small wrong">{t('forwardOverlaps', { titles: overlaps })}</p>}
        {s.movedOn && <p className="small wrong">{t('forwardMovedOn')}</p>}
        {refused && <Alert severity="error">{refused}</Alert>}
        <div className="row">
          <TextField
            label={t('forwardNote')}
            value={note}
            onChange={(e) => setNote(e.target.value)}
            slotProps={{ htmlInput: { maxLength: 1000 } }}
            fullWidth={false}
            className="field-4"
          />
          <Button variant="contained" loading={busy} onClick={() => void answer('yes', note, t('forwardDone', words))}>
            {yes}
          </Button>
          <Button variant="outlined" loading={busy} onClick={() => void answer('no', note, t('forwardNoDone', words))}>
            {t('forwardSayNo')}
          </Button>
          <Link className="small" href={day}>
            {t('forwardLook')}
          </Link>
        </div>
      </div>
    </article>
  );
}

/** The day it is about, on the owner's board: where one acts for them, working for them. */
function useDay(s: SuggestionWire): string {
  const { frame, style } = useFrame();
  const at = s.wanted.when ?? s.now;
  const wall = at && (at.allDay ? parseDate(at.start) : toWall(style.zone, parseInstant(at.start) ?? 0));
  const acted = frame.principals.some((p) => p.handle === s.owner.handle);
  const query = new URLSearchParams({
    view: 'day',
    ...(wall ? { week: dateText(wall) } : {}),
    ...(s.further ? { c: s.further.key } : {}),
    ...(acted ? {} : { of: s.owner.handle }),
  });
  return `/for/${acted ? s.owner.handle : frame.me.handle}/calendar?${query}`;
}

function Own({ suggestion: s }: { suggestion: SuggestionWire }) {
  const t = useTranslations('messages');
  const { answer, busy, refused } = useAnswer(s);
  const by = { who: s.answeredBy ?? '' };
  const words = { kind: s.kind, owner: firstName(s.owner.name) };
  return (
    <div className="gap-2 stack">
      <p className="soft">
        {s.further ? t('forwardOwnFurther', { ...words, calendar: s.further.name }) : t('forwardOwn', words)}
      </p>
      <Compared suggestion={s} />
      {s.why && <p className="small">“{s.why}”</p>}
      {refused && <Alert severity="error">{refused}</Alert>}
      <p className="row small">
        {s.state === 'open'
          ? t('forwardWaits')
          : s.state === 'withdrawn'
            ? t('forwardBack')
            : t(s.state === 'yes' ? 'forwardYes' : 'forwardNo', by)}{' '}
        {s.answerNote && `“${s.answerNote}”`}
        {s.state === 'open' && (
          <Button
            variant="outlined"
            loading={busy}
            className="low"
            onClick={() => void answer('withdrawn', '', t('forwardBackDone'))}
          >
            {t('forwardTakeBack')}
          </Button>
        )}
      </p>
    </div>
  );
}

/** What is asked for beside what stands: an addition and a removal whole, a change field by field. */
function Compared({ suggestion: s }: { suggestion: SuggestionWire }) {
  const t = useTranslations();
  const { style } = useFrame();
  const { wanted, now } = s;
  if (s.kind !== 'change') {
    const it = s.kind === 'add' ? { ...wanted, ...wanted.when } : now;
    if (!it) return null;
    const { start, end, allDay } = it as { start?: string; end?: string; allDay?: boolean };
    const repeats = wanted.rule ? t(`form.repeat.${repeatKind(wanted.rule)}`, { rule: wanted.rule }) : null;
    const facts: ReactNode[] = [
      start && end ? whenText({ start, end, allDay: allDay === true }, style) : null,
      it.place,
      repeats,
      wanted.kind && wanted.kind !== 'meeting' ? t(`kinds.${wanted.kind}`) : null,
      wanted.shows && wanted.shows !== 'busy' ? t(`statuses.${wanted.shows}`) : null,
      wanted.visibility && wanted.visibility !== 'follow' ? t(`visibilities.${wanted.visibility}`) : null,
    ].filter(Boolean);
    return (
      <div>
        <p>
          <b>{it.title}</b> <span className="soft">{facts.join(' · ')}</span>
        </p>
        {it.notes && <p className="small soft lines">{it.notes}</p>}
        {it.link && <p className="small soft">{it.link}</p>}
        {wanted.answer && (
          <Line
            name="answer"
            was={null}
            wanted={`${t(`meetings.gave.${wanted.answer}`)}${wanted.comment ? ` “${wanted.comment}”` : ''}`}
          />
        )}
        <People wanted={wanted} />
        {wanted.all && <p className="small soft">{t('messages.forwardAll')}</p>}
      </div>
    );
  }
  // Once answered, what stood then is no longer known.
  const waits = s.state === 'open';
  const fields = (['title', 'place', 'notes', 'link'] as const).filter((name) => wanted[name] !== undefined);
  return (
    <div>
      {now?.title && (
        <p>
          <b>{now.title}</b> {!wanted.when && <span className="soft">{whenText(now, style)}</span>}
        </p>
      )}
      {wanted.when && (
        <Line name="when" was={waits && now ? whenText(now, style) : null} wanted={whenText(wanted.when, style)} />
      )}
      <People wanted={wanted} />
      {wanted.all && <p className="small soft">{t('messages.forwardAll')}</p>}
      {fields.map((name) => (
        <Line key={name} name={name} was={waits ? (now?.[name] ?? null) : null} wanted={wanted[name] ?? null} />
      ))}
    </div>
  );
}

/** Whom a meeting would ask. */
function People({ wanted }: { wanted: SuggestionWire['wanted'] }) {
  if (!wanted.people) return null;
  return <Line name="people" was={null} wanted={wanted.people.map((p) => p.name ?? p.address).join(', ')} />;
}

function Line({ name, was, wanted }: { name: string; was: string | null; wanted: string | null }) {
  const t = useTranslations('messages');
  return (
    <p>
      <span className="small soft">{t('forwardFields', { field: name })}</span> {was && <s className="soft">{was}</s>}{' '}
      {wanted ?? t('forwardEmpty')}
    </p>
  );
}
