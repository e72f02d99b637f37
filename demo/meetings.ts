import { createTransport } from 'nodemailer';
import type { AnswerBody } from '../src/contract/meetings/meetings.ts';
import type { Connection } from '../src/server/db/index.ts';
import { mailPostBy } from '../src/server/mail/post.ts';
import type { Context } from '../src/server/operations/deciding/context/context.ts';
import { answerItem, sayIt } from '../src/server/operations/meetings/index.ts';
import { releaseDue } from '../src/server/operations/meetings/release.ts';
import { takeMail } from '../src/server/operations/messages/receive-mail.ts';
import { mainCalendarOf } from '../src/server/repositories/calendars.ts';
import { unansweredIn } from '../src/server/repositories/items.ts';
import { findFolder } from '../src/server/repositories/lists.ts';
import { latestIn } from '../src/server/repositories/messages.ts';
import { mailDue, mailSent } from '../src/server/repositories/outgoing-mail.ts';
import { allPeople } from '../src/server/repositories/people.ts';
import { sendingsOn } from '../src/server/repositories/sendings.ts';
import { markRead } from '../src/server/repositories/unread-messages.ts';
import { calendarText, doingsFor, mailFrom, noteTraffic } from '../standins/correspondents.ts';
import { addressFor } from './people.ts';

const HOST = 'post.cloudmoor.example';

/** How the trust's people answered what isn't simply accepted: by meeting and person. Whoever isn't named comes. */
const ANSWERS: Readonly<Record<string, Readonly<Record<string, [AnswerBody['answer'] | 'none', string]>>>> = {
  'Catchment model review': { yusuf: ['none', ''], jonas: ['tentative', 'If the sensors are in by two.'] },
  'Seed Store roof': { lars: ['declined', 'The van is at the garage until noon.'] },
  'Sensor trial': { ines: ['tentative', ''] },
  'Heron: terms with the landowners': { amara: ['none', ''] },
  'Job talk: peat and soils': { otto: ['another', 'The lab has its audit that morning.'] },
  'Panel: who owns the mist?': { ines: ['none', ''] },
  'One to one, Hedda': { hedda: ['none', ''] },
  'Fundraising: winter letter': { tobias: ['tentative', ''] },
};

/** Whom outside some meetings of the sample ask too. */
export const OUTSIDE_ASKED: Readonly<
  Record<string, readonly { address: string; name: string; role: 'must' | 'may' }[]>
> = {
  'Auditors, visit': [{ address: 'marta@quill-audit.example', name: 'Marta Quill', role: 'must' }],
  'Water company, quarter talk': [
    { address: 'h.brandt@tidewater.example', name: 'Henning Brandt', role: 'must' },
    { address: 'd.okoro@tidewater.example', name: 'Dayo Okoro', role: 'may' },
  ],
  'Fundraising: winter letter': [{ address: 'office@old-mill.example', name: 'Old Mill press', role: 'may' }],
  'Lunch, river board': [{ address: 'board@river-board.example', name: 'River board', role: 'must' }],
  Board: [{ address: 's.ferrand@uplands-bank.example', name: 'Solène Ferrand', role: 'may' }],
  'Volunteers’ thanks': [{ address: 'p.oduya@water-ministry.example', name: 'Perpetua Oduya', role: 'may' }],
};

/** Lets everything that waits leave, as whoever may say it; what is named in `left` goes on waiting. */
export function leave(db: Connection, at: number, ctx: (handle: string) => Context, left: readonly string[]): void {
  for (const person of allPeople(db)) {
    const calendar = mainCalendarOf(db, person.id);
    for (const s of calendar ? sendingsOn(db, calendar.id, 1000) : []) {
      const title = db.get<{ title: string }>(
        'SELECT i.title FROM meeting m JOIN item i ON i.id = m.item_id WHERE m.id = ?',
        s.meetingId,
      );
      if (s.due === null && !left.includes(title?.title ?? '')) sayIt({ ...ctx(person.handle), now: at }, s.key);
    }
  }
  while (releaseDue(db, at + 10_000) > 0);
}

/** Everybody in the trust answers what they were asked to, in their own name: the director's and the finance director's by their assistant. */
export function answerAll(db: Connection, at: number, ctx: (handle: string) => Context): void {
  for (const person of allPeople(db)) {
    const calendar = mainCalendarOf(db, person.id);
    for (const item of calendar ? unansweredIn(db, calendar.id, 0, 500) : []) {
      const [answer, comment] = ANSWERS[item.title]?.[person.handle] ?? ['accepted', ''];
      if (answer === 'none') continue;
      const by = person.handle === 'ines' ? 'tomas' : person.handle;
      const day = new Date(item.start + 86_400_000).toISOString().slice(0, 10);
      const when = { start: `${day}T14:00`, end: `${day}T14:45`, allDay: false, zone: 'Europe/Lisbon' };
      const body: AnswerBody =
        answer === 'another'
          ? { answer, when, comment, seen: 'needs-action', scope: 'all' }
          : { answer, comment, seen: 'needs-action', scope: 'all' };
      // What isn't for the assistant's eyes is answered by whom it is for.
      const mine = answerItem({ ...ctx(by), now: at }, item.key, body);
      if (!mine.ok) answerItem({ ...ctx(person.handle), now: at }, item.key, body);
    }
  }
  while (releaseDue(db, at + 10_000) > 0);
}

/** What came so far was read, by whom it was for and by who acts for the director. */
export function readAll(db: Connection, ctx: (handle: string) => Context): void {
  for (const person of allPeople(db)) {
    const arrived = findFolder(db, person.id, 'arrived');
    const ids = arrived === null ? [] : latestIn(db, arrived.id, 10_000).map((m) => m.id);
    db.write(() => {
      markRead(db, person.id, ids);
      if (person.handle === 'ines') markRead(db, ctx('tomas').viewer.id, ids);
    });
  }
}

/** The mail that waits goes to those outside, and what they do comes back: by the same ways as when the trust is at work. */
export async function correspond(db: Connection, folder: string, at: number): Promise<void> {
  const composed: Buffer[] = [];
  const transport = createTransport({ streamTransport: true, buffer: true, newline: 'windows' });
  const post = mailPostBy({
    sendMail: async (mail) => {
      const sent = await transport.sendMail(mail);
      composed.push(sent.message as unknown as Buffer);
      return sent as never;
    },
  });
  const coming: { at: number; to: string; who: string; raw: Buffer }[] = [];
  for (const { id, mail, messageId } of mailDue(db, at + 60_000, 500)) {
    composed.length = 0;
    await post(mail, messageId);
    db.write(() => mailSent(db, id, at));
    const raw = composed[0];
    if (!raw) continue;
    const who = mail.to.address;
    await noteTraffic(folder, at, 'received', who, raw);
    for (const doing of await doingsFor(raw, who, at))
      coming.push({ ...doing, at: at + Math.min(doing.after, 30_000), who });
  }
  coming.sort((a, b) => a.at - b.at);
  for (const one of coming) await arrive(db, folder, one);
}

async function arrive(
  db: Connection,
  folder: string,
  one: { at: number; to: string; who: string; raw: Buffer },
): Promise<void> {
  await noteTraffic(folder, one.at, 'wrote', one.who, one.raw);
  await takeMail(db, one.at, one.raw, [one.to], HOST);
}

/** What the people outside begin themselves: invitations, one of them changed and one called off, plain mail, and what strangers claim. */
export async function writeFromOutside(db: Connection, folder: string, at: number, monday: number): Promise<void> {
  const ines = addressFor('ines');
  const bruno = addressFor('bruno');
  const perpetua = { name: 'Perpetua Oduya', address: 'p.oduya@water-ministry.example' };
  const marta = { name: 'Marta Quill', address: 'marta@quill-audit.example' };
  const solene = { name: 'Solène Ferrand', address: 's.ferrand@uplands-bank.example' };
  const stranger = { name: 'R. Vane', address: 'r.vane@no-such-house.example' };
  const stamp = (ms: number) => `${new Date(ms).toISOString().replace(/[-:]/g, '').slice(0, 15)}Z`;
  const day = (week: number, d: number, hour: number) => stamp(monday + (week * 7 + d) * 86_400_000 + hour * 3_600_000);
  let n = 0;
  const send = async (
    from: { name: string; address: string },
    to: string,
    what: { subject: string; text: string; method?: string; lines?: readonly string[]; vouched?: boolean },
  ) => {
    n++;
    const raw = await mailFrom({
      from,
      to,
      subject: what.subject,
      text: what.text,
      id: `begun-${n}`,
      ...(what.method ? { calendar: { method: what.method, text: calendarText(what.method, what.lines ?? []) } } : {}),
      vouched: what.vouched ?? true,
    });
    await arrive(db, folder, { at: at + n * 1000, to, who: from.address, raw });
  };
  const invitation = (
    uid: string,
    sequence: number,
    from: typeof perpetua,
    to: string,
    title: string,
    times: [string, string],
  ) => [
    `UID:${uid}`,
    `SEQUENCE:${sequence}`,
    `DTSTAMP:${stamp(at + sequence * 1000)}`,
    `DTSTART:${times[0]}`,
    `DTEND:${times[1]}`,
    `SUMMARY:${title}`,
    `ORGANIZER;CN=${from.name}:mailto:${from.address}`,
    `ATTENDEE;PARTSTAT=ACCEPTED:mailto:${from.address}`,
    `ATTENDEE;PARTSTAT=NEEDS-ACTION;RSVP=TRUE:mailto:${to}`,
  ];
  const first = 'abstraction-1@water-ministry.example';
  const title = 'Abstraction licences, first reading';
  await send(perpetua, ines, {
    subject: title,
    text: 'We would go through the draft with you before it is laid out.',
    method: 'REQUEST',
    lines: invitation(first, 0, perpetua, ines, title, [day(1, 3, 14), day(1, 3, 15)]),
  });
  await send(perpetua, ines, {
    subject: `Changed: ${title}`,
    text: 'An hour later, if it is all the same to you.',
    method: 'REQUEST',
    lines: invitation(first, 1, perpetua, ines, title, [day(1, 3, 15.5), day(1, 3, 16.5)]),
  });
  const tour = 'tour-7@water-ministry.example';
  await send(perpetua, ines, {
    subject: 'Tour of the new weir',
    text: 'Boots are provided.',
    method: 'REQUEST',
    lines: invitation(tour, 0, perpetua, ines, 'Tour of the new weir', [day(1, 4, 13), day(1, 4, 15)]),
  });
  await send(perpetua, ines, {
    subject: 'Called off: Tour of the new weir',
    text: 'The river is too high.',
    method: 'CANCEL',
    lines: [
      ...invitation(tour, 1, perpetua, ines, 'Tour of the new weir', [day(1, 4, 13), day(1, 4, 15)]),
      'STATUS:CANCELLED',
    ],
  });
  await send(marta, bruno, {
    subject: 'Quarter close, first look',
    text: 'Half an hour would do, if the lists are ready.',
    method: 'REQUEST',
    lines: invitation('close-q1@quill-audit.example', 0, marta, bruno, 'Quarter close, first look', [
      day(0, 3, 10),
      day(0, 3, 10.75),
    ]),
  });
  await send(marta, ines, {
    subject: 'Papers before the visit',
    text: 'Dear Inés,\n\nmay we have the grant register and the last two minutes of the board a week before we come?\n\nWith kind regards\nMarta Quill',
  });
  await send(solene, ines, {
    subject: 'The uplands loan',
    text: 'Dear Inés,\n\nthe committee sits next week. Could we meet on Thursday at three for half an hour? I would bring the two letters.\n\nSolène Ferrand\n\nOn Fri, 26 Feb 2027, Inés Varga wrote:\n> The lease is through. What is left on your side?\n>\n> Inés',
  });
  await send(stranger, ines, {
    subject: `Called off: ${title}`,
    text: 'This will not take place.',
    method: 'CANCEL',
    vouched: false,
    lines: [
      `UID:${first}`,
      'SEQUENCE:9',
      `DTSTAMP:${stamp(at + 30_000)}`,
      `DTSTART:${day(1, 3, 15.5)}`,
      `ORGANIZER:mailto:${stranger.address}`,
      `ATTENDEE:mailto:${ines}`,
      'STATUS:CANCELLED',
    ],
  });
}
