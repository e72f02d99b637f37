import { afterEach, beforeEach } from 'vitest';
import { giveBody } from '@/contract/sharing/sharing.ts';
import { PRESETS, type Rights } from '@/core/access/index.ts';
import type { ReadyLetter } from '../../mail/post.ts';
import { personByAddress } from '../../repositories/people.ts';
import { sendLetters } from '../messages/send-letters.ts';
import { changeDomains } from '../people/domains.ts';
import { at, type SmallOrganisation, START, smallOrganisation } from '../small-organisation.ts';
import { giveAccess } from './give-access.ts';
import { listSightlines } from './sightlines.ts';

/** For tests: a small organisation, with an item in Ines's calendar, and Marta, who is outside it. */
export let org: SmallOrganisation;
/** The key of that item. */
export let item: string;
/** Makes it anew before each test of the file that calls this. */
export function eachOutsideDay(): void {
  beforeEach(() => {
    org = smallOrganisation();
    changeDomains(org.ctx('ines'), { domains: ['cloudmoor.example'] });
    item = org.add('ines', 'ines', {
      title: 'Open talk',
      place: 'Marsh Lab',
      notes: 'secret',
      when: at('2027-03-03', 9),
    }).id;
  });
  afterEach(() => org.close());
}

export const MARTA = 'marta@quill-audit.example';
export const marta = { kind: 'address', address: MARTA, name: 'Marta Quill' } as const;
export const busy: Rights = PRESETS.freeBusy;
export const give = (more: object, by = 'ines', when = START) =>
  giveAccess(
    org.ctx(by, when),
    org.calendar('ines'),
    giveBody.parse({ audience: marta, rights: busy, seen: null, ...more }),
  );
export const rowsNow = (by = 'ines', when = START) => {
  const lines = listSightlines(org.ctx(by, when), org.calendar('ines'));
  return lines.ok ? lines.value.rows : [];
};
export const martaCtx = (when = START) => {
  const viewer = personByAddress(org.db, MARTA);
  if (!viewer) throw new Error('nobody');
  return { db: org.db, now: when, viewer };
};
export const letters = async (post: ((letter: ReadyLetter) => Promise<void>) | null, when = START) => {
  const sent: ReadyLetter[] = [];
  await sendLetters(org.db, when, post && (async (letter) => void sent.push(letter)));
  return sent;
};
