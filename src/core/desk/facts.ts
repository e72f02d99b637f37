/** The kinds of rows, in the order that decides between rows that are equal in everything else. */
export const DESK_KINDS = [
  'answer',
  'refused',
  'proposal',
  'silent',
  'unset',
  'clash',
  'journey',
  'hold',
  'wish',
  'suggestion',
  'ask',
  'claim',
  'letter',
  'mail',
  'task',
  'grant',
  'open',
  'away',
] as const;
export type DeskKind = (typeof DESK_KINDS)[number];

/** Somebody on an item: whether it needs them, what they answered, since when they are asked (epoch milliseconds). */
export interface DeskAttendee {
  readonly who: string;
  readonly need: 'must' | 'may';
  /** A room or a thing, which answers for itself. */
  readonly thing: boolean;
  readonly answer: 'needs-action' | 'accepted' | 'tentative' | 'declined';
  readonly since: number;
  /** The start they would rather have. */
  readonly proposes: number | null;
  /** Somebody said that it takes place without them. */
  readonly without: boolean;
}

/**
 * An occurrence as the viewer sees it. What is withheld has neither UID, place, people nor set: it only takes time. Instants in epoch
 * milliseconds; all-day dates as milliseconds as if UTC, the end not included.
 */
export interface DeskItem {
  readonly id: string;
  readonly uid: string | null;
  readonly start: number;
  readonly end: number;
  readonly allDay: boolean;
  readonly shows: 'free' | 'reachable' | 'tentative' | 'busy' | 'away';
  readonly kind: string;
  readonly place: string | null;
  readonly link: string | null;
  readonly cancelled: boolean;
  /** Who calls it, by address; `null` where nobody is asked to it. */
  readonly calls: string | null;
  /** The principal's own answer, where it is an invitation to them. */
  readonly answer: DeskAttendee['answer'] | null;
  readonly answerBy: number | null;
  /** The set of holds it is a time of. */
  readonly set: string | null;
  readonly asked: readonly DeskAttendee[];
  readonly version: number;
}

/** A fact that somebody brought about at an instant. */
export interface DeskWord {
  readonly id: string;
  readonly at: number;
  readonly by: string;
  readonly version: number;
}

/** Everything rows are made of, for one principal: what the viewer sees and may decide. Instants in epoch milliseconds. */
export interface DeskFacts {
  readonly items: readonly DeskItem[];
  /** Minutes between two places, either way. */
  readonly travel: readonly (readonly [string, string, number])[];
  readonly sets: readonly { readonly id: string; readonly lapses: number | null; readonly version: number }[];
  /** Wishes that are held to, with the dates on which each is broken (milliseconds as if UTC). */
  readonly wishes: readonly { readonly id: string; readonly days: readonly number[]; readonly version: number }[];
  readonly suggestions: readonly (DeskWord & { readonly before: number | null; readonly after: number | null })[];
  readonly asks: readonly DeskWord[];
  readonly claims: readonly DeskWord[];
  readonly letters: readonly DeskWord[];
  readonly mails: readonly DeskWord[];
  readonly tasks: readonly {
    readonly id: string;
    /** An instant, or, as `date`, a day. */
    readonly due: { readonly instant: number } | { readonly date: number } | null;
    readonly done: boolean;
    readonly version: number;
  }[];
  readonly grants: readonly {
    readonly id: string;
    readonly given: number;
    readonly ends: number | null;
    readonly used: boolean;
    readonly version: number;
  }[];
  readonly findings: readonly { readonly id: string; readonly version: number }[];
  readonly absences: readonly {
    readonly id: string;
    readonly from: number;
    readonly until: number;
    readonly notice: boolean;
    readonly cover: boolean;
    readonly version: number;
  }[];
}

/** Somebody whose rows these are. */
export interface DeskPrincipal {
  readonly who: string;
  /** Their own address: by it one knows what they call, and that they themselves are asked. */
  readonly address: string;
  readonly zone: string;
  /** Wall-clock ranges for each weekday from Monday; `null` where they say none. */
  readonly hours: readonly (readonly (readonly [string, string])[])[] | null;
  /** How much each kind counts more or less for them. */
  readonly shifts: Readonly<Partial<Record<DeskKind, number>>>;
  /** Addresses of those who go first. */
  readonly first: readonly string[];
  /** Who acts for them, and which of those are away now. */
  readonly acts: readonly string[];
  readonly away: readonly string[];
  readonly facts: DeskFacts;
}

/** What somebody said of a row. `versions` are those of the facts that caused it, by id, as they were then. */
export interface DeskSaid {
  readonly key: string;
  readonly by: string;
  readonly at: number;
  readonly what: 'later' | 'left' | 'passed';
  readonly until: number | null;
  readonly versions: Readonly<Record<string, number>>;
  readonly to: string | null;
}
