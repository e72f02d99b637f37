import fc from 'fast-check';
import { afterAll, beforeAll, describe, expect, test } from 'vitest';
import { fitRights, NO_RIGHTS, offeredOn, PRESETS, type Rights } from '@/core/access/index.ts';
import { SIGHTS } from '@/core/calendar/index.ts';
import { readItem } from './deciding/access/find-item.ts';
import { readDesk } from './desk/index.ts';
import { readFrame } from './frame/read-frame.ts';
import { exportFile } from './items/export-file.ts';
import { listItems, listLoad } from './items/list-items.ts';
import { listNotices } from './messages/notices.ts';
import { listPeople } from './people/list-people.ts';
import { listReminders, readItemReminder } from './reminders/index.ts';
import { search } from './search/index.ts';
import { explainAccess, readItemSight } from './sharing/explain-access.ts';
import { readFindings } from './sharing/findings.ts';
import { giveAccess, takeAccess } from './sharing/give-access.ts';
import { previewAccess } from './sharing/preview-access.ts';
import { listSightlines, readHistory } from './sharing/sightlines.ts';
import { at, type SmallOrganisation, smallOrganisation, WEEK } from './small-organisation.ts';

/* Every text of every item carries a marker; what a viewer may not see must be in no byte of any answer. */
const MARKS = ['title', 'place', 'notes', 'link', 'category', 'briefing', 'attendee'] as const;
type Mark = (typeof MARKS)[number];
const mark = (item: string, field: Mark) => `zq${item}${field}qz`;

const FIELDS_AT: Record<string, readonly Mark[]> = {
  nothing: [],
  busy: [],
  title: ['title'],
  outline: ['title', 'place'],
  full: ['title', 'place', 'notes', 'link', 'category', 'attendee'],
};

let org: SmallOrganisation;
const items = ['follow', 'open', 'outline', 'private'] as const;

beforeAll(() => {
  org = smallOrganisation();
  // Over all of them, so that each clashes with something.
  org.add('ines', 'ines', { when: at('2027-03-03', 9, 4), title: 'Over all of it' });
  for (const [i, visibility] of items.entries())
    org.add(
      'ines',
      'ines',
      {
        when: at('2027-03-03', 9 + i),
        title: mark(visibility, 'title'),
        place: mark(visibility, 'place'),
        notes: mark(visibility, 'notes'),
        link: `https://${mark(visibility, 'link')}.example/`,
        categories: [mark(visibility, 'category')],
        briefing: mark(visibility, 'briefing'),
        visibility,
      },
      { attendees: [{ name: null, address: `${mark(visibility, 'attendee')}@river.example`, answer: 'accepted' }] },
    );
});
afterAll(() => org.close());

/** Everything the server says to a person about a calendar, in one text. */
function everythingSaidTo(handle: string): string {
  const ctx = org.ctx(handle);
  const key = org.calendar('ines');
  const listed = listItems(ctx, key, WEEK);
  const ids = listed.ok ? listed.value.items.map((i) => i.id) : [];
  const answers: unknown[] = [
    listed,
    listLoad(ctx, key, WEEK),
    listPeople(ctx),
    readFrame(ctx),
    readDesk(ctx, 'all'),
    listSightlines(ctx, key),
    exportFile(ctx, key),
    previewAccess(ctx, key, { audience: { kind: 'everyone' }, rights: PRESETS.full, seen: null, range: WEEK }),
    readHistory(ctx, key),
    readFindings(ctx, key),
    listItems(ctx, key, { ...WEEK, as: 'everyone' }),
    listItems(ctx, key, { ...WEEK, as: 'person:wren' }),
    listNotices(ctx),
    listReminders(ctx),
    ...MARKS.flatMap((field) => items.map((item) => search(ctx, { words: mark(item, field), everywhere: '1' }))),
    search(ctx, { words: 'zq', everywhere: '1' }),
    ...ids.map((id) => readItemReminder(ctx, id)),
    ...ids.map((item) => explainAccess(ctx, key, { audience: { kind: 'person', id: 'wren' }, item, at: null })),
    ...ids.map((id) => readItemSight(ctx, id)),
    ...ids.map((id) => readItem(ctx, id)),
  ];
  return JSON.stringify(answers);
}

function setRights(rights: Rights | null): void {
  const ctx = org.ctx('ines');
  const key = org.calendar('ines');
  const audience = { kind: 'person', id: 'amara' } as const;
  const lines = listSightlines(ctx, key);
  const row = lines.ok
    ? lines.value.rows.find((r) => JSON.stringify(r.audience) === JSON.stringify(audience))
    : undefined;
  const result = rights
    ? giveAccess(ctx, key, { audience, rights, seen: row?.grants[0]?.key ?? null })
    : row
      ? takeAccess(ctx, key, { audience, seen: row.grants[0]?.key ?? '' })
      : { ok: true };
  if (!result.ok) throw new Error(JSON.stringify(result));
}

/** The markers a viewer with these rights may meet, worked out from the page of the rule, not from the program. */
function allowed(r: Rights): string[] {
  if (r.sight === 'nothing') return [];
  const briefed = r.change === 'all' && r.speaks;
  const fields = (sight: string, item: string) => [
    ...(FIELDS_AT[sight] ?? []).map((f) => mark(item, f)),
    ...(sight === 'full' && briefed ? [mark(item, 'briefing')] : []),
  ];
  const cut = r.change === 'all' ? 'full' : SIGHTS.indexOf(r.sight) > SIGHTS.indexOf('outline') ? 'outline' : r.sight;
  return [
    ...fields(r.sight, 'follow'),
    ...fields('full', 'open'),
    ...fields(cut, 'outline'),
    ...(r.private ? fields(r.sight, 'private') : []),
  ];
}

const rights = fc
  .record({
    sight: fc.constantFrom(...SIGHTS),
    add: fc.boolean(),
    change: fc.constantFrom('none' as const, 'own' as const, 'all' as const),
    remove: fc.constantFrom('none' as const, 'own' as const, 'all' as const),
    suggest: fc.boolean(),
    private: fc.boolean(),
    speaks: fc.boolean(),
    copies: fc.boolean(),
    shares: fc.constant(false),
    absence: fc.boolean(),
  })
  .map((r) => fitRights(r, offeredOn({ kind: 'calendar', main: true })).rights);

describe('no byte of what is hidden', () => {
  test('under any rights, every answer holds the markers that may be seen and no other', () => {
    fc.assert(
      fc.property(rights, (r) => {
        setRights(r);
        const said = everythingSaidTo('amara');
        const may = new Set(allowed(r));
        for (const item of items)
          for (const field of MARKS) {
            const m = mark(item, field);
            expect([m, said.includes(m)]).toEqual([m, may.has(m)]);
          }
      }),
      { numRuns: 120 },
    );
  });

  test('taken away is back to what everyone gets, at once', () => {
    setRights(PRESETS.full);
    expect(everythingSaidTo('amara')).toContain(mark('follow', 'notes'));
    setRights(null);
    const said = everythingSaidTo('amara');
    for (const field of MARKS) expect(said).not.toContain(mark('follow', field));
    // `open` speaks to all who may look, everyone's free/busy included.
    expect(said).toContain(mark('open', 'title'));
  });

  test('a calendar one may not see and one that does not exist answer alike', () => {
    setRights(NO_RIGHTS);
    const ctx = org.ctx('amara');
    const hidden = listItems(ctx, org.calendar('ines'), WEEK);
    const missing = listItems(ctx, 'Zm9vYmFyYmF6cXV4eHl6', WEEK);
    expect(hidden).toEqual(missing);
    expect(listSightlines(ctx, org.calendar('ines'))).toEqual(missing);
    expect(exportFile(ctx, org.calendar('ines'))).toEqual(missing);
  });

  test('an item’s id guessed or remembered answers like none', () => {
    setRights(PRESETS.full);
    const listed = listItems(org.ctx('amara'), org.calendar('ines'), WEEK);
    const id = listed.ok ? (listed.value.items.find((i) => i.title === mark('follow', 'title'))?.id ?? '') : '';
    expect(readItem(org.ctx('amara'), id).ok).toBe(true);
    for (const less of [PRESETS.outline, PRESETS.titles, PRESETS.freeBusy, NO_RIGHTS]) {
      setRights(less);
      expect(readItem(org.ctx('amara'), id)).toEqual(readItem(org.ctx('amara'), 'Zm9vYmFyYmF6cXV4eHl6'));
    }
  });
});

describe('opaque ids', () => {
  test('differ from viewer to viewer and from occurrence to occurrence, and lead nowhere', () => {
    setRights(PRESETS.outline);
    org.add('ines', 'ines', {
      title: 'Every day',
      when: at('2027-03-01', 17),
      repeat: { rule: 'FREQ=DAILY;COUNT=5' },
    });
    const ids = (handle: string) => {
      const listed = listItems(org.ctx(handle), org.calendar('ines'), WEEK);
      return listed.ok ? listed.value.items.filter((i) => i.start.endsWith('T17:00:00Z')).map((i) => i.id) : [];
    };
    const [amara, wren] = [ids('amara'), ids('wren')];
    expect(amara).toHaveLength(5);
    expect(new Set([...amara, ...wren]).size).toBe(10);
    expect(ids('amara')).toEqual(amara);
    const listed = listItems(org.ctx('ines'), org.calendar('ines'), WEEK);
    const key = listed.ok ? (listed.value.items.find((i) => i.title === 'Every day')?.id.split('~')[0] ?? '') : '';
    for (const id of [...amara, ...wren]) {
      expect(id).not.toContain(key);
      expect(readItem(org.ctx('amara'), id).ok).toBe(false);
    }
  });
});
