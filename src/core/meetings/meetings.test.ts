import fc from 'fast-check';
import { describe, expect, test } from 'vitest';
import {
  answerMeeting,
  answerOf,
  type Copy,
  callMeeting,
  callOff,
  changeMeeting,
  declineCounter,
  type Invited,
  type Meeting,
  type MeetingTime,
  type Message,
  myAnswer,
  myProposal,
  nudge,
  proposeTime,
  receiveAsAttendee,
  receiveAsOrganiser,
  requestRefresh,
  stateOf,
  takeCounter,
} from './index.ts';

const INES = 'ines@cloudmoor.example';
const TOMAS = 'tomas@cloudmoor.example';
const MARTA = 'marta@quill-audit.example';
const BRUNO = 'bruno@cloudmoor.example';
const PEAT = 'peat@river.example';
const at = (hour: number, day = '03'): MeetingTime => ({
  start: `2027-03-${day}T${String(hour).padStart(2, '0')}:00`,
  end: `2027-03-${day}T${String(hour + 1).padStart(2, '0')}:00`,
  allDay: false,
  zone: 'Europe/Lisbon',
  rule: null,
  added: [],
  left: [],
});
const who = (address: string, role: Invited['role'] = 'must'): Invited => ({
  address,
  name: null,
  role,
  kind: 'person',
});
const draft = (...addresses: string[]): Meeting => ({
  uid: 'talk',
  recurrence: null,
  organiser: INES,
  state: 'draft',
  time: at(10),
  matter: { title: 'Weir consent', place: 'Marsh Lab', link: null, notes: null },
  invited: [who(INES), ...addresses.map((a) => who(a))],
  sequence: 0,
  stamp: 0,
  timeSince: 0,
  given: {},
  counters: [],
  questions: [],
});
const origin = (stamp: number, sentBy: string | null = null) => ({ stamp, sentBy });
const told = (messages: readonly Message[]) => messages.map((m) => `${m.method} ${[...m.to].sort().join(' ')}`);
const called = (...addresses: string[]) => callMeeting(draft(...addresses), origin(1)).meeting;
const only = (messages: readonly Message[]): Message => {
  expect(messages).toHaveLength(1);
  return messages[0] as Message;
};
const copyOf = (message: Message, me: string): Copy => receiveAsAttendee(null, message, me) as Copy;

describe('calling, changing, calling off', () => {
  test('a draft is nobody’s business; called, everybody but the organiser is asked, in the name of who acts', () => {
    expect(told(changeMeeting(draft(MARTA), { time: at(11), tellAll: true }, origin(1)).messages)).toEqual([]);
    const { meeting, messages } = callMeeting(draft(MARTA, BRUNO), origin(1, TOMAS));
    expect(told(messages)).toEqual([`REQUEST ${BRUNO} ${MARTA}`]);
    expect(messages[0]).toMatchObject({ organiser: INES, sender: INES, sentBy: TOMAS, sequence: 0 });
    expect(callMeeting(meeting, origin(2)).messages).toEqual([]);
  });

  test('who hears of what', () => {
    const m = called(MARTA, BRUNO);
    const change = (what: Parameters<typeof changeMeeting>[1]) => changeMeeting(m, what, origin(9));
    expect(told(change({ time: at(12) }).messages)).toEqual([`REQUEST ${BRUNO} ${MARTA}`]);
    expect(told(change({ matter: { place: 'Seed Store' } }).messages)).toEqual([`REQUEST ${BRUNO} ${MARTA}`]);
    expect(told(change({ matter: { link: 'https://meet.example/1' } }).messages)).toEqual([
      `REQUEST ${BRUNO} ${MARTA}`,
    ]);
    expect(told(change({ matter: { title: 'Weir', notes: 'Bring the map' } }).messages)).toEqual([]);
    expect(told(change({ matter: { title: 'Weir' }, tellAll: true }).messages)).toEqual([`REQUEST ${BRUNO} ${MARTA}`]);
    expect(told(change({ invited: [...m.invited, who(PEAT)] }).messages)).toEqual([`REQUEST ${PEAT}`]);
    expect(told(change({ invited: [who(INES), who(BRUNO)] }).messages)).toEqual([`CANCEL ${MARTA}`]);
    expect(told(change({ invited: [who(INES), who(BRUNO), who(PEAT)], time: at(12) }).messages)).toEqual([
      `CANCEL ${MARTA}`,
      `REQUEST ${BRUNO} ${PEAT}`,
    ]);
    expect(told(callOff(m, origin(9)).messages)).toEqual([`CANCEL ${BRUNO} ${MARTA}`]);
    expect(callOff(callOff(m, origin(9)).meeting, origin(10)).messages).toEqual([]);
    expect(callOff(draft(MARTA), origin(9)).messages).toEqual([]);
  });

  test('answers begin afresh where the time is another, and nowhere else; the sequence counts on only where it must', () => {
    const copy = copyOf(only(callMeeting(draft(MARTA), origin(1)).messages), MARTA);
    const yes = answerMeeting(copy, 'accepted', 'With pleasure', origin(2));
    const answered = receiveAsOrganiser(called(MARTA), only(yes.messages), origin(3)).meeting;
    expect(answerOf(answered, MARTA.toUpperCase())).toBe('accepted');
    const retitled = changeMeeting(answered, { matter: { title: 'Weir' } }, origin(4)).meeting;
    expect([retitled.sequence, answerOf(retitled, MARTA)]).toEqual([0, 'accepted']);
    const elsewhere = changeMeeting(answered, { matter: { place: 'Seed Store' } }, origin(4)).meeting;
    expect([elsewhere.sequence, answerOf(elsewhere, MARTA)]).toEqual([1, 'accepted']);
    const moved = changeMeeting(answered, { time: at(15) }, origin(4));
    expect([moved.meeting.sequence, answerOf(moved.meeting, MARTA)]).toEqual([1, 'needs-action']);
    // Hers too: what she answered was another time.
    const hers = receiveAsAttendee(yes.copy, only(moved.messages), MARTA) as Copy;
    expect([myAnswer(yes.copy), myAnswer(hers)]).toEqual(['accepted', 'needs-action']);
    // A late answer to the time before doesn't count for the new one.
    const late = receiveAsOrganiser(
      moved.meeting,
      only(answerMeeting(yes.copy, 'tentative', null, origin(5)).messages),
      origin(6),
    );
    expect(answerOf(late.meeting, MARTA)).toBe('needs-action');
  });

  test('one more date is added to a series that is known, once, and where it is newer; of one that isn’t there is nothing to add to', () => {
    const weekly = { ...draft(MARTA), time: { ...at(10), rule: 'FREQ=WEEKLY;COUNT=3' } };
    const request = only(callMeeting(weekly, origin(1)).messages) as Extract<Message, { method: 'REQUEST' }>;
    const copy = copyOf(request, MARTA);
    const more: Message = { ...request, method: 'ADD', sequence: 1, stamp: 5, time: at(15, '30') };
    const once = receiveAsAttendee(copy, more, MARTA) as Copy;
    expect(once.on?.time.added).toEqual(['2027-03-30T15:00']);
    expect(receiveAsAttendee(once, more, MARTA)).toEqual(once);
    expect(receiveAsAttendee(once, request, MARTA)?.on?.time.added).toEqual(['2027-03-30T15:00']);
    expect(receiveAsAttendee(null, more, MARTA)).toBeNull();
    const foreign = receiveAsAttendee(copy, { ...more, organiser: PEAT, sender: PEAT }, MARTA) as Copy;
    expect([foreign.on?.time.added, foreign.claims.length]).toEqual([[], 1]);
  });

  test('who hasn’t answered is asked once more, and nobody else', () => {
    const m = called(MARTA, BRUNO);
    const reply = only(
      answerMeeting(copyOf(only(nudge(m, origin(2)).messages), BRUNO), 'declined', null, origin(2)).messages,
    );
    const after = receiveAsOrganiser(m, reply, origin(3)).meeting;
    expect(told(nudge(after, origin(4)).messages)).toEqual([`REQUEST ${MARTA}`]);
    expect(told(nudge(after, origin(4), [BRUNO]).messages)).toEqual([]);
  });
});

describe('answering, proposing, asking for the state', () => {
  const invitation = only(callMeeting(draft(MARTA, BRUNO), origin(1)).messages);

  test('one answer goes to the organiser, with both names; another one takes its place', () => {
    const copy = copyOf(invitation, BRUNO);
    const first = answerMeeting(copy, 'tentative', null, origin(2, TOMAS));
    expect(only(first.messages)).toMatchObject({
      to: [INES],
      attendee: BRUNO,
      sender: BRUNO,
      sentBy: TOMAS,
      answer: 'tentative',
    });
    const then = answerMeeting(first.copy, 'declined', 'Away', origin(3));
    const m = [...first.messages, ...then.messages].reduce(
      (m, r) => receiveAsOrganiser(m, r, origin(4)).meeting,
      called(MARTA, BRUNO),
    );
    expect([answerOf(m, BRUNO), myAnswer(then.copy)]).toEqual(['declined', 'declined']);
    expect(m.given[BRUNO]).toMatchObject({ comment: 'Away', sentBy: null });
  });

  test('a proposed time is taken by one act, or declined with a word; an answer that follows ends it', () => {
    const copy = copyOf(invitation, MARTA);
    const proposed = proposeTime(copy, at(16), 'After lunch?', origin(2));
    const m = receiveAsOrganiser(called(MARTA, BRUNO), only(proposed.messages), origin(3)).meeting;
    expect(m.counters).toMatchObject([{ attendee: MARTA, comment: 'After lunch?', time: at(16) }]);
    const taken = takeCounter(m, MARTA, origin(4));
    expect([taken.meeting.time, taken.meeting.counters, told(taken.messages)]).toEqual([
      at(16),
      [],
      [`REQUEST ${BRUNO} ${MARTA}`],
    ]);
    expect(myProposal(proposed.copy)).toEqual(at(16));
    expect(myProposal(receiveAsAttendee(proposed.copy, only(taken.messages), MARTA) as Copy)).toBeNull();
    const no = declineCounter(m, MARTA, 'The room is let', origin(4));
    expect([no.meeting.time, no.meeting.counters, told(no.messages)]).toEqual([
      at(10),
      [],
      [`DECLINECOUNTER ${MARTA}`],
    ]);
    expect(myProposal(receiveAsAttendee(proposed.copy, only(no.messages), MARTA) as Copy)).toBeNull();
    const answer = only(answerMeeting(proposed.copy, 'accepted', null, origin(5)).messages);
    expect(receiveAsOrganiser(m, answer, origin(6)).meeting.counters).toEqual([]);
    expect(takeCounter(called(MARTA), MARTA, origin(7)).messages).toEqual([]);
  });

  test('whoever asks for the state gets it, alone; of a meeting that is off, that it is', () => {
    const refresh = only(requestRefresh(copyOf(invitation, MARTA), origin(2)).messages);
    const m = called(MARTA, BRUNO);
    expect(told(receiveAsOrganiser(m, refresh, origin(3)).messages)).toEqual([`REQUEST ${MARTA}`]);
    expect(told(receiveAsOrganiser(callOff(m, origin(3)).meeting, refresh, origin(4)).messages)).toEqual([
      `CANCEL ${MARTA}`,
    ]);
  });

  test('what was called off, or only told, isn’t answered', () => {
    const off = only(callOff(called(MARTA, BRUNO), origin(5)).messages);
    const copy = receiveAsAttendee(copyOf(invitation, MARTA), off, MARTA) as Copy;
    expect([stateOf(copy), copy.on?.matter.title]).toEqual(['cancelled', 'Weir consent']);
    expect(answerMeeting(copy, 'accepted', null, origin(6)).messages).toEqual([]);
    const info = copyOf({ ...invitation, method: 'PUBLISH' } as Message, MARTA);
    expect([stateOf(info), proposeTime(info, at(9), null, origin(6)).messages]).toEqual(['information', []]);
  });
});

describe('somebody comes instead', () => {
  const PIET = 'piet@quill-audit.example';
  const called = () => callMeeting(draft(MARTA, BRUNO), origin(1)).meeting;
  const says = (from: string, more: Partial<Extract<Message, { method: 'REPLY' }>>, stamp: number): Message => ({
    method: 'REPLY',
    uid: 'talk',
    recurrence: null,
    organiser: INES,
    sender: from,
    sentBy: null,
    sequence: 0,
    stamp,
    to: [INES],
    attendee: from,
    answer: 'declined',
    comment: null,
    ...more,
  });
  const sends = says(MARTA, { delegatedTo: { address: PIET, name: 'Piet' } }, 10);
  const comes = says(PIET, { answer: 'accepted', delegatedFrom: MARTA }, 11);
  const allowed = (message: Message): Message => ({ ...message, authorised: true });
  const take = (...messages: Message[]) =>
    messages.reduce((m, message) => receiveAsOrganiser(m, allowed(message), origin(20)).meeting, called());

  test('whom somebody asked sends is asked too, as they were; the messages of later say so of both', () => {
    const meeting = take(sends, comes);
    expect(meeting.invited.map((one) => [one.address, one.delegatedFrom])).toEqual([
      [INES, undefined],
      [MARTA, undefined],
      [BRUNO, undefined],
      [PIET, MARTA],
    ]);
    expect([answerOf(meeting, MARTA), answerOf(meeting, PIET)]).toEqual(['declined', 'accepted']);
    const [told] = changeMeeting(meeting, { matter: { place: 'Ridge House' } }, origin(30)).messages;
    expect(told).toMatchObject({
      to: [MARTA, BRUNO, PIET],
      invited: [{}, { delegatedTo: PIET }, {}, { delegatedFrom: MARTA, answer: 'accepted' }],
    });
  });

  test('whom somebody sends is a question first, and hears nothing; said yes to, once, they are asked', () => {
    const received = receiveAsOrganiser(called(), sends, origin(20));
    expect([answerOf(received.meeting, MARTA), received.messages]).toEqual(['declined', []]);
    expect(received.meeting.invited.map((one) => one.address)).toEqual([INES, MARTA, BRUNO]);
    expect(received.meeting.given[MARTA]?.delegatedTo).toBeUndefined();
    expect(received.meeting.questions).toMatchObject([
      { why: 'sentInstead', message: { delegatedTo: { address: PIET } } },
    ]);
    expect(receiveAsOrganiser(received.meeting, sends, origin(21)).meeting).toEqual(received.meeting);
    const yes = receiveAsOrganiser(received.meeting, allowed(sends), origin(22)).meeting;
    expect(yes.invited.map((one) => one.address)).toEqual([INES, MARTA, BRUNO, PIET]);
    expect([yes.given[MARTA]?.delegatedTo, yes.questions]).toEqual([PIET, []]);
    expect(receiveAsOrganiser(yes, sends, origin(23)).meeting).toEqual(yes);
  });

  test('an answer that comes before it is known who sent them is a question until it is', () => {
    expect(take(comes).questions).toMatchObject([{ why: 'notInvited' }]);
    expect(take(comes, sends)).toEqual(take(sends, comes));
  });

  test('taken out again, the same word doesn’t bring them back; nobody not asked sends anybody', () => {
    const meeting = take(sends);
    const without = changeMeeting(meeting, { invited: meeting.invited.filter((o) => o.address !== PIET) }, origin(30));
    expect(without.messages).toMatchObject([{ method: 'CANCEL', to: [PIET] }]);
    expect(receiveAsOrganiser(without.meeting, allowed(sends), origin(31)).meeting.invited).toHaveLength(3);
    const stranger = says(PEAT, { delegatedTo: { address: PIET, name: null } }, 10);
    expect(take(stranger)).toMatchObject({ invited: [{}, {}, {}], questions: [{ why: 'notInvited' }] });
  });

  test('in whatever order the words of several come, and however often, it ends the same', () => {
    const all = [
      sends,
      comes,
      says(MARTA, { answer: 'accepted' }, 12),
      says(BRUNO, { delegatedTo: { address: PIET, name: 'P.' } }, 9),
      says(BRUNO, { delegatedTo: { address: PEAT, name: null } }, 13),
      says(PEAT, { answer: 'tentative', delegatedFrom: BRUNO }, 14),
      says(PIET, { delegatedTo: { address: 'quin@quill-audit.example', name: null } }, 15),
    ];
    fc.assert(
      fc.property(fc.shuffledSubarray(all, { minLength: all.length }), fc.shuffledSubarray(all), (order, again) => {
        expect(take(...order, ...again)).toEqual(take(...all));
      }),
      { numRuns: 200 },
    );
  });

  test('asked by whoever sends them, somebody has the meeting, and both hear what they answer', () => {
    const [request] = callMeeting(draft(MARTA), origin(1)).messages;
    const passed = {
      ...(request as Extract<Message, { method: 'REQUEST' }>),
      sender: MARTA,
      to: [PIET],
      invited: [
        { ...who(MARTA), answer: 'declined' as const, delegatedTo: PIET },
        { ...who(PIET), answer: 'needs-action' as const, delegatedFrom: MARTA },
      ],
    };
    const copy = receiveAsAttendee(null, passed, PIET) as Copy;
    expect(stateOf(copy)).toBe('invited');
    expect(answerMeeting(copy, 'accepted', null, origin(5)).messages).toMatchObject([
      { method: 'REPLY', to: [INES, MARTA], delegatedFrom: MARTA },
    ]);
    // Of a meeting they have already, or in a name that wasn’t asked, nobody passes anything on.
    expect(receiveAsAttendee(null, { ...passed, sender: PEAT }, PIET)).toBeNull();
    expect(receiveAsAttendee(copy, { ...passed, stamp: 9, time: at(15) }, PIET)).toMatchObject({
      on: { time: at(10) },
      claims: [{ sender: MARTA }],
    });
  });
});

describe('what others claim', () => {
  const m = called(MARTA);
  const reply = only(
    answerMeeting(copyOf(only(nudge(m, origin(2)).messages), MARTA), 'accepted', null, origin(2)).messages,
  );

  test.each([
    ['nobody who was asked', { attendee: PEAT, sender: PEAT }, 'notInvited'],
    ['another for her', { sender: PEAT }, 'notTheirs'],
    ['another, who says that somebody else sends', { sender: PEAT, sentBy: MARTA }, 'notTheirs'],
  ])('an answer by %s is a question, and counts for nothing', (_, change, why) => {
    const after = receiveAsOrganiser(m, { ...reply, ...change } as Message, origin(3)).meeting;
    expect([answerOf(after, MARTA), after.questions.map((q) => q.why)]).toEqual(['needs-action', [why]]);
    expect(receiveAsOrganiser(after, { ...reply, ...change } as Message, origin(4)).meeting).toEqual(after);
  });

  test('who says that they act for her answers in her name only where somebody lets them', () => {
    const acted = { ...reply, sender: 'desk@quill-audit.example', sentBy: 'Desk@quill-audit.example' } as Message;
    const alone = receiveAsOrganiser(m, acted, origin(3)).meeting;
    expect([answerOf(alone, MARTA), alone.questions[0]?.why]).toEqual(['needs-action', 'notTheirs']);
    expect(answerOf(receiveAsOrganiser(m, { ...acted, authorised: true }, origin(3)).meeting, MARTA)).toBe('accepted');
  });

  test('who says that they act for the organiser is believed where the first invitation was theirs, or somebody lets them', () => {
    const invitation = only(nudge(m, origin(2)).messages) as Extract<Message, { method: 'REQUEST' }>;
    const desk = 'desk@cloudmoor.example';
    const by = { sender: desk, sentBy: desk, sequence: 3, stamp: 9 };
    const moved: Message = { ...invitation, ...by, time: at(15) };
    const copy = copyOf(invitation, MARTA);
    expect(receiveAsAttendee(copy, moved, MARTA)).toMatchObject({ on: { time: at(10) }, claims: [moved] });
    expect(receiveAsAttendee(copy, { ...moved, authorised: true }, MARTA)).toMatchObject({ on: { time: at(15) } });
    expect(receiveAsAttendee(null, { ...invitation, sender: desk, sentBy: desk }, MARTA)).toBeNull();
    const first = receiveAsAttendee(null, { ...invitation, sender: desk, sentBy: desk, authorised: true }, MARTA);
    expect(receiveAsAttendee(first, moved, MARTA)).toMatchObject({ on: { time: at(15) }, claims: [] });
  });

  test('a stranger’s invitation to, or calling-off of, a known meeting changes nothing and is kept', () => {
    const invitation = only(nudge(m, origin(2)).messages);
    const copy = copyOf(invitation, MARTA);
    for (const claim of [
      { ...invitation, organiser: PEAT, sender: PEAT, sequence: 9 },
      { ...invitation, method: 'CANCEL', sender: PEAT, sequence: 9 },
    ] as Message[]) {
      const after = receiveAsAttendee(copy, claim, MARTA) as Copy;
      expect({ ...after, claims: [] }).toEqual(copy);
      expect(after.claims).toEqual([claim]);
      expect(receiveAsOrganiser(m, claim, origin(3)).meeting.questions.map((q) => q.why)).toEqual(['otherOrganiser']);
    }
    expect(receiveAsAttendee(null, { ...invitation, sender: PEAT } as Message, MARTA)).toBeNull();
  });
});

describe('whatever the order, and however often', () => {
  type Act =
    | { do: 'move'; hour: number }
    | { do: 'rename'; n: number }
    | { do: 'elsewhere'; n: number }
    | { do: 'off' }
    | { do: 'nudge' }
    | { do: 'answer'; by: string; answer: 'accepted' | 'declined' | 'tentative' }
    | { do: 'propose'; by: string; hour: number };
  const by = fc.constantFrom(MARTA, BRUNO);
  const act: fc.Arbitrary<Act> = fc.oneof(
    fc.record({ do: fc.constant('move' as const), hour: fc.integer({ min: 8, max: 11 }) }),
    fc.record({
      do: fc.constantFrom('rename' as const, 'elsewhere' as const, 'nudge' as const),
      n: fc.nat({ max: 2 }),
    }),
    fc.record({ do: fc.constantFrom('off' as const), n: fc.constant(0) }),
    fc.record({ do: fc.constant('answer' as const), by, answer: fc.constantFrom('accepted', 'declined', 'tentative') }),
    fc.record({ do: fc.constant('propose' as const), by, hour: fc.integer({ min: 12, max: 15 }) }),
  );

  /** Everything said by either side while each act is heard at once: what one delivery, in order, makes of it. */
  function play(acts: readonly Act[]) {
    let meeting = draft(MARTA, BRUNO);
    const copies = new Map<string, Copy>();
    const said: Message[] = [];
    let stamp = 0;
    const heard = (messages: readonly Message[]) => {
      for (const m of messages) {
        said.push(m);
        for (const to of m.to)
          if (to === INES) meeting = receiveAsOrganiser(meeting, m, origin(stamp)).meeting;
          else copies.set(to, receiveAsAttendee(copies.get(to) ?? null, m, to) as Copy);
      }
    };
    const organise = (o: { meeting: Meeting; messages: readonly Message[] }) => {
      meeting = o.meeting;
      heard(o.messages);
    };
    organise(callMeeting(meeting, origin(++stamp)));
    for (const a of acts) {
      const h = origin(++stamp);
      if (a.do === 'move') organise(changeMeeting(meeting, { time: at(a.hour) }, h));
      else if (a.do === 'rename')
        organise(changeMeeting(meeting, { matter: { title: `Talk ${a.n}` }, tellAll: true }, h));
      else if (a.do === 'elsewhere') organise(changeMeeting(meeting, { matter: { place: `Place ${a.n}` } }, h));
      else if (a.do === 'nudge') organise(nudge(meeting, h));
      else if (a.do === 'off') organise(callOff(meeting, h));
      else {
        const copy = copies.get(a.by) as Copy;
        const done =
          a.do === 'answer' ? answerMeeting(copy, a.answer, null, h) : proposeTime(copy, at(a.hour), null, h);
        copies.set(a.by, done.copy);
        heard(done.messages);
      }
    }
    return { meeting, copies, said, stamp };
  }

  test('an attendee’s copy ends the same', () => {
    fc.assert(
      fc.property(fc.array(act, { maxLength: 14 }), fc.infiniteStream(fc.nat()), (acts, noise) => {
        const { said } = play(acts);
        const mine = said.filter((m) => m.to.includes(MARTA));
        const shuffled = [...mine, ...mine.slice(0, 3)]
          .map((m) => [noise.next().value as number, m] as const)
          .sort(([a], [b]) => a - b)
          .map(([, m]) => m);
        const take = (list: readonly Message[]) =>
          list.reduce<Copy | null>((copy, m) => receiveAsAttendee(copy, m, MARTA), null);
        expect(take(shuffled)).toEqual(take(mine));
      }),
      { numRuns: 400 },
    );
  });

  test('the organiser’s meeting ends the same', () => {
    fc.assert(
      fc.property(fc.array(act, { maxLength: 14 }), fc.infiniteStream(fc.nat()), (acts, noise) => {
        const { said, meeting, stamp } = play(acts);
        const answers = said.filter((m) => m.to.includes(INES));
        // The meeting as the organiser made it, before any of the answers had come.
        const bare: Meeting = { ...meeting, given: {}, counters: [] };
        const take = (list: readonly Message[]) =>
          list.reduce((m, message) => receiveAsOrganiser(m, message, origin(stamp)).meeting, bare);
        const shuffled = [...answers, ...answers.slice(-2)]
          .map((m) => [noise.next().value as number, m] as const)
          .sort(([a], [b]) => a - b)
          .map(([, m]) => m);
        expect(take(shuffled)).toEqual(take(answers));
      }),
      { numRuns: 400 },
    );
  });

  test('both sides agree: what an attendee answered is what the organiser has, once all was heard', () => {
    fc.assert(
      fc.property(fc.array(act, { maxLength: 14 }), (acts) => {
        const { meeting, copies } = play(acts);
        for (const [address, copy] of copies) {
          if (meeting.state === 'cancelled') expect(stateOf(copy)).toBe('cancelled');
          else {
            expect([address, myAnswer(copy)]).toEqual([address, answerOf(meeting, address)]);
            expect(copy.on?.time).toEqual(meeting.time);
            expect(meeting.counters.some((c) => c.attendee === address)).toBe(myProposal(copy) !== null);
          }
        }
      }),
      { numRuns: 400 },
    );
  });
});
