import { SIGHTS, type Sight } from '../calendar/index.ts';
import type { CollectionKind, OtherItems, OtherKind } from '../collection/index.ts';
import { contactSights } from '../contacts/index.ts';
import { taskSights } from '../tasks/index.ts';
import type { Offered } from './rights.ts';

/** What differs between the kinds of collection: everything else of the rule holds for all of them. */
interface KindRule extends Offered {
  /** What becomes of a private item for whoever isn't let in: a block without words, or nothing at all. */
  readonly hides: 'withheld' | 'omitted';
  /** Whether its organiser and attendees see an item in full. A party to a message has a copy of their own. */
  readonly parties: boolean;
}

const WITHOUT_BUSY: readonly Sight[] = ['nothing', 'title', 'outline', 'full'];

export const collectionKinds = {
  calendar: { sights: SIGHTS, without: [], hides: 'withheld', parties: true },
  contacts: { sights: WITHOUT_BUSY, without: ['speaks', 'copies', 'absence'], hides: 'omitted', parties: true },
  tasks: { sights: WITHOUT_BUSY, without: ['speaks', 'copies', 'absence'], hides: 'omitted', parties: true },
  folder: { sights: WITHOUT_BUSY, without: ['copies', 'absence'], hides: 'omitted', parties: false },
} as const satisfies Record<CollectionKind, KindRule>;

/** On a calendar that isn't its owner's main one nobody receives copies of their meeting messages, or sets their away notice. */
const FURTHER_CALENDAR: Offered = { sights: SIGHTS, without: ['copies', 'absence'] };

/** What can be given on a collection of a kind; `main` is whether it is the calendar that carries its owner's name. */
export function offeredOn({ kind, main }: { readonly kind: CollectionKind; readonly main: boolean }): Offered {
  return kind === 'calendar' && !main ? FURTHER_CALENDAR : collectionKinds[kind];
}

type Policy<T> = { readonly [K in keyof T]: 'title' | 'outline' | 'full' };

/** From which sight on each field of an item is sent. A field without an entry doesn't compile. */
export const otherPolicies = {
  contacts: contactSights,
  tasks: taskSights,
  folder: {
    from: 'title',
    to: 'title',
    when: 'title',
    subject: 'title',
    firstLine: 'outline',
    attached: 'outline',
    text: 'full',
    attachments: 'full',
    categories: 'full',
    visibility: 'full',
    createdBy: 'full',
  },
} as const satisfies { readonly [K in OtherKind]: Policy<OtherItems<unknown>[K]> };
