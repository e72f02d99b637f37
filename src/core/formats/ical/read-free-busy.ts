import { parseBasicInstant } from '../../time/index.ts';
import { cutIntoBlocks } from './lines.ts';
import { insideOf } from './property.ts';
import { addressOf } from './unmodelled.ts';

/** A question when some people are free (RFC 5546 3.3.2): between two instants, epoch milliseconds. */
interface FreeBusyQuestion {
  readonly uid: string;
  readonly organiser: string;
  readonly attendees: readonly string[];
  readonly from: number;
  readonly to: number;
}

/** Reads the question out of a message; `null` for anything else, and where its times can't be read or are the wrong way round. */
export function readFreeBusyQuestion(text: string): FreeBusyQuestion | null {
  const { blocks, header, isCalendar } = cutIntoBlocks(text, 20);
  const [block, ...others] = blocks.filter((b) => b.name !== 'VTIMEZONE');
  if (!isCalendar || block?.name !== 'VFREEBUSY' || others.length > 0) return null;
  if (!header.some((line) => /^METHOD:REQUEST\s*$/i.test(line))) return null;
  const { properties } = insideOf(block.text);
  const said = (name: string) => properties.find((p) => p.name === name)?.value.trim() ?? '';
  const [from, to] = [parseBasicInstant(said('DTSTART')), parseBasicInstant(said('DTEND'))];
  if (from === null || to === null || to <= from) return null;
  const attendees = properties.filter((p) => p.name === 'ATTENDEE').map((p) => addressOf(p.value.trim()));
  return { uid: said('UID').slice(0, 200), organiser: addressOf(said('ORGANIZER')), attendees, from, to };
}
