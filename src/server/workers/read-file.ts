import { type ReadItem, type ReadProblem, type ReadRemark, readCalendar } from '@/core/formats/index.ts';

/** What reading a file in a worker answers; plain data, so that it can be posted. */
export type WorkerAnswer =
  | { readonly kind: 'refused'; readonly code: 'notACalendar' | 'wrongEncoding' | 'tooManyItems' | 'fileTookTooLong' }
  | {
      readonly kind: 'read';
      readonly items: readonly ReadItem[];
      readonly problems: readonly { code: string; line: number; title: string | null; fact: string | null }[];
      readonly remarks: readonly ReadRemark[];
      readonly ended: boolean;
    };

export interface WorkerJob {
  readonly bytes: Uint8Array;
  readonly zone: string;
  readonly now: number;
  readonly most: number;
}

/** Decodes and reads a calendar file. Text that isn't UTF-8 (or UTF-16 with its mark) is refused, never guessed. */
export function readFile(job: WorkerJob): WorkerAnswer {
  const text = decode(job.bytes);
  if (text === null) return { kind: 'refused', code: 'wrongEncoding' };
  const zones = Intl.supportedValuesOf('timeZone');
  const read = readCalendar(text, {
    zone: job.zone,
    candidates: [job.zone, ...COMMON, ...zones],
    now: job.now,
    most: job.most,
  });
  if (read.kind === 'notACalendar') return { kind: 'refused', code: 'notACalendar' };
  if (read.kind === 'tooMany') return { kind: 'refused', code: 'tooManyItems' };
  const problems: ReadProblem[] = [...read.problems];
  return { kind: 'read', items: read.items, problems, remarks: read.remarks, ended: read.ended };
}

/** Zones with most people on their offsets, so that a nameless definition is matched to the likeliest. */
const COMMON = [
  'Europe/London',
  'Europe/Berlin',
  'Europe/Athens',
  'America/New_York',
  'America/Chicago',
  'America/Denver',
  'America/Los_Angeles',
  'America/Sao_Paulo',
  'Asia/Kolkata',
  'Asia/Shanghai',
  'Asia/Tokyo',
  'Australia/Sydney',
];

function decode(bytes: Uint8Array): string | null {
  const [a, b] = bytes;
  const encoding = a === 0xff && b === 0xfe ? 'utf-16le' : a === 0xfe && b === 0xff ? 'utf-16be' : 'utf-8';
  try {
    const text = new TextDecoder(encoding, { fatal: true }).decode(bytes);
    return text.includes('\u0000') ? null : text;
  } catch {
    return null;
  }
}
