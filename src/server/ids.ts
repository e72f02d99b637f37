import {
  createCipheriv,
  createDecipheriv,
  createHmac,
  hash,
  hkdfSync,
  randomBytes,
  timingSafeEqual,
} from 'node:crypto';
import { settings } from './settings.ts';

/** A new random id of 128 bits, for use outside. It begins with no dash: on a command line that would be an option. */
export function newKey(): string {
  for (;;) {
    const key = randomBytes(16).toString('base64url');
    if (!key.startsWith('-')) return key;
  }
}

let sealing: Buffer | null = null;
/** One cipher for all that is sealed: in this mode each block stands for itself, so it never comes to an end. */
let sealer: ReturnType<typeof createCipheriv> | null = null;
const sealingKey = (): Buffer => {
  sealing ??= Buffer.from(hkdfSync('sha256', settings().secret, '', 'paramo opaque ids', 16));
  return sealing;
};

/** One occurrence of an item as one viewer is told of it. `viewer` and `item` are row numbers, `start` epoch milliseconds. */
export interface Sealed {
  readonly viewer: number;
  readonly item: number;
  readonly start: number;
}

/**
 * Opaque ids for occurrences: one AES block each under the server's key, so that they differ from viewer to viewer and
 * from occurrence to occurrence, say nothing, and can't be turned back without the key. One cipher call for the list.
 */
export function sealIds(list: readonly Sealed[]): string[] {
  if (list.length === 0) return [];
  const plain = Buffer.alloc(list.length * 16);
  list.forEach((s, i) => {
    plain.writeUInt32BE(s.viewer, i * 16);
    plain.writeUIntBE(s.item, i * 16 + 4, 6);
    // Seconds, moved so that years before 1970 stay positive.
    plain.writeUIntBE(Math.floor(s.start / 1000) + 2 ** 39, i * 16 + 10, 6);
  });
  sealer ??= createCipheriv('aes-128-ecb', sealingKey(), null).setAutoPadding(false);
  const sealed = sealer.update(plain).toString('latin1');
  return list.map((_, i) => Buffer.from(sealed.slice(i * 16, i * 16 + 16), 'latin1').toString('base64url'));
}

/** The id under which a full view names an occurrence; `start` in epoch milliseconds, `null` for an item that doesn't repeat. */
export const occurrenceId = (key: string, start: number | null): string =>
  start === null ? key : `${key}~${Math.floor(start / 1000).toString(36)}`;

/** What a sealed id names; `null` for any text that has not their form. Whose id it is, is for the caller to check. */
export function openSealed(id: string): Sealed | null {
  const bytes = Buffer.from(id, 'base64url');
  if (bytes.length !== 16) return null;
  const decipher = createDecipheriv('aes-128-ecb', sealingKey(), null).setAutoPadding(false);
  const plain = Buffer.concat([decipher.update(bytes), decipher.final()]);
  return {
    viewer: plain.readUInt32BE(0),
    item: plain.readUIntBE(4, 6),
    start: (plain.readUIntBE(10, 6) - 2 ** 39) * 1000,
  };
}

let linking: Buffer | null = null;
const linkingKey = (): Buffer => {
  linking ??= Buffer.from(hkdfSync('sha256', settings().secret, '', 'paramo links', 32));
  return linking;
};
const proofOf = (key: string): Buffer => createHmac('sha256', linkingKey()).update(key).digest().subarray(0, 16);

const secretOf = (what: string, key: string): string => `${key}.${proofOf(what + key).toString('base64url')}`;
function keyOf(what: string, secret: string): string | null {
  const [key = '', proof = '', ...rest] = secret.split('.');
  const given = Buffer.from(proof, 'base64url');
  const right = proofOf(what + key);
  return rest.length === 0 && given.length === right.length && timingSafeEqual(given, right) ? key : null;
}

/** The secret of an offer's page, and the key of the offer whose secret this is: none of them is a link's. */
export const offerSecret = (key: string): string => secretOf('offer ', key);
export const offerKeyOf = (secret: string): string | null => keyOf('offer ', secret);

let desking: string | null = null;

/** The id by which a row of the Desk is known outside: the same for everybody who has it, and it tells nothing of what causes it. */
export function deskKey(cause: string): string {
  desking ??= Buffer.from(hkdfSync('sha256', settings().secret, '', 'paramo desk rows', 32)).toString('hex');
  // Only the first half of the digest is given out, so that nobody can extend it into the digest of a longer text.
  return hash('sha256', `${desking} ${cause}`, 'base64url').slice(0, 22);
}

/** The secret of a link, as it stands in its address: the link's key with 128 bits that only the server's key makes. */
export const linkSecret = (key: string): string => secretOf('', key);

/** The key of the link whose secret this is; `null` for anything else. The secret is compared in constant time. */
export const linkKeyOf = (secret: string): string | null => keyOf('', secret);

let tasking: Buffer | null = null;

/** The id under which somebody is told of a task or a contact they see below full: another for everybody, and it leads to nothing but removing what they made. */
export function bareIdFor(viewer: number, key: string): string {
  tasking ??= Buffer.from(hkdfSync('sha256', settings().secret, '', 'paramo tasks', 32));
  return createHmac('sha256', tasking).update(`${viewer} ${key}`).digest('base64url').slice(0, 22);
}
