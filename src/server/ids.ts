import { createCipheriv, hkdfSync, randomBytes } from 'node:crypto';
import { settings } from './settings.ts';

/** A new random id of 128 bits, for use outside. */
export function newKey(): string {
  return randomBytes(16).toString('base64url');
}

let sealing: Buffer | null = null;
const sealingKey = (): Buffer => {
  sealing ??= Buffer.from(hkdfSync('sha256', settings().secret, '', 'paramo opaque ids', 16));
  return sealing;
};

/** One happening of an item as one viewer is told of it. `viewer` and `item` are row numbers, `start` epoch milliseconds. */
export interface Sealed {
  readonly viewer: number;
  readonly item: number;
  readonly start: number;
}

/**
 * Opaque ids for happenings: one AES block each under the server's key, so that they differ from viewer to viewer and
 * from happening to happening, say nothing, and can't be turned back without the key. One cipher call for the list.
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
  const cipher = createCipheriv('aes-128-ecb', sealingKey(), null).setAutoPadding(false);
  const sealed = Buffer.concat([cipher.update(plain), cipher.final()]).toString('latin1');
  return list.map((_, i) => Buffer.from(sealed.slice(i * 16, i * 16 + 16), 'latin1').toString('base64url'));
}
