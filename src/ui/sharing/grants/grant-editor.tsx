'use client';
import Alert from '@mui/material/Alert';
import TextField from '@mui/material/TextField';
import { usePathname, useSearchParams } from 'next/navigation';
import { type ReactNode, useEffect, useState } from 'react';
import { useTranslations } from 'use-intl';
import { call } from '@/contract/call.ts';
import { reachOf } from '@/contract/sharing/reach.ts';
import type {
  AudienceWire,
  GivenAnswer,
  GrantWire,
  SightlineRow,
  SightlinesAnswer,
} from '@/contract/sharing/sharing.ts';
import type { RightsWire } from '@/contract/sharing/sight.ts';
import { dateText, parseDate, parseInstant, toWall, weekStart } from '@/core/time/index.ts';
import { useActing } from '../../common/fetched/acting.ts';
import { useChoosing, useConfirming } from '../../common/fetched/choosing.ts';
import { dropDraft, peekDraft, useSaveDraftOnLeaving } from '../../common/fetched/saved-drafts.ts';
import { useFrame } from '../../common/frame-context.tsx';
import { NOTHING } from '../../common/requests/plain-rights.ts';
import { DAY } from '../../common/times.ts';
import { firstName } from '../../common/token.tsx';
import { audienceParam } from '../audience-param.ts';
import { LinkPart } from '../links/link-part.tsx';
import sightlinesCss from '../sightlines.module.css';
import { TheirView } from '../their-view.tsx';
import { BarredCard } from './barred-card.tsx';
import { aboutOf, ConfirmGive } from './confirm-give.tsx';
import { GrantActs } from './grant-acts.tsx';
import { GrantDates } from './grant-dates.tsx';
import grantEditorCss from './grant-editor.module.css';
import { GrantHead } from './grant-head.tsx';
import type { SavedGrant } from './grant-rights.ts';
import { seesLess, startOf } from './grant-start.ts';
import { GrantSummary } from './grant-summary.tsx';
import { LeastShown } from './least.tsx';
import { MessageShown } from './message-shown.tsx';
import { Opened } from './opened.tsx';
import { RequestInReturn } from './request-in-return.tsx';
import { FieldWrong, RightsPart, same } from './rights-part.tsx';
import { useRightsPreview } from './rights-preview.ts';
import { TakeCard } from './take-card.tsx';
import { type Undo, undoOf } from './undo-grant.ts';

/** What one grant gives, standing or for a time; every choice, and what it comes to, is the server's. */
export function GrantEditor(props: {
  calendar: string;
  row: SightlineRow;
  grant: GrantWire | null;
  dated: boolean;
  lines: SightlinesAnswer;
  name: string;
  chips: ReactNode;
  onSaved: (text: string, audience?: AudienceWire, undo?: Undo) => Promise<void>;
  onTaken: (text: string, undo?: Undo) => Promise<void>;
}) {
  const { calendar, row, grant, dated, lines, name, chips, onSaved, onTaken } = props;
  const t = useTranslations();
  const tl = useTranslations('lines');
  const { style, now } = useFrame();
  const everyoneRow = row.audience.kind === 'everyone';
  const link = row.audience.kind === 'link' || row.audience.kind === 'newLink';
  const owner = firstName(lines.owner.name);
  const who = everyoneRow || link || name.includes('@') ? name : firstName(name);
  const today = Math.floor(toWall(style.zone, now()) / DAY) * DAY;
  const [begun, setBegun] = useState<RightsWire | null>(null);
  const start: RightsWire = grant?.rights ?? begun ?? NOTHING;
  const savedAs = `grant ${calendar} ${audienceParam(row.audience)} ${grant?.key ?? (dated ? 'dated' : '')}`;
  // What was typed here before and not saved is gone on with.
  const [savedGrant] = useState(() => peekDraft(savedAs)?.data as SavedGrant | undefined);
  useEffect(() => dropDraft(savedAs), [savedAs]);
  const [chosen, setChosen] = useState<RightsWire | null>(savedGrant?.chosen ?? null);
  // The grant as it stood when the first choice was made: what someone else changes meanwhile is not written over unseen.
  const [base, setBase] = useState<{ key: string | null } | null>(null);
  const dayOf = (instant: string | null | undefined, back: number) =>
    instant ? dateText(toWall(style.zone, (parseInstant(instant) ?? 0) - back)) : '';
  const was = { from: dayOf(grant?.from, 0), until: dayOf(grant?.until, 1) };
  const [span, setSpan] = useState<{ from: string; until: string } | null>(savedGrant?.span ?? null);
  const { from, until } = span ?? was;
  const [note, setNote] = useState(savedGrant?.note ?? '');
  const [hidden, setHidden] = useState<ReadonlySet<string>>(new Set());
  // What the owner asks for of theirs with it: off until it is switched on.
  const [inReturn, setInReturn] = useState<RightsWire['sight'] | null>(null);
  const [linkName, setLinkName] = useState(savedGrant?.linkName ?? '');
  const [taking, setTaking] = useState(false);
  const { attempt, busy, refused, fields, clear } = useActing();
  const search = useSearchParams();
  const [week, setWeek] = useState(() => weekStart(parseDate(search.get('day') ?? '') ?? today, style.weekFirst));

  const mayRequestInReturn = lines.own && lines.calendar.main && row.audience.kind === 'person' && !row.outside;
  const spanOf = (from: string, until: string) =>
    from || until ? { from: from || null, until: until || null, zone: style.zone } : null;
  const rights = chosen ?? start;
  const preview = useRightsPreview(calendar, row.audience, taking ? null : rights, grant?.key ?? null, week);
  const { answer, settled } = preview;
  if (grant === null && !everyoneRow && !link && begun === null && answer && settled)
    setBegun(startOf(answer.before, answer.choices));
  // An audience that can't be given anything is said as soon as it is known, not when one saves.
  const audienceWrong = preview.why?.fields.audience;
  const choosing = useChoosing(preview, setChosen);
  // Whether saving needs a confirmation, and which, depends on the answer for the current rights: until it is here, saving waits.
  const ready = !choosing.waits && settled;
  const pick = (group: string, value: string) => {
    clear();
    setTaking(false);
    saving.no();
    setBase((was) => was ?? { key: grant?.key ?? null });
    choosing.pick(group, value);
  };

  const unsaved = grant === null || !same(rights, grant.rights) || from !== was.from || until !== was.until;
  const path = usePathname();
  const somethingTyped =
    (chosen !== null && !same(chosen, start)) ||
    (span !== null && (span.from !== was.from || span.until !== was.until)) ||
    note !== '' ||
    linkName !== '';
  const over = useSaveDraftOnLeaving(
    somethingTyped
      ? {
          key: savedAs,
          title: t('kept.access', { who: name || linkName }),
          owner: lines.owner.name,
          colour: lines.owner.colour,
          href: `${path}?${new URLSearchParams({ ...Object.fromEntries(search), who: audienceParam(row.audience), again: String(now()) })}`,
          data: { chosen, span, note, linkName } satisfies SavedGrant,
        }
      : null,
  );
  const presetName = (r: RightsWire): string => {
    const preset = answer?.choices.find(
      (c) => c.group === 'preset' && same({ ...c.rights, private: r.private, copies: r.copies, absence: r.absence }, r),
    );
    return preset
      ? t(`presets.${preset.value as 'full'}`)
      : `${t(`sights.${r.sight}`)}, ${t(`reaches.${reachOf(r)}`).toLowerCase()}`;
  };
  const act = (work: () => Promise<unknown>, done: () => Promise<void>) =>
    attempt(
      async () => {
        await work();
        await done();
      },
      ({ code, sentence }) => {
        // It was said: the next try is one that has seen it.
        if (code === 'changedMeanwhile') setBase(null);
        return code === 'changedMeanwhile' ? tl('stale') : sentence;
      },
    );
  const what = (everyoneRow || link) && rights.sight === 'nothing' ? t('sights.nothing') : presetName(rights);
  const give = (tell: boolean) => {
    let given: GivenAnswer | null = null;
    return act(
      async () => {
        given = await call('giveAccess', {
          params: { calendar },
          body: {
            audience: row.audience.kind === 'newLink' ? { kind: 'newLink', name: linkName } : row.audience,
            rights,
            seen: (base ?? { key: grant?.key ?? null }).key,
            span: spanOf(from, until),
            tell: tell ? { note } : null,
            ...(inReturn && tell && mayRequestInReturn ? { asks: inReturn } : {}),
            ...(hidden.size > 0 ? { alsoPrivate: [...hidden] } : {}),
          },
        });
      },
      async () => {
        over();
        const text = everyoneRow
          ? tl('savedEveryone', { what })
          : link
            ? tl('savedLink', { what })
            : tl('saved', { name, what });
        await onSaved(text, given?.audience, given ? undoOf(calendar, row, grant, given, style.zone) : undefined);
        setChosen((c) => (c === chosen ? null : c));
        setBase(null);
        setSpan(null);
        setNote('');
        setInReturn(null);
        setHidden(new Set());
      },
    );
  };
  // What leaves the house, or reaches many, is said once more with the names of those who get it.
  const leavesHouse = answer?.outside === true && rights.sight !== 'nothing';
  const reachesMany = everyoneRow && answer !== undefined && answer.moved.more + answer.moved.less > 0;
  const saving = useConfirming(({ tell }: { tell: boolean }) => give(tell));
  const take = (tell: boolean) =>
    act(
      () =>
        call('takeAccess', {
          params: { calendar },
          body: { audience: row.audience, seen: grant?.key ?? '', tell: tell ? { note: '' } : null },
        }),
      () => {
        over();
        return onTaken(link ? tl('withdrawn') : tl('taken', { name }), undoOf(calendar, row, grant, null, style.zone));
      },
    );
  const tellNow = () =>
    act(
      () => call('tellOfAccess', { params: { calendar }, body: { seen: grant?.key ?? '', note } }),
      () => {
        over();
        return onSaved(tl('toldDone', { name: who }));
      },
    );
  // Cover as one act: acting in the owner's name from Monday to Friday of next week.
  const cover = () => {
    const monday = weekStart(today, 1) + 7 * DAY;
    setSpan({ from: dateText(monday), until: dateText(monday + 4 * DAY) });
    pick('preset', 'delegate');
  };
  // A choice like any other: it is saved with the others, said to whom it is said, and confirmed where that is asked for.
  const longer = () => {
    const last = Math.max(toWall(style.zone, (parseInstant(grant?.until ?? '') ?? 0) - 1), today);
    setBase((before) => before ?? { key: grant?.key ?? null });
    setSpan({ from, until: dateText(last + 7 * DAY) });
  };
  return (
    <>
      <div className={sightlinesCss.col}>
        <div className={grantEditorCss.editor}>
          <GrantHead row={row} grant={grant} name={name} busy={busy} onTell={tellNow} />
          {chips}
          {link && (
            <LinkPart
              calendar={calendar}
              owner={lines.owner.handle}
              linkKey={row.audience.kind === 'link' ? row.audience.id : null}
              shown={row.shown}
              path={row.link}
              named={row.audience.kind === 'link'}
              main={lines.calendar.main}
              name={linkName}
              wrong={fields.audience}
              onName={setLinkName}
            />
          )}
          <GrantSummary
            who={who}
            name={link ? name || tl('newLinkTitle') : who}
            owner={owner}
            own={lines.own}
            kind={lines.calendar.kind}
            rights={rights}
            comesTo={answer && settled && row.cutBy.length > 0 ? answer.effective : rights}
            cutBy={row.cutBy}
          />
          {grant === null && answer && settled && seesLess(answer) && (
            <Alert severity="warning">{tl('givesLess', { who, now: t(`sights.${answer.before.sight}`) })}</Alert>
          )}
          {refused && <Alert severity="error">{refused}</Alert>}
          {!link && <FieldWrong text={fields.audience ?? audienceWrong} />}
          {choosing.barred && (
            <BarredCard choice={choosing.barred} further={!lines.calendar.main} onClose={choosing.leaveBarred} />
          )}
          {lines.calendar.kind === 'calendar' &&
            grant === null &&
            !everyoneRow &&
            !link &&
            row.audience.kind !== 'group' &&
            row.grants.length === 0 && (
              <LeastShown
                calendar={calendar}
                audience={row.audience}
                who={who}
                rights={rights}
                onTake={(preset) => pick('preset', preset)}
              />
            )}
          <RightsPart
            rights={rights}
            choices={answer?.choices ?? []}
            audience={everyoneRow ? 'everyone' : link ? 'link' : 'one'}
            kind={lines.calendar.kind}
            fields={fields}
            onPick={pick}
          />
          {answer && settled && answer.opened.length > 0 && (
            <Opened items={answer.opened} ticked={hidden} onTick={setHidden} />
          )}
          {!everyoneRow && (
            <>
              <GrantDates
                from={from}
                until={until}
                fields={fields}
                owner={owner}
                onDates={setSpan}
                onCover={(dated || grant === null) && !link ? cover : null}
                onLonger={grant?.until ? longer : null}
              />
              {unsaved && !link && (
                <TextField
                  label={tl('note')}
                  value={note}
                  error={!!fields.note}
                  helperText={fields.note}
                  multiline
                  maxRows={4}
                  onChange={(e) => setNote(e.target.value)}
                />
              )}
              {mayRequestInReturn && unsaved && (
                <RequestInReturn
                  who={who}
                  offered={answer !== undefined && answer.theirs?.sight !== 'full'}
                  given={rights.sight}
                  level={inReturn}
                  wrong={fields.asks}
                  onLevel={setInReturn}
                />
              )}
              {unsaved && !link && settled && (
                <MessageShown
                  calendar={calendar}
                  who={who}
                  body={{
                    audience: row.audience,
                    rights,
                    seen: grant?.key ?? null,
                    span: spanOf(from, until),
                    note,
                    ...(inReturn ? { asks: inReturn } : {}),
                  }}
                />
              )}
            </>
          )}
          {saving.confirming && answer ? (
            <ConfirmGive
              text={
                everyoneRow
                  ? tl('confirmEveryone', answer.moved)
                  : tl(link ? 'confirmLink' : 'confirmOutside', {
                      ...aboutOf(lines, rights),
                      who:
                        (row.audience.kind === 'newLink' ? linkName : name) +
                        (row.who.detail && ` (${row.who.detail})`),
                      what,
                      letter: saving.confirming.tell ? 'yes' : 'no',
                    })
              }
              head={everyoneRow ? tl('confirmEveryoneHead', { ...aboutOf(lines, rights), what }) : null}
              busy={busy}
              onYes={saving.yes}
              onNo={saving.no}
            />
          ) : taking && answer ? (
            <TakeCard
              link={link}
              name={link ? name : who}
              answer={answer}
              hanging={grant?.hanging ?? []}
              busy={busy}
              onTake={take}
              onLeave={() => setTaking(false)}
            />
          ) : (
            <GrantActs
              whom={everyoneRow ? 'everyone' : link ? 'link' : 'one'}
              who={who}
              grant={grant}
              unsaved={unsaved}
              ready={ready}
              busy={busy}
              onSave={(tell) => saving.press({ tell }, leavesHouse || reachesMany)}
              onLeave={() => {
                setChosen(null);
                setSpan(null);
                setBase(null);
              }}
              onTake={() => setTaking(true)}
            />
          )}
        </div>
      </div>
      <TheirView
        calendar={calendar}
        audience={row.audience}
        name={everyoneRow ? null : who}
        link={link}
        own={lines.own}
        owner={lines.owner.handle}
        main={lines.calendar.main}
        kind={lines.calendar.kind}
        closed={lines.asAdministrator}
        answer={answer}
        failed={preview.why !== null}
        dirty={unsaved || taking}
        week={week}
        onWeek={setWeek}
      />
    </>
  );
}
