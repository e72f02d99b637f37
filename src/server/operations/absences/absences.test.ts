import { describe, expect, test } from 'vitest';
import type { NewAbsence } from '@/contract/absences.ts';
import { checkBody } from '@/contract/openings/openings.ts';
import { PRESETS } from '@/core/access/index.ts';
import { readDesk, takeDeskStep } from '../desk/index.ts';
import { listItems } from '../items/index.ts';
import { address, answersOn, call, ctx, eachMeetingDay, idIn, org, pass, value, who } from '../meetings/meeting-day.ts';
import { listMessages } from '../messages/list-messages.ts';
import { takeMail } from '../messages/receive-mail.ts';
import { writeMailFor } from '../messages/write-mail.ts';
import { checkTime } from '../openings/index.ts';
import { takeAccess } from '../sharing/index.ts';
import { at, WEEK } from '../small-organisation.ts';
import { listTrail } from '../trail/index.ts';
import { addAbsence, changeAbsence, giveCover, listAbsences, removeAbsence } from './index.ts';

eachMeetingDay();

const HOST = 'mx.cloudmoor.example';
const NOTICE: NewAbsence = {
  from: '2027-03-02',
  until: '2027-03-04',
  inside: 'On the moor until Friday.',
  outside: 'Away until Friday.',
  cover: null,
  declines: false,
};
const away = (by = 'ines', more: Partial<NewAbsence> = {}) => addAbsence(ctx(by), 'ines', { ...NOTICE, ...more });
const absences = (by: string) => {
  const listed = listAbsences(ctx(by), 'ines');
  return listed.ok ? listed.value : listed.code;
};
const seen = (by: string) => {
  const listed = listItems(ctx(by), org.calendar('ines'), WEEK);
  return listed.ok ? listed.value.items : [];
};

describe('who may set it', () => {
  test('the owner and whoever has that right alone: it stands in the calendar for each as they see it', () => {
    expect(away('amara')).toMatchObject({ code: 'mayNotSetAbsence' });
    org.give('ines', 'wren', { ...PRESETS.freeBusy, absence: true });
    const set = value(away('wren'));
    expect(set).toMatchObject({ may: { set: true, cover: false }, absences: [{ now: true, setBy: 'Wren' }] });
    expect(seen('wren')).toMatchObject([{ start: '2027-03-02', end: '2027-03-05', allDay: true, shows: 'away' }]);
    expect(seen('wren')[0]).not.toHaveProperty('notes');
    expect(seen('ines')).toMatchObject([{ title: 'Away', notes: null, shows: 'away' }]);
    // Who looks reads the days and what is said inside; the rest is for who sets it, and nothing for whoever sees nothing.
    expect(absences('dario')).toMatchObject({
      may: { set: false },
      absences: [{ from: '2027-03-02', setBy: '', until: '2027-03-04', outside: null, declines: null, replies: null }],
    });
    org.give('ines', 'dario', PRESETS.shutOut);
    const nobody = listAbsences(ctx('ines'), 'nobody');
    expect([absences('dario'), nobody]).toMatchObject(['notFound', { code: 'notFound' }]);
    org.give('ines', 'bruno', { ...PRESETS.full, absence: true });
    const [one] = value(listAbsences(ctx('bruno'), 'ines')).absences;
    value(changeAbsence(ctx('bruno'), one?.key ?? '', { ...NOTICE, until: '2027-03-05', version: 1 }));
    expect(changeAbsence(ctx('ines'), one?.key ?? '', { ...NOTICE, version: 1 })).toMatchObject({
      code: 'changedMeanwhile',
      data: { absences: [{ until: '2027-03-05', version: 2 }] },
    });
    expect(seen('ines')).toMatchObject([{ end: '2027-03-06' }]);
    // What shows it comes and goes with it, and isn’t taken back by itself.
    const trail = listTrail(ctx('ines'), { of: 'name', kind: 'items' });
    expect(trail.ok && trail.value.entries.map(({ items, undo }) => [items[0], undo])).toEqual([
      ['Away', false],
      ['Away', false],
    ]);
    // Once the right is gone, so is the way to it.
    takeAccess(ctx('ines'), org.calendar('ines'), { audience: { kind: 'person', id: 'bruno' }, seen: '' });
    expect(removeAbsence(ctx('dario'), one?.key ?? '')).toMatchObject({ code: 'notFound' });
    expect(removeAbsence(ctx('amara'), one?.key ?? '')).toMatchObject({ code: 'mayNotSetAbsence' });
    value(removeAbsence(ctx('ines'), one?.key ?? ''));
    expect([seen('ines'), absences('ines')]).toMatchObject([[], { absences: [] }]);
  });

  test('what can’t be is refused at its field, and nothing is left behind', () => {
    const field = (more: Partial<NewAbsence>) => {
      const refused = away('ines', more);
      return refused.ok ? null : refused.fields;
    };
    expect(field({ until: '2027-03-01' })).toEqual({ until: 'endBeforeStart' });
    expect(field({ from: '2027-02-20', until: '2027-02-25' })).toEqual({ until: 'datePassed' });
    expect(field({ from: '2027-03-01' })).toEqual({ from: 'datePassed' });
    expect(field({ until: '2029-03-04' })).toEqual({ until: 'daysMost:400' });
    expect(field({ cover: 'ines' })).toEqual({ cover: 'person' });
    expect(field({ cover: 'nobody' })).toEqual({ cover: 'person' });
    value(away());
    expect(field({ from: '2027-03-04', until: '2027-03-09' })).toEqual({ from: 'absenceOverlaps' });
    expect(seen('ines')).toHaveLength(1);
  });
});

test('whoever acts reads that she is away, and until when', () => {
  value(away('ines', { declines: false }));
  const here = () => value(readDesk(ctx('tomas'), 'ines')).principals.find(({ handle }) => handle === 'ines')?.here;
  expect(here()).toEqual({ place: null, away: true, until: '2027-03-05' });
});

test('on these days nobody finds her free: a search counts them as taken', () => {
  const check = () =>
    value(checkTime(ctx('amara'), org.calendar('ines'), checkBody.parse({ when: at('2027-03-03', 11) }))).clashes;
  expect(check()).toEqual([]);
  value(away());
  expect(check()).toMatchObject([{ kind: 'overlap', title: 'Away' }]);
});

describe('who covers', () => {
  test('one press gives the access for the days, by whoever gives access; the Desk asks for it, and for words', () => {
    const key = value(away('tomas', { cover: 'bruno', inside: '', outside: '' })).absences[0]?.key ?? '';
    const row = (by: string) => {
      const desk = value(readDesk(ctx(by), 'ines'));
      return desk.rows.find(({ kind }) => kind === 'away');
    };
    // Tomas speaks for her and gives no access: who covers is for her to give.
    expect(row('tomas')?.steps.map(({ act }) => act)).toEqual(['notice', 'whoCovers', 'left']);
    expect(giveCover(ctx('tomas'), key, { further: [] })).toMatchObject({ code: 'mayNotShare' });
    // Amara arranges, and doesn't set the notice: nothing of it is hers to decide.
    expect(row('amara')).toBeUndefined();
    // What they have for good stays beside it.
    org.give('ines', 'bruno', PRESETS.full);
    const mine = row('ines');
    expect(mine).toMatchObject({
      about: { of: 'absence', cover: 'Bruno', mayCover: true },
      because: [{ why: 'notice' }, { why: 'cover' }],
      steps: [{ act: 'notice' }, { act: 'cover' }, { act: 'left' }],
    });
    value(takeDeskStep(ctx('ines'), mine?.key ?? '', { act: 'cover' }));
    expect(absences('ines')).toMatchObject({ absences: [{ covered: true }] });
    expect(seen('bruno').length).toBe(1);
    expect(row('ines')?.because).toEqual([{ why: 'notice' }]);
    value(changeAbsence(ctx('ines'), key, { ...NOTICE, cover: 'bruno', version: 1 }));
    expect(row('ines')).toBeUndefined();
    // A longer absence isn't covered to its end.
    value(changeAbsence(ctx('ines'), key, { ...NOTICE, until: '2027-03-09', cover: 'bruno', version: 2 }));
    expect(row('ines')?.because).toEqual([{ why: 'cover' }]);
  });
});

describe('what is answered', () => {
  const outgoing = () =>
    org.db
      .all<{ to_address: string; mail: string }>('SELECT to_address, mail FROM outgoing_mail ORDER BY id')
      .map(({ to_address, mail }) => [to_address, JSON.parse(mail).subject, JSON.parse(mail).automatic]);
  let sent = 0;
  const arrive = async (from: string, head: readonly string[] = [], to = address('ines')) => {
    pass(1);
    const lines = [`From: ${from}`, `To: ${to}`, 'Subject: The weir', `Message-ID: <m${++sent}@x.example>`, ...head];
    await takeMail(org.db, ctx('ines').now, Buffer.from([...lines, '', 'Hello'].join('\r\n')), [address('ines')], HOST);
  };

  test('a person outside once, never a list, a machine, an automatic answer, or one who says to be ours', async () => {
    value(away());
    await arrive('Marta <marta@quill.example>');
    await arrive('marta@quill.example', ['X-Second: yes']);
    expect(outgoing()).toEqual([['marta@quill.example', 'Auto: The weir', true]]);
    for (const head of [
      'Auto-Submitted: auto-replied',
      'Auto-Submitted: auto-generated (vacation)',
      'List-Id: <moor.lists.example>',
      'Precedence: bulk',
      'Return-Path: <>',
      'Content-Type: multipart/report; report-type=delivery-status; boundary=x',
    ])
      await arrive('lena@quill.example', [head]);
    for (const from of ['no-reply@quill.example', 'MAILER-DAEMON@quill.example', 'moor-request@lists.example'])
      await arrive(from);
    await arrive(address('bruno'));
    await arrive('lena@quill.example, otto@quill.example');
    await arrive('lena@quill.example', [], 'undisclosed@quill.example');
    expect(outgoing()).toHaveLength(1);
    await arrive('lena@quill.example', ['Auto-Submitted: no']);
    expect(outgoing()).toHaveLength(2);
    expect(absences('ines')).toMatchObject({ absences: [{ replies: 2 }] });
    // Nothing is answered once it is taken away; another absence answers anew.
    const listed = value(listAbsences(ctx('ines'), 'ines'));
    value(removeAbsence(ctx('ines'), listed.absences[0]?.key ?? ''));
    await arrive('otto@quill.example');
    expect(outgoing()).toHaveLength(2);
    value(away());
    await arrive('marta@quill.example', ['X-Third: yes']);
    expect(outgoing()).toHaveLength(3);
  });

  test('somebody inside once, with the words for inside, in the thread they began', () => {
    value(away());
    const write = () =>
      writeMailFor(ctx('wren'), 'wren', {
        to: [{ address: address('ines'), name: null }],
        subject: 'The weir',
        text: 'When?',
        answers: null,
      });
    value(write());
    value(write());
    const threads = value(listMessages(ctx('wren'), 'wren', {})).threads;
    const all = threads.flatMap(({ messages }) => messages);
    expect(all.filter(({ mark }) => mark === 'automatic').map(({ says, subject }) => [subject, says])).toEqual([
      ['Auto: The weir', 'On the moor until Friday.'],
    ]);
  });

  test('new invitations within it are declined where she wants it so, with the words; others wait', () => {
    value(away('ines', { declines: true }));
    const declined = call('wren', who('ines'), {}, 'wren');
    const after = call('wren', who('ines'), { when: at('2027-03-08', 10), title: 'After' }, 'wren');
    const series = call('wren', who('ines'), { repeat: { rule: 'FREQ=DAILY;COUNT=2' }, title: 'Series' }, 'wren');
    pass();
    const uid = (answer: typeof after) =>
      org.db.get<{ uid: string }>('SELECT uid FROM item WHERE key = ?', answer.item?.id.split('~')[0] ?? '')?.uid ?? '';
    expect(answersOn('wren', uid(declined))).toMatchObject({ ines: 'declined' });
    expect(answersOn('wren', uid(after))).toMatchObject({ ines: 'needs-action' });
    expect(answersOn('wren', uid(series))).toMatchObject({ ines: 'needs-action' });
    expect(idIn('ines', uid(declined))).not.toBe('');
    const said = value(listMessages(ctx('wren'), 'wren', {})).threads.flatMap(({ messages }) => messages);
    expect(said.find(({ answer }) => answer === 'declined')?.says).toBe('On the moor until Friday.');
  });
});
