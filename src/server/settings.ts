import { randomBytes } from 'node:crypto';
import { resolve } from 'node:path';
import { z } from 'zod';

/** The mail host of the sample organisation, whose word the stand-in gives. */
const STAND_IN_HOST = 'post.cloudmoor.example';

const schema = z.object({
  PARAMO_DATA: z.string().default('.data'),
  PARAMO_SECRET: z.string().min(32, 'must be at least 32 characters.').optional(),
  PARAMO_DEMO: z.enum(['0', '1']).default('0'),
  PARAMO_CLOCK: z.iso.datetime().optional(),
  PARAMO_ADDRESS: z.url().optional(),
  PARAMO_IMPORT_BYTES: z.coerce.number().int().min(1000).max(100_000_000).default(10_000_000),
  PARAMO_SMTP: z.url({ protocol: /^smtps?$/, error: 'must be smtp://… or smtps://…' }).optional(),
  PARAMO_INBOUND_SECRET: z.string().min(16, 'must be at least 16 characters.').optional(),
  PARAMO_MAIL_HOST: z.string().max(253).optional(),
  PARAMO_START_CODE: z.string().min(8, 'must be at least 8 characters.').max(64).optional(),
  PARAMO_PUBLIC_MAIL_HOSTS: z.string().max(10_000).default(''),
  PARAMO_MEETING_ROOMS: z
    .url({ protocol: /^https?$/, error: 'must be https://…, with {room} where a room is named' })
    .optional(),
  PARAMO_MAIL_FROM: z.string().default('Paramo <paramo@localhost>'),
  PORT: z.coerce.number().int().default(3000),
});

export interface Settings {
  readonly data: string;
  readonly secret: string;
  readonly demo: boolean;
  /** An instant the clock starts from, epoch milliseconds; only the demo accepts one. */
  readonly clock: number | null;
  readonly address: string;
  readonly port: number;
  readonly importBytes: number;
  /** The mail service letters go out by; `null` where none is set. */
  readonly smtp: string | null;
  readonly mailFrom: string;
  /** What mail that comes in is signed with; `null` where none is taken. */
  readonly inboundSecret: string | null;
  /** The mail host whose word on senders counts; `null` where nobody’s does. */
  readonly mailHost: string | null;
  /** The code the first start asks for, where the house sets one; `null` for one that is made up and printed. */
  readonly startCode: string | null;
  /** Domains where anybody has an address, in small letters, beside those of the list that ships. */
  readonly publicMailHosts: ReadonlySet<string>;
  /** Where rooms to meet in from afar are, `{room}` in the place of one’s name; `null` for the stand-in. */
  readonly meetingRooms: string | null;
}

const holder = globalThis as { paramoSettings?: Settings };

/** The settings of this process, read once from the environment. Throws a sentence where one is missing or wrong. */
export function settings(): Settings {
  holder.paramoSettings ??= read();
  return holder.paramoSettings;
}

function read(): Settings {
  const parsed = schema.safeParse(process.env);
  if (!parsed.success) throw new Error(parsed.error.issues.map((i) => `${i.path.join('.')}: ${i.message}`).join('\n'));
  const env = parsed.data;
  const demo = env.PARAMO_DEMO === '1';
  if (!env.PARAMO_SECRET && process.env.NODE_ENV === 'production')
    throw new Error(
      'Set PARAMO_SECRET to a secret of at least 32 characters; sessions and hidden ids are sealed with it.',
    );
  if (env.PARAMO_CLOCK && !demo) throw new Error('PARAMO_CLOCK is for the demo alone (PARAMO_DEMO=1).');
  // Threads beside this one, and its other bundles, have to seal with the same secret.
  process.env.PARAMO_SECRET = env.PARAMO_SECRET ?? randomBytes(32).toString('hex');
  return {
    data: resolve(env.PARAMO_DATA),
    secret: process.env.PARAMO_SECRET,
    demo,
    clock: env.PARAMO_CLOCK ? Date.parse(env.PARAMO_CLOCK) : null,
    address: env.PARAMO_ADDRESS ?? `http://localhost:${env.PORT}`,
    port: env.PORT,
    importBytes: env.PARAMO_IMPORT_BYTES,
    smtp: env.PARAMO_SMTP ?? null,
    mailFrom: env.PARAMO_MAIL_FROM,
    inboundSecret: env.PARAMO_INBOUND_SECRET ?? (demo ? randomBytes(24).toString('hex') : null),
    mailHost: env.PARAMO_MAIL_HOST ?? (demo ? STAND_IN_HOST : null),
    startCode: env.PARAMO_START_CODE ?? null,
    publicMailHosts: new Set(
      env.PARAMO_PUBLIC_MAIL_HOSTS.toLowerCase()
        .split(/[\s,]+/)
        .filter(Boolean),
    ),
    meetingRooms: env.PARAMO_MEETING_ROOMS ?? null,
  };
}
