import { beforeEach, describe, expect, test, vi } from 'vitest';

/*
 * A field that nobody ever wrote a line of code for: a row in the table and a column. It has to be everywhere a field is.
 */
vi.mock('@/core/calendar/item-table.ts', async (original) => {
  const { ITEM_FIELDS } = await original<typeof import('@/core/calendar/item-table.ts')>();
  const mood = {
    type: 'text',
    most: 50,
    sight: 'full',
    copied: 'anywhere',
    said: true,
    forward: 'change',
    file: 'X-MOOD',
  } as const;
  const quiet = { type: 'flag', fresh: false, sight: 'asSet', file: null } as const;
  return { ITEM_FIELDS: { ...ITEM_FIELDS, mood, quiet } };
});

import { itemPatch, itemWire, newItem } from '@/contract/items/items.ts';
import { suggestionBody } from '@/contract/suggestions.ts';
import { fieldPolicy } from '@/core/access/field-policy.ts';
import { PRESETS } from '@/core/access/index.ts';
import { readCalendar } from '@/core/formats/index.ts';
import { sendChange, sendNew } from '@/ui/items/form/item-sending.ts';
import { copyOf, valuesOf } from '@/ui/items/form/item-values.ts';
import { listObjects, putObject } from './dav/index.ts';
import { exportFile, listItems } from './items/index.ts';
import { changeMeeting, copyItem, createMeeting, undoMeeting } from './meetings/index.ts';
import { call, ctx, eachMeetingDay, inCalendar, itemOf, org, pass, value, who } from './meetings/meeting-day.ts';
import { at, WEEK } from './small-organisation.ts';
import { readTrail } from './trail/index.ts';

eachMeetingDay();

/** What has the invented fields, to the compiler that knows nothing of them. */
type Mooded = { readonly mood?: string | null; readonly quiet?: boolean };
const moodOf = (of: unknown): string | null | undefined => (of as Mooded).mood;
const day = { mood: 'calm, mostly' };

beforeEach(() => {
  org.db.raw.exec(
    `ALTER TABLE item ADD COLUMN mood TEXT; ALTER TABLE item ADD COLUMN quiet INTEGER NOT NULL DEFAULT 0`,
  );
  org.give('ines', 'wren', PRESETS.outline);
});
const board = (handle: string) => value(listItems(ctx(handle), org.calendar('ines'), WEEK)).items;
const made = () =>
  value(
    createMeeting(
      ctx('tomas'),
      org.calendar('ines'),
      newItem.parse({ when: at('2027-03-03', 10), title: 'Weir', ...day }),
    ),
  );
const patch = (more: object) => itemPatch.parse({ version: 1, ...more });

describe('a field that is in the table', () => {
  test('is written within its limits, and seen from its sight on', () => {
    expect(fieldPolicy).toMatchObject({ mood: 'full', quiet: 'never' });
    expect(newItem.safeParse({ when: at('2027-03-03', 10), title: 'Weir', mood: 'x'.repeat(51) }).success).toBe(false);
    expect(itemWire.parse(made().item)).toMatchObject(day);
    expect(moodOf(board('tomas')[0])).toBe(day.mood);
    expect(board('wren').map((item) => Object.keys(item))).toEqual([
      ['start', 'end', 'allDay', 'shows', 'title', 'kind', 'place', 'id'],
    ]);
  });

  test('is changed, told in the trail, and taken back', () => {
    const { item } = made();
    const id = item?.id ?? '';
    const changed = value(changeMeeting(ctx('tomas'), id, patch({ fields: { mood: 'grim' } })));
    expect(moodOf(changed.item)).toBe('grim');
    expect(value(readTrail(ctx('ines'), id)).entries[0]?.changed).toEqual([
      { field: 'mood', before: day.mood, after: 'grim' },
    ]);
    expect(moodOf(value(undoMeeting(ctx('tomas'), changed.undo)).item)).toBe(day.mood);
    const emptied = changeMeeting(ctx('tomas'), id, itemPatch.parse({ version: 3, fields: { mood: '' } }));
    expect(moodOf(value(emptied).item)).toBe(null);
  });

  test('as it is set is for whoever arranges all, to read and to write', () => {
    org.give('ines', 'dario', { ...PRESETS.full, change: 'own', add: true });
    const own = createMeeting(
      ctx('dario'),
      org.calendar('ines'),
      newItem.parse({ when: at('2027-03-04', 10), title: 'Own' }),
    );
    const id = value(own).item?.id ?? '';
    expect(changeMeeting(ctx('dario'), id, patch({ quiet: true }))).toMatchObject({ code: 'mayNotChange' });
    expect(value(changeMeeting(ctx('tomas'), id, patch({ quiet: true }))).item?.asSet).toMatchObject({ quiet: true });
    expect(board('dario').find((item) => item.title === 'Own')?.asSet).toBeUndefined();
  });

  test('goes along into a copy, and into everybody’s copy of a meeting', () => {
    const copied = value(copyItem(ctx('tomas'), made().item?.id ?? '', ['2027-03-05']));
    expect(copied.items.map(moodOf)).toEqual([day.mood]);
    const meeting = call('tomas', who('bruno', 'out@side.example'), day);
    pass();
    const { uid } = itemOf(meeting);
    expect(moodOf(inCalendar('bruno', uid))).toBe(day.mood);
    const mail = org.db.get<{ mail: string }>('SELECT mail FROM outgoing_mail');
    expect(JSON.parse(mail?.mail ?? '{}').meeting.message.matter).toMatchObject(day);
    // Its organiser says it: nobody asked says otherwise for everybody.
    expect(
      changeMeeting(ctx('bruno'), inCalendar('bruno', uid)?.key ?? '', patch({ fields: { mood: 'mine' } })),
    ).toMatchObject({ code: 'calledByOthers' });
  });

  test('goes into a file and comes back, to programs too', () => {
    made();
    const { text } = value(exportFile(ctx('ines'), org.calendar('ines')));
    expect(text).toContain('X-MOOD;VALUE=TEXT:calm\\, mostly');
    const options = { zone: 'UTC', candidates: [], most: 9, mostZones: 9, mostLines: 99, nameZone: () => '~x' };
    const read = readCalendar(text, options);
    expect(read.kind === 'read' && read.items.map(moodOf)).toEqual([day.mood]);
    const [object] = value(listObjects(ctx('ines'), org.calendar('ines'), { texts: true })).objects;
    const sent = (object?.text ?? '').replace('calm\\, mostly', 'merry');
    const seen = { match: null, noneMatch: null };
    expect(putObject(ctx('ines'), org.calendar('ines'), object?.name ?? '', sent, seen)).toMatchObject({ ok: true });
    expect(moodOf(board('ines')[0])).toBe('merry');
  });

  test('is in the form, in what it sends, and in what may be put forward', async () => {
    const sent: unknown[] = [];
    vi.stubGlobal('fetch', async (_: string, { body }: { body: string }) => {
      sent.push(JSON.parse(body));
      return new Response(JSON.stringify({ item: null, undo: '' }));
    });
    const item = made().item;
    if (!item) throw new Error('nothing was made');
    const values = valuesOf({ kind: 'change', item }, 'Europe/Lisbon');
    expect(values).toMatchObject(day);
    expect(copyOf(item, 0, 1, 'Copy').values).toMatchObject(day);
    await sendNew('c', values, []);
    await sendChange('i', 1, 'one', values, new Set(['mood' as 'notes']), { list: null, tellAll: false });
    vi.unstubAllGlobals();
    expect(sent).toMatchObject([day, { fields: day }]);
    const forward = { kind: 'change', item: 'i', fields: day };
    expect(suggestionBody.parse(forward)).toMatchObject(forward);
  });
});
