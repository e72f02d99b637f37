import type { Sight } from '../calendar/index.ts';

/** What somebody is to the owner of a calendar, as far as it can be told. */
export const KINS = [
  'tiedAccount',
  'ownAccount',
  'frontDesk',
  'assistant',
  'boss',
  'close',
  'colleague',
  'client',
  'stranger',
] as const;
export type Kin = (typeof KINS)[number];

/** A level that can be suggested: a sight, or arranging for who runs the calendar. Nothing that acts in a name or passes access on. */
export type Least = 'freeBusy' | 'titles' | 'outline' | 'full' | 'arranger';
/** From the least to the most. */
export const LADDER: readonly Least[] = ['freeBusy', 'titles', 'outline', 'full', 'arranger'];

/** What is known of somebody who is chosen: by the directory, and by the owner's meetings as whoever gives sees them. */
export interface Known {
  readonly outside: boolean;
  /** A desk that several people answer at. */
  readonly desk: boolean;
  /** What the directory says they do. */
  readonly role: string;
  /** Whether the account was proved to be the owner's own. */
  readonly tied: boolean;
  /** Whether they are called what the owner is called. */
  readonly namesake: boolean;
  /** Whether the owner arranges things in their calendar. */
  readonly runsTheirs: boolean;
  /** How many of the owner's meetings of two months back and two ahead they are on. */
  readonly meets: number;
}

/** Meetings within those months from which on somebody inside is close, and somebody outside is worked with. */
const CLOSE = 6;
const WORKED_WITH = 2;

/** Who runs another's days is called so in the languages the product knows names of: folded, any ending. */
const ASSISTS = /\b(assist|asist|secretar|sekret|assistent|adjoint|office manager)/;

const folded = (text: string): string =>
  text
    .normalize('NFKD')
    .replace(/[\u0300-\u036f]/g, '')
    .toLowerCase();

/** What somebody is to the owner; the first that fits of what is surest. */
export function kinOf(known: Known): Kin {
  if (known.tied) return 'tiedAccount';
  if (known.namesake) return 'ownAccount';
  if (known.desk) return 'frontDesk';
  if (known.runsTheirs) return 'boss';
  if (known.outside) return known.meets >= WORKED_WITH ? 'client' : 'stranger';
  if (ASSISTS.test(folded(known.role))) return 'assistant';
  return known.meets >= CLOSE ? 'close' : 'colleague';
}

/** The least that serves each. */
const SERVES: Readonly<Record<Kin, Least>> = {
  tiedAccount: 'full',
  ownAccount: 'full',
  frontDesk: 'outline',
  assistant: 'arranger',
  boss: 'full',
  close: 'outline',
  colleague: 'freeBusy',
  client: 'freeBusy',
  stranger: 'freeBusy',
};

/**
 * The least that serves somebody: what serves such people, or less where the giver gives such people less elsewhere (`elsewhere`, most often);
 * never more than the one or the other. Below what everyone inside gets (`everyone`) nothing is suggested to somebody inside: it would take
 * from them.
 */
export function leastFor(
  known: Known,
  everyone: Sight,
  elsewhere: Least | null,
): { readonly kin: Kin; readonly level: Least } {
  const kin = kinOf(known);
  const serves = SERVES[kin];
  const low = elsewhere !== null && LADDER.indexOf(elsewhere) < LADDER.indexOf(serves) ? elsewhere : serves;
  const floor: Least = known.outside
    ? 'freeBusy'
    : ({ nothing: 'freeBusy', busy: 'freeBusy', title: 'titles', outline: 'outline', full: 'full' } as const)[everyone];
  return { kin, level: LADDER.indexOf(low) < LADDER.indexOf(floor) ? floor : low };
}
