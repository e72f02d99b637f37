import { expect, test } from 'vitest';
import { Caller } from './caller.ts';
import type { Desk } from './desk.ts';
import { desksAt } from './desks.ts';
import { sampleFor, tenSecondsPass } from './servers.ts';
import { until } from './until.ts';

/* The assistant's half of the job, by the keys alone: answering for two people, and a meeting from its calling to its calling off. */
const home = await sampleFor('meetings');
const { open } = desksAt(home, { byKeys: true });

/** Somebody of the directory taken into a meeting, as they are found while typing. */
async function invite(desk: Desk, typed: string, option: RegExp): Promise<void> {
  await desk.fill('Who comes', typed, 'combobox');
  await desk.press('option', option);
}

/** Somebody outside, by their address. */
async function inviteOutside(desk: Desk, text: string, name: string): Promise<void> {
  await desk.fill('Who comes', text, 'combobox');
  await desk.page.keyboard.press('Enter');
  await desk.find('button', `Remove ${name}`);
}

/** Moves the focus to a thread's row. */
async function focus(desk: Desk, title: RegExp): Promise<void> {
  const row = await desk.find('button', title);
  await row.focus();
}

const within = (holds: () => Promise<boolean>) => until('it to be so', holds);

test('a morning of answering for two: by one key each, several at once, taken back, closed by who was first', async () => {
  // The finance director lets his assistant answer too, for this morning.
  const bruno = await Caller.stepIn(home, 'bruno');
  const frame = await bruno.json<{ principals: { handle: string; calendar: string }[] }>('/api/frame');
  const his = frame.principals.find((p) => p.handle === 'bruno')?.calendar ?? '';
  type Lines = { rows: { audience: { id?: string }; grants: { key: string; rights: object }[] }[] };
  const lines = await bruno.json<Lines>(`/api/calendars/${his}/sightlines`);
  const [grant] = lines.rows.find((r) => r.audience.id === 'tomas')?.grants ?? [];
  const given = await bruno.send('PUT', `/api/calendars/${his}/grants`, {
    audience: { kind: 'person', id: 'tomas' },
    rights: { ...grant?.rights, speaks: true },
    seen: grant?.key,
  });
  expect(given.status).toBe(200);
  // Two from the field lead and one from the seed bank, to each of them.
  const greta = await Caller.stepIn(home, 'greta');
  const hers = (await greta.json<{ principals: { calendar: string }[] }>('/api/frame')).principals[0]?.calendar ?? '';
  for (const [title, hour] of [
    ['Seed count', 10],
    ['Cold room', 12],
    ['Peat order', 14],
  ] as const) {
    const made = await greta.send('POST', `/api/calendars/${hers}/items`, {
      when: { start: `2027-05-05T${hour}:00`, end: `2027-05-05T${hour}:30`, allDay: false, zone: 'Europe/Lisbon' },
      title,
      people: [{ address: 'i.varga@cloudmoor.example' }, { address: 'b.keane@cloudmoor.example' }],
    });
    expect(made.status).toBe(200);
  }

  const tomas = await open('tomas', '/for/ines/messages');
  const ines = await open('ines', '/for/ines/messages');
  await tomas.find('button', /^(new )?Seed count/);
  await tomas.find('button', /^(new )?Cold room/);
  await tomas.find('button', /^(new )?Peat order/);
  // However many wait for her beside these three.
  const waiting = async () => {
    const { rows } = JSON.parse((await tomas.fetch('/api/desk?for=ines')).text) as { rows: { kind: string }[] };
    return rows.filter(({ kind }) => kind === 'answer').length;
  };
  const before = await waiting();
  await focus(tomas, /^(new )?Seed count/);
  await tomas.page.keyboard.press('1');
  await tomas.says('Sent for Inés: it leaves in ten seconds, to 1.');
  // In her own window it is closed, with who and when.
  await ines.says(/Tomas Lindqvist: coming, 2 Mar, \d\d:\d\d/);
  await tomas.press('button', 'Take it back');
  await tomas.says('Taken back. Nobody heard of it.');
  await ines.saysNot(/Tomas Lindqvist: coming, 2 Mar/);

  await tomas.press('checkbox', 'Tick “Seed count”');
  await tomas.press('checkbox', 'Tick “Cold room”');
  await tomas.press('button', 'Coming', await tomas.find('region', '2 invitations ticked:'));
  await tomas.says('2 answers leave in ten seconds.');
  await focus(tomas, /^(new )?Peat order/);
  await tomas.page.keyboard.press('3');
  await within(async () => (await waiting()) === before - 3);

  await tomas.press('link', /^BK Bruno Keane|^Bruno Keane/);
  await tomas.find('heading', 'Bruno’s messages');
  await focus(tomas, /^(new )?Peat order/);
  await tomas.page.keyboard.press('2');
  await tomas.says('Sent for Bruno: it leaves in ten seconds, to 1.');
  tenSecondsPass(home);

  // Each answer comes to the organiser once, in both names.
  type Threads = {
    threads: {
      title: string;
      messages: { kind: string; answer: string; from: { name: string }; by: { name: string } | null }[];
    }[];
  };
  await within(async () => {
    const { threads } = await greta.json<Threads>('/api/people/greta/messages');
    const said = ['Seed count', 'Cold room', 'Peat order'].flatMap((title) =>
      (threads.find((t) => t.title === title)?.messages ?? [])
        .filter((m) => m.kind === 'answer')
        .map((m) => `${title}: ${m.from.name} ${m.answer}, by ${m.by?.name}`),
    );
    const wanted = [
      'Seed count: Inés Varga accepted, by Tomas Lindqvist',
      'Cold room: Inés Varga accepted, by Tomas Lindqvist',
      'Peat order: Bruno Keane tentative, by Tomas Lindqvist',
      'Peat order: Inés Varga declined, by Tomas Lindqvist',
    ];
    return JSON.stringify(said.sort()) === JSON.stringify(wanted.sort());
  });
});

test('a meeting with people inside and outside, called, moved to a time that one of them proposes, widened, and called off', async () => {
  // The room is taken from eleven on that day.
  const hedda = await Caller.stepIn(home, 'hedda');
  const hers = (await hedda.json<{ principals: { calendar: string }[] }>('/api/frame')).principals[0]?.calendar ?? '';
  const taken = await hedda.send('POST', `/api/calendars/${hers}/items`, {
    when: { start: '2027-05-12T09:30', end: '2027-05-12T12:00', allDay: false, zone: 'Europe/Lisbon' },
    title: 'Hall booked',
    people: [{ address: 'm.hall@cloudmoor.example' }],
  });
  expect(taken.status).toBe(200);

  const tomas = await open('tomas', '/for/ines/calendar?week=2027-05-10');
  const yusuf = await open('yusuf', '/for/yusuf/calendar?week=2027-05-10');
  await tomas.find('heading', /10–16 May 2027/);
  await tomas.page.keyboard.press('n');
  await tomas.fill('Title', 'Weir consent, whole table');
  await tomas.fill('Day', '2027-05-12');
  await tomas.fill('From', '10:00');
  await tomas.fill('To', '11:00');
  await invite(tomas, 'Yusuf', /^Yusuf Tarn/);
  await invite(tomas, 'Otto', /^Otto Linn/);
  await invite(tomas, 'Wren', /^Wren Castellan/);
  await invite(tomas, 'Marsh hall', /^Marsh hall/);
  await inviteOutside(tomas, 'Marta Quill <marta@quill-audit.example>', 'Marta Quill');
  await inviteOutside(tomas, 'Perpetua Oduya <p.oduya@water-ministry.example>', 'Perpetua Oduya');
  await tomas.says('outside · not known');
  // The hall was asked for a moment ago and answered at once.
  await within(async () => (await tomas.text()).includes('taken then'));
  await tomas.press('button', 'Send for Inés to 6, 2 of them outside');
  await tomas.find('dialog', 'This leaves the house');
  await tomas.says('It goes to: Marta Quill Perpetua Oduya');
  expect(await yusuf.look('button', /^Weir consent/)).toBe(null);
  await tomas.press('button', 'Send it');
  await tomas.says('Sent for Inés: it leaves in ten seconds, to 6, 2 of them outside.');
  tenSecondsPass(home);
  // Without anything done there it comes to those inside; and answers come back from outside.
  await yusuf.find('button', /^Weir consent, whole table, Wed 12 May 2027, 10:00–11:00/);
  await tomas.says('Proposes Thu 13 May 2027, 10:00–11:00. “Could we meet a day later, at the same hour?”');
  await tomas.says(/Marta Quill\s+outside\s+coming/);
  await tomas.says(/Marsh hall\s+can’t/);

  await tomas.press('button', 'Accept it, and tell all 6');
  await tomas.says('Sent for Inés: it leaves in ten seconds, to 6, 2 of them outside.');
  tenSecondsPass(home);
  await yusuf.find('button', /^Weir consent, whole table, Thu 13 May 2027, 10:00–11:00/);
  expect((await Caller.stepIn(home, 'yusuf').then((c) => c.send('GET', '/correspondents'))).text).not.toContain(
    '(UTC)',
  );
  await tomas.says(/Marsh hall\s+coming/);

  // One more is asked, and nobody else hears of it.
  await tomas.press('button', /^Weir consent, whole table/);
  await tomas.press('button', 'Change');
  await invite(tomas, 'Jonas', /^Jonas Heath/);
  await tomas.press('button', 'Send for Inés to 1');
  await tomas.says('Sent for Inés: it leaves in ten seconds, to 1.');
  tenSecondsPass(home);
  await tomas.says(/Jonas Heath\s+no answer/);

  await tomas.press('button', 'Change');
  await tomas.fill('From', '15:00');
  await tomas.fill('To', '16:00');
  await tomas.press('button', 'Send for Inés to 7, 2 of them outside');
  await tomas.says('Sent for Inés: it leaves in ten seconds, to 7, 2 of them outside.');
  tenSecondsPass(home);
  await yusuf.find('button', /^Weir consent, whole table, Thu 13 May 2027, 15:00–16:00/);

  await tomas.press('button', /^Weir consent, whole table/);
  await tomas.press('button', 'Remove');
  await tomas.says('Sent for Inés: it leaves in ten seconds, to 7, 2 of them outside.');
  tenSecondsPass(home);
  // What was called off stands as that for who was asked.
  type Threads = { threads: { title: string; cancelled: boolean }[] };
  const his = await Caller.stepIn(home, 'yusuf');
  await within(async () => {
    const { threads } = await his.json<Threads>('/api/people/yusuf/messages');
    return threads.some((t) => t.title === 'Weir consent, whole table' && t.cancelled);
  });
  await within(async () => {
    const outside = await his.send('GET', '/correspondents');
    return outside.text.includes('Called off: Weir consent, whole table');
  });
});
