import { describe, expect, test } from 'vitest';
import { insertDelivery } from '../../repositories/deliveries.ts';
import { releaseDue } from '../meetings/index.ts';
import { sendMail } from '../messages/send-mail.ts';
import { START } from '../small-organisation.ts';
import { eachProgramDay, edit, event, lines, list, org, put, textOf } from './program-day.ts';

eachProgramDay();

const ASKS = [
  'UID:asks@x',
  'DTSTART:20270304T100000Z',
  'DTEND:20270304T110000Z',
  'SUMMARY:Weir',
  'ORGANIZER:mailto:ines@cloudmoor.example',
  'ATTENDEE;SCHEDULE-STATUS="2.0":mailto:bruno@cloudmoor.example',
  'ATTENDEE;SCHEDULE-STATUS="3.7":mailto:perpetua@ministry.example',
];
const RELEASED = START + 11_000;

/** How far a message has come to each attendee, as a program of somebody's reads it. */
const statuses = (who = 'ines') =>
  Object.fromEntries(
    [
      ...textOf(who, 'Weir')
        .text.replace(/\r\n /g, '')
        .matchAll(/^ATTENDEE([^\r\n]*)mailto:(\w+)@/gm),
    ].map(([, params = '', name = '']) => [name, /;SCHEDULE-STATUS="([\d.]+)"/.exec(params)?.[1] ?? null]),
  );
const tagsOf = () => list('ines').map(({ tag, scheduleTag }) => [tag, scheduleTag]);

/** RFC 6638 3.2.9 and 7.3: what the organiser's programs read of the messages that the server sends for them. */
describe('how far an invitation has come', () => {
  test('is delivered inside and, by mail, sent or given up; what is to leave is pending', async () => {
    expect(put('ines', 'asks.ics', lines(...event(...ASKS)))).toMatchObject({ ok: true });
    expect(releaseDue(org.db, RELEASED)).toBe(1);
    // What the program itself says of it counts for nothing.
    expect(statuses()).toEqual({ bruno: '1.2', perpetua: '1.0' });
    const [before] = tagsOf();
    await sendMail(org.db, RELEASED, () =>
      Promise.reject(Object.assign(new Error('no such box'), { responseCode: 550 })),
    );
    expect(statuses()).toEqual({ bruno: '1.2', perpetua: '5.1' });
    const [after] = tagsOf();
    // The text is another; what a program may hold against it isn't (RFC 6638 3.2.10).
    expect(after?.[0]).not.toBe(before?.[0]);
    expect(after?.[1]).toBe(before?.[1]);
    org.db.run('UPDATE outgoing_mail SET given_up = 0, next_try = 0');
    await sendMail(org.db, RELEASED, async () => {});
    expect(statuses()).toEqual({ bruno: '1.2', perpetua: '1.1' });
    const { name, text: mine } = textOf('ines', 'Weir');
    expect(put('ines', name, edit(mine, ['20270304T110000Z', '20270304T120000Z']))).toMatchObject({ ok: true });
    expect(statuses()).toEqual({ bruno: '1.0', perpetua: '1.0' });
    // Whoever is asked learns nothing of it: it is said to the organiser's programs alone.
    const theirs = list('bruno').concat(list(org.ctx('bruno')));
    for (const { text } of theirs) expect(text).not.toContain('SCHEDULE-STATUS');
  });

  test('is sent back by a program as it was, and changes nothing', () => {
    put('ines', 'asks.ics', lines(...event(...ASKS)));
    releaseDue(org.db, RELEASED);
    const { name, text } = textOf('ines', 'Weir');
    const stored = () => org.db.get<object>("SELECT version, kept FROM item WHERE title = 'Weir' ORDER BY id LIMIT 1");
    const before = stored();
    expect(before).not.toHaveProperty('kept', expect.stringContaining('SCHEDULE-STATUS'));
    expect(put('ines', name, text)).toMatchObject({ ok: true });
    expect(stored()).toEqual(before);
    // What it says of somebody that isn't so.
    expect(put('ines', name, edit(text, ['SCHEDULE-STATUS="1.2"', 'SCHEDULE-STATUS="5.3"']))).toMatchObject({
      ok: true,
    });
    expect(stored()).toEqual(before);
    expect(statuses()).toMatchObject({ bruno: '1.2' });
  });

  test('is pending while it is on its way into a calendar, and nothing is said of a mere draft', () => {
    put('ines', 'asks.ics', lines(...event(...ASKS)));
    releaseDue(org.db, RELEASED);
    const bruno = org.ctx('bruno').viewer.id;
    const message = { uid: 'asks@x' } as never;
    insertDelivery(org.db, { personId: bruno, actorId: bruno, at: START, what: { from: 'inside', message } });
    expect(statuses()).toMatchObject({ bruno: '1.0' });
    org.db.run('DELETE FROM delivery');
    org.db.run("UPDATE meeting SET state = NULL WHERE part = 'organiser'");
    expect(statuses()).toEqual({ bruno: null, perpetua: null });
  });
});
