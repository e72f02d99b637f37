import fc from 'fast-check';
import { describe, expect, test } from 'vitest';
import type { OtherItems } from '../collection/index.ts';
import { decide, mayItem, projectOther } from './index.ts';

import { anyWorld, oracle, rights, SIGHT, standing } from './second-reading.ts';

describe('collections of other kinds and a second reading of them', () => {
  const common = {
    visibility: fc.constantFrom('follow', 'open', 'outline', 'private'),
    createdBy: fc.constant('C'),
  } as const;
  const contact = fc.record({
    name: fc.constant('Marta'),
    role: fc.constant('auditor'),
    organisation: fc.constant(null),
    place: fc.constant('Faro'),
    addresses: fc.constant([{ value: 'm@quill.example', as: 'work' as const }]),
    phones: fc.constant([]),
    link: fc.constant(null),
    notes: fc.constant('N'),
    categories: fc.constant([]),
    ...common,
  });
  const task = fc.record({
    title: fc.constant('Sign'),
    due: fc.constant('2027-03-04'),
    done: fc.boolean(),
    belongsTo: fc.constant('Audit'),
    notes: fc.constant(null),
    link: fc.constant(null),
    categories: fc.constant([]),
    importance: fc.constant('high' as const),
    repeats: fc.constant(null),
    ...common,
  });
  const message = fc.record({
    from: fc.constant('m@quill.example'),
    to: fc.constant(['ines@cloudmoor.example']),
    when: fc.constant('2027-03-01T09:00:00Z'),
    subject: fc.constant('Draft'),
    firstLine: fc.constant('Here it is'),
    attached: fc.boolean(),
    text: fc.constant('Here it is. All of it.'),
    attachments: fc.constant(['draft.pdf']),
    categories: fc.constant([]),
    ...common,
  });
  const LADDER: Record<string, { title: string[]; outline: string[]; full: string[] }> = {
    contacts: {
      title: ['name'],
      outline: ['role', 'organisation', 'place'],
      full: ['addresses', 'phones', 'link', 'notes', 'categories'],
    },
    tasks: {
      title: ['title', 'due', 'done'],
      outline: ['belongsTo'],
      full: ['notes', 'link', 'categories', 'importance', 'repeats'],
    },
    folder: {
      title: ['from', 'to', 'when', 'subject'],
      outline: ['firstLine', 'attached'],
      full: ['text', 'attachments', 'categories'],
    },
  };

  test('show alike: the fields of a sight and of those below it; what is private is nowhere', () => {
    const any = fc.oneof(
      fc.record({ kind: fc.constant('contacts' as const), item: contact }),
      fc.record({ kind: fc.constant('tasks' as const), item: task }),
      fc.record({ kind: fc.constant('folder' as const), item: message }),
    );
    const met = new Set<string>();
    fc.assert(
      fc.property(any, anyWorld, rights, standing, ({ kind, item: it }, [c0, v, at, h], given, s) => {
        // Whoever is called Ada is given something by name, so that every sight is met often.
        const named0 = {
          key: 'ada',
          audience: { kind: 'person' as const, id: 'ada' },
          rights: given,
          from: null,
          until: null,
        };
        const c = { ...c0, kind, grants: [named0, ...c0.grants] };
        const { r, ceiling, owner } = oracle(c, v, at, h);
        const d = decide(c, v, at, h);
        const named = s.named && kind !== 'folder';
        let seen = r.sight === 'nothing' ? 0 : SIGHT.indexOf(r.sight);
        if (seen > 0) {
          if (owner || named || (s.created && r.change !== 'none')) seen = 4;
          else if (it.visibility === 'open') seen = ceiling;
          else if (it.visibility === 'outline') seen = r.change === 'all' ? 4 : Math.min(seen, 3);
          else if (it.visibility === 'private' && !r.private) seen = 0;
        }
        const ladder = LADDER[kind] as (typeof LADDER)[string];
        const want = [
          ...(seen > 1 ? ladder.title : []),
          ...(seen > 2 ? ladder.outline : []),
          ...(seen > 3 ? [...ladder.full, 'visibility', 'createdBy'] : []),
        ].sort();
        const view = projectOther(kind, it as OtherItems<string>[typeof kind], s, d);
        expect(view === null ? [] : Object.keys(view).sort()).toEqual(want);
        met.add(`${kind} ${seen}`);
        const facts = { shows: 'busy', visibility: it.visibility, cancelled: false, ownerAnswer: null } as const;
        const can = mayItem(facts, s, d);
        expect(can.answer).toBe(false);
        if (seen === 0 && r.sight !== 'nothing')
          expect(can).toEqual({ change: false, remove: false, suggest: false, answer: false });
      }),
      { numRuns: 6000 },
    );
    for (const kind of ['contacts', 'tasks', 'folder'])
      for (const n of [0, 2, 3, 4]) expect(met).toContain(`${kind} ${n}`);
  });
});
