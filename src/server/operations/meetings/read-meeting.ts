import type { ComingAnswer, ComingBody, MeetingAnswer, SendingWire } from '@/contract/meetings/meetings.ts';
import { answerOf, type Invited, myAnswer, sameAddress } from '@/core/meetings/index.ts';
import { dateText, instantText } from '@/core/time/index.ts';
import { mainCalendarOf } from '../../repositories/calendars.ts';
import { groupByKey } from '../../repositories/groups.ts';
import { itemById } from '../../repositories/items.ts';
import { meetingOfItem, type StoredMeeting } from '../../repositories/meetings.ts';
import { senderFor } from '../../repositories/messages.ts';
import { mailAbout } from '../../repositories/outgoing-mail.ts';
import { type Person, personById } from '../../repositories/people.ts';
import { type Sending, sendingsWaiting } from '../../repositories/sendings.ts';
import type { StoredItem } from '../../repositories/stored-item.ts';
import { ok, type Result, refuse } from '../../result.ts';
import {
  aboutItem,
  type Context,
  type Decided,
  Directory,
  decideOn,
  findCalendar,
  findItem,
  isRefusal,
  rangeOf,
  viewsIn,
  withoutCopy,
} from '../deciding/index.ts';
import { readWhen } from '../items/index.ts';
import { closedBy } from './answer.ts';
import { insideBy, outsideOf } from './invited.ts';
import { fromFile, originOf, plan } from './plan.ts';
import { speaksOn, toWhom } from './settle.ts';
import { storedTime } from './shape.ts';

/**
 * A meeting beside its item: whom it asks, what each answered and said, what waits to be said to whom, and what came that a person has to
 * look at. For the owner, for those who speak, and for whoever may change the item; for others the item says what they may know.
 */
export function readMeeting(ctx: Context, id: string): Result<MeetingAnswer> {
  const found = findItem(ctx, id);
  if (isRefusal(found)) return found;
  const { decided, item } = found;
  const { decision } = decided;
  const runs = decision.owner || decision.rights.speaks || found.may.change;
  const owner = personById(ctx.db, decided.calendar.ownerId);
  if (!runs || !owner) return refuse('notFound');
  const may = { change: found.may.change, speak: speaksOn(decided), answer: found.may.answer };
  const none: MeetingAnswer = {
    part: 'none',
    version: item.version,
    state: 'draft',
    organiser: null,
    sentFor: null,
    people: [],
    answered: null,
    waiting: [],
    classified: null,
    questions: [],
    may,
  };
  const meeting = meetingOfItem(ctx.db, item.id) ?? heldFromFile(ctx, owner, item);
  if (!meeting)
    return ok(item.ownerInvited ? { ...none, part: 'attendee', state: 'sent', organiser: item.organiser } : none);
  const waiting = sendingWireOf(ctx, decided, owner, meeting);
  const questionWire = (
    m: { method: string; sender: string; comment?: string | null; answer?: string; attendee?: string },
    why: string,
  ) => ({
    why,
    from: new Directory(ctx.db).byAddress(m.sender),
    says: m.comment ?? '',
    answer: (m.answer as MeetingAnswer['people'][number]['answer'] | undefined) ?? null,
    attendee: m.attendee ? new Directory(ctx.db).byAddress(m.attendee) : null,
  });
  if (meeting.part === 'attendee') {
    const { state } = meeting;
    const closed = closedBy(ctx, meeting);
    return ok({
      ...none,
      part: 'attendee',
      state: state.said.method === 'CANCEL' ? 'cancelled' : 'sent',
      organiser: item.organiser,
      sentFor: senderFor(ctx.db, meeting.id, state.organiser),
      people: (state.on?.invited ?? []).map((one) => ({
        ...plainOf(ctx, one),
        asked: true,
        answer: sameAddress(one.address, state.me) ? myAnswer(state) : one.answer,
        comment: null,
        by: null,
        mail: null,
        counter: null,
        sends: one.delegatedTo ? new Directory(ctx.db).byAddress(one.delegatedTo) : null,
      })),
      answered: closed && { answer: closed.answer, name: closed.name, at: instantText(closed.at) },
      waiting,
      classified: state.on?.classification ?? null,
      questions: state.claims.map((m) => questionWire(m, 'otherOrganiser')),
    });
  }
  const { state } = meeting;
  const wanted = meeting.wanted ?? state?.invited ?? [];
  const mail = mailAbout(ctx.db, meeting.id);
  return ok({
    ...none,
    part: 'organiser',
    state: state?.state ?? 'draft',
    organiser: { name: owner.name, address: owner.address },
    people: wanted.map((one) => {
      const plain = plainOf(ctx, one);
      const given = state?.given[one.address.toLowerCase()];
      const counts = state ? answerOf(state, one.address) : 'needs-action';
      const counter = state?.counters.find((c) => sameAddress(c.attendee, one.address));
      const time = counter && storedTime(counter.time);
      const text = time?.allDay ? dateText : instantText;
      return {
        ...plain,
        asked: state?.state === 'sent' && state.invited.some((i) => i.address === one.address),
        answer: counts,
        comment: counts === 'needs-action' ? null : (given?.comment ?? null),
        by: counts === 'needs-action' || !given?.sentBy ? null : new Directory(ctx.db).byAddress(given.sentBy),
        sends:
          counts !== 'needs-action' && given?.delegatedTo ? new Directory(ctx.db).byAddress(given.delegatedTo) : null,
        mail: plain.outside ? (mail.get(one.address) ?? null) : null,
        counter:
          counter && time
            ? { when: { start: text(time.start), end: text(time.end), allDay: time.allDay }, comment: counter.comment }
            : null,
      };
    }),
    waiting,
    questions: (state?.questions ?? []).map((q) => questionWire(q.message, q.why)),
  });
}

/** What a file brought in, as it would be held. */
function heldFromFile(ctx: Context, owner: Person, item: StoredItem): StoredMeeting | null {
  const held = item.seriesId === null ? fromFile(ctx.db, owner, item) : null;
  return held && { ...held, id: -1 };
}

const plainOf = (ctx: Context, one: Invited) => ({
  address: one.address,
  name: one.name,
  role: one.role,
  kind: one.kind,
  outside: insideBy(ctx.db, one.address) === null,
  group: one.group && ctx.viewer.inside ? groupOf(ctx, one.group) : null,
  sentBy: one.delegatedFrom ? new Directory(ctx.db).byAddress(one.delegatedFrom) : null,
});

function groupOf(ctx: Context, key: string): { key: string; name: string } | null {
  const group = groupByKey(ctx.db, key);
  return group && { key, name: group.name };
}

/** What waits to be said of a meeting, as whoever runs its calendar reads it. */
export const sendingWireOf = (ctx: Context, decided: Decided, owner: Person, meeting: StoredMeeting): SendingWire[] =>
  sendingsWaiting(ctx.db, meeting.id).map((s) => sendingOf(ctx, decided, owner, meeting, s));

function sendingOf(ctx: Context, decided: Decided, owner: Person, meeting: StoredMeeting, s: Sending): SendingWire {
  const to = recipientsOf(ctx, decided, owner, meeting, s);
  const outside = new Set(outsideOf(ctx.db, to));
  return {
    key: s.key,
    act: s.act,
    who: personById(ctx.db, s.actorId)?.name ?? '',
    at: instantText(s.at),
    leaves: s.due === null ? null : instantText(s.due),
    to: to.slice(0, 200).map((address) => ({ name: nameOf(meeting, address), outside: outside.has(address) })),
    mine: s.actorId === ctx.viewer.id,
    maySay: speaksOn(decided),
  };
}

function nameOf(meeting: StoredMeeting, address: string): string {
  const { state } = meeting;
  const invited = [
    ...(meeting.part === 'organiser' ? (meeting.wanted ?? []) : []),
    ...((state && ('on' in state ? state.on?.invited : state.invited)) ?? []),
  ];
  return invited.find((one) => sameAddress(one.address, address))?.name ?? address;
}

/** To whom something that waits would go now. */
function recipientsOf(
  ctx: Context,
  decided: Decided,
  owner: Person,
  meeting: StoredMeeting,
  s: Sending,
): readonly string[] {
  if (meeting.part === 'attendee') return [meeting.state.organiser];
  if (s.act === 'nudge') return s.body.whom ?? [];
  if (s.act === 'declineCounter') return [s.body.attendee];
  const item = meeting.itemId === null ? null : itemById(ctx.db, meeting.itemId);
  if (!item) return meeting.state?.invited.map((one) => one.address) ?? [];
  const origin = originOf(owner, ctx.viewer, ctx.now, meeting.state?.stamp ?? 0);
  const tellAll = (s.act === 'tell' || s.act === 'off') && s.body.tellAll;
  return toWhom(plan(ctx.db, decided.calendar, owner, meeting, item, tellAll, origin).messages);
}

const RANK = { free: 0, reachable: 1, tentative: 2, busy: 3, away: 4 } as const;

/**
 * Whether each of some people can come at a time, from what the asker sees of their main calendars and nothing else: `unknown` for
 * whoever is outside and where nothing is seen. Their own copy of the meeting that is asked about doesn't count.
 */
export function whoCanCome(ctx: Context, key: string, body: ComingBody): Result<ComingAnswer> {
  const decided = findCalendar(ctx, key);
  if (isRefusal(decided)) return decided;
  const when = readWhen(body.when);
  if (isRefusal(when)) return when;
  const about = aboutItem(ctx, body.item);
  const directory = new Directory(ctx.db);
  const people = body.people.map((address): ComingAnswer['people'][number] => {
    const person = insideBy(ctx.db, address);
    const calendar = person && mainCalendarOf(ctx.db, person.id);
    const decision = calendar && decideOn(ctx, calendar).decision;
    const known = decision !== null && decision.rights.sight !== 'nothing';
    // Who comes from outside has no directory: an address they are shown nothing of is one like any other.
    const listed = known || ctx.viewer.inside ? person : null;
    const name = listed?.name ?? null;
    if (!calendar || !known) return { address, name, inside: listed !== null, can: 'unknown' };
    let worst: keyof typeof RANK = 'free';
    const range = rangeOf(when, calendar.zone);
    const seen = viewsIn(ctx.db, directory, calendar, range, { person: ctx.viewer, decision });
    for (const view of withoutCopy(ctx.db, calendar.id, about, seen)) {
      if (view.kind === 'whereabouts' || view.asSet?.cancelled) continue;
      const there = view.allDay || (Date.parse(view.start) < range.to && Date.parse(view.end) > range.from);
      if (there && RANK[view.shows] > RANK[worst]) worst = view.shows;
    }
    return { address, name, inside: true, can: worst };
  });
  return ok({ people });
}
