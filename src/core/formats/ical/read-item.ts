import type { Attendee, FiledField, Party, WrittenFields } from '../../calendar/index.ts';
import type { Length, RuleProblem } from '../../recurrence/index.ts';
import type { UnmodelledLine } from './unmodelled.ts';
import type { FileZone } from './zones.ts';

/** One VEVENT, read. Wall times are texts in `zone`, instants epoch milliseconds (day starts as if UTC where all day). */
export interface ReadItem extends Pick<WrittenFields, FiledField> {
  readonly uid: string;
  /** Wall-clock text of the occurrence this one replaces, in the series' zone where the file has the series, else in its own. */
  readonly recurrence: string | null;
  /** It stands for all later occurrences too (RFC 5545 3.2.13); only inside the reader. */
  readonly andLater?: true;
  /** The zone whose clock `recurrence` is on. */
  readonly recurrenceZone: string;
  readonly start: string;
  readonly end: string;
  readonly allDay: boolean;
  readonly zone: string;
  /** The named zone on whose clock `end` is, where that is another. */
  readonly endZone: string | null;
  readonly startAt: number;
  readonly endAt: number;
  readonly length: Length;
  /** The rule in its normal form. */
  readonly rule: string | null;
  readonly added: readonly string[];
  readonly left: readonly string[];
  /** Whether who may see it is said by a property of our own. */
  readonly saysWho?: true;
  readonly cancelled: boolean;
  readonly organiser: Party | null;
  readonly attendees: readonly Attendee[];
  /** The addresses of those attendees to whom no message may be sent (RFC 6638 7.1). */
  readonly unasked: readonly string[];
  readonly kept: readonly UnmodelledLine[];
  readonly sequence: number;
  /** When this revision was made, by its DTSTAMP or LAST-MODIFIED; 0 where the file doesn't say. */
  readonly stamp: number;
  readonly line: number;
}

/** Something in a file that couldn't be taken as it stands: a closed code, the line, and the facts a sentence needs. */
export interface ReadProblem {
  readonly code:
    | 'noStart'
    | 'badStart'
    | 'badEnd'
    | 'endBeforeStart'
    | 'unknownZone'
    | 'unreadable'
    | 'unended'
    | 'twice'
    | 'tooLong'
    | 'otherKind'
    | 'manyRules'
    | 'outOfBounds'
    | 'tooManyDates'
    | 'thisAndFuture'
    | RuleProblem;
  readonly line: number;
  readonly title: string | null;
  readonly fact: string | null;
}

/** What was understood differently than a reader might expect, said in the preview. */
export interface ReadRemark {
  readonly code:
    | 'zoneByOffsets'
    | 'zoneByDefinition'
    | 'endZone'
    | 'floating'
    | 'truncatedText'
    | 'noUid'
    | 'olderRevision'
    | 'notKept'
    | 'manyPeople';
  readonly fact: string;
  readonly count: number;
}

export type ReadFile =
  | { readonly kind: 'notACalendar' }
  | { readonly kind: 'tooMany'; readonly what: 'items' | 'zones' | 'lines'; readonly most: number }
  | {
      readonly kind: 'read';
      readonly items: readonly ReadItem[];
      readonly zones: readonly FileZone[];
      readonly problems: readonly ReadProblem[];
      readonly remarks: readonly ReadRemark[];
      readonly ended: boolean;
    };

export interface ReadOptions {
  /** The calendar's own zone, in which floating times are read. */
  readonly zone: string;
  /** Zones a VTIMEZONE without a known name may be matched to, the likeliest first. */
  readonly candidates: readonly string[];
  readonly most: number;
  /** Zones that the text may define itself. */
  readonly mostZones: number;
  /** Content lines that one component may have. */
  readonly mostLines: number;
  /** Names a zone definition by its text: `~` and a digest, so that a name never means two things. */
  readonly nameZone: (text: string) => string;
  /** A series of which an item stands for all later occurrences is read as two; otherwise such an item is a problem. */
  readonly splits?: boolean;
}
