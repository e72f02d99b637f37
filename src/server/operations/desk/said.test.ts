import { describe, expect, test } from 'vitest';
import { instantText } from '@/core/time/index.ts';
import { address, call, ctx, eachMeetingDay, org, pass, value, who } from '../meetings/meeting-day.ts';
import { takeAccess } from '../sharing/index.ts';
import { at } from '../small-organisation.ts';
import { busy, desk, kinds, row, rows, take } from './at-desk.ts';
import { openDeskRow, readDeskPreferences, saveDeskPreferences } from './index.ts';

eachMeetingDay();

describe('what is said of a row', () => {
  const clash = () => {
    busy('Board', 9, 2);
    busy('Reading', 10, 1);
    return row('tomas', 'clash');
  };

  test('later is one’s own, counted, comes back by itself and is taken back', () => {
    const { key } = clash();
    const until = instantText(ctx('tomas').now + 3_600_000);
    expect(take('tomas', key, { act: 'later', until: instantText(ctx('tomas').now) })).toMatchObject({
      code: 'badInput',
      fields: { until: 'laterPast' },
    });
    value(take('tomas', key, { act: 'later', until }));
    expect([kinds('tomas'), desk('tomas').later]).toEqual([[], 1]);
    expect(kinds('oona')).toContain('clash');
    value(take('tomas', key, { act: 'back' }));
    expect([kinds('tomas'), desk('tomas').later]).toEqual([['clash'], 0]);
    value(take('tomas', key, { act: 'later', until }));
    pass(3601);
    expect(kinds('tomas')).toEqual(['clash']);
  });

  test('left is everybody’s, until something of it changes', () => {
    const { key } = clash();
    value(take('tomas', key, { act: 'left' }));
    expect([kinds('tomas'), kinds('oona'), kinds('ines')]).toEqual([[], [], []]);
    busy('Third', 10, 1);
    expect(kinds('oona')).toEqual(['clash']);
  });

  test('passed on it is that one’s and the principal’s, with the line; to nobody else who acts, and never to the principal', () => {
    const { key } = clash();
    expect(
      desk('tomas')
        .principals.find(({ handle }) => handle === 'ines')
        ?.acts.map(({ handle }) => handle)
        .sort(),
    ).toEqual(['amara', 'oona']);
    for (const to of ['ines', 'wren', 'tomas'])
      expect(take('tomas', key, { act: 'passed', to, line: '' })).toMatchObject({ ok: false, code: 'badInput' });
    value(take('tomas', key, { act: 'passed', to: 'oona', line: 'She knows the board' }));
    expect([kinds('tomas'), kinds('amara')]).toEqual([[], []]);
    expect(row('oona', 'clash').passed).toEqual({ to: 'Oona', by: 'Tomas', line: 'She knows the board' });
    expect(row('ines', 'clash').passed).toMatchObject({ to: 'Oona' });
    // For everybody again when that one no longer acts.
    value(
      takeAccess(ctx('ines'), org.calendar('ines'), {
        audience: { kind: 'person', id: 'oona' },
        seen: undefined as never,
      }),
    );
    expect(kinds('tomas')).toEqual(['clash']);
  });

  test('who has a row open is known to those who have it', () => {
    const { key } = clash();
    expect(value(openDeskRow(ctx('tomas'), key, true)).others).toEqual([]);
    expect(value(openDeskRow(ctx('oona'), key, true)).others).toEqual(['Tomas']);
    expect(openDeskRow(ctx('dario'), key, true)).toMatchObject({ ok: false, code: 'deskGone' });
    value(openDeskRow(ctx('tomas'), key, false));
    expect(value(openDeskRow(ctx('oona'), key, true)).others).toEqual([]);
  });
});

test('weights and who goes first are whose they are and theirs who act; they move the rows', () => {
  busy('Board', 9, 2);
  busy('Reading', 10, 1);
  call('wren', who('ines'), { when: at('2027-03-04', 15), place: 'Marsh Lab' }, 'wren');
  pass();
  expect(kinds('tomas')).toEqual(['clash', 'answer']);
  const before = value(readDeskPreferences(ctx('tomas'), 'ines'));
  value(
    saveDeskPreferences(ctx('tomas'), 'ines', {
      shifts: { clash: -30, unset: 0 },
      first: [address('wren')],
      version: before.version,
    }),
  );
  expect(rows('ines').map(({ kind, parts }) => [kind, parts.shift, parts.person])).toEqual([
    ['answer', 0, 15],
    ['clash', -30, 0],
  ]);
  expect(saveDeskPreferences(ctx('ines'), 'ines', { shifts: {}, first: [], version: 0 })).toMatchObject({
    code: 'changedMeanwhile',
  });
  for (const handle of ['dario', 'wren'])
    expect(readDeskPreferences(ctx(handle), 'ines')).toMatchObject({ ok: false, code: 'notFound' });
});
