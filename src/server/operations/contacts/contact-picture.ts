import type { ContactWrittenAnswer } from '@/contract/contacts.ts';
import { type CardPicture, type PictureType, pictureIn, withPicture } from '@/core/formats/index.ts';
import { ok, type Result, refuse } from '../../result.ts';
import { type Context, findContact, isRefusal } from '../deciding/index.ts';
import { changeContact } from './change-contact.ts';

/** Bytes of a picture: written into its card it still fits into what a program may put back. */
const MOST_BYTES = 150_000;

/** What a file is by how it begins, whatever it is said to be. */
function typeOf(bytes: Uint8Array): PictureType | null {
  const begins = (...with_: readonly number[]) => with_.every((byte, i) => bytes[i] === byte);
  if (begins(0xff, 0xd8, 0xff)) return 'image/jpeg';
  if (begins(0x89, 0x50, 0x4e, 0x47, 0x0d, 0x0a, 0x1a, 0x0a)) return 'image/png';
  if (begins(0x47, 0x49, 0x46, 0x38)) return 'image/gif';
  const inRiff = begins(0x52, 0x49, 0x46, 0x46) && String.fromCharCode(...bytes.subarray(8, 12)) === 'WEBP';
  return inRiff ? 'image/webp' : null;
}

/** The picture of a contact that the viewer sees in full, as a file to be shown; what only says that it is one is none. */
export function readContactPicture(
  ctx: Context,
  key: string,
): Result<{ name: string; bytes: number; type: string; body: ReadableStream }> {
  const found = findContact(ctx, key);
  if (isRefusal(found)) return found;
  const picture = pictureIn(found.contact.kept, found.contact.cardVersion);
  const bytes = picture && new Uint8Array(Buffer.from(picture.data, 'base64'));
  const type = bytes && typeOf(bytes);
  if (!bytes || !type) return refuse('notFound');
  const body = new Blob([bytes]).stream();
  return ok({ name: type.replace('image/', 'picture.'), bytes: bytes.length, type, body });
}

/** Puts a picture into a contact's card in place of the one there was; `null` takes it out. */
export function setContactPicture(
  ctx: Context,
  key: string,
  version: number,
  bytes: Uint8Array | null,
): Result<ContactWrittenAnswer> {
  const picture = bytes && asPicture(bytes);
  if (picture && 'ok' in picture) return picture;
  return ctx.db.write(() => {
    const found = findContact(ctx, key);
    if (isRefusal(found)) return found;
    const { cardVersion, kept } = found.contact;
    return changeContact(
      ctx,
      key,
      { version, fields: {} },
      { cardVersion, kept: withPicture(kept, cardVersion, picture) },
    );
  });
}

function asPicture(bytes: Uint8Array): CardPicture | ReturnType<typeof refuse> {
  if (bytes.length > MOST_BYTES)
    return refuse('badInput', { fields: { picture: `pictureTooLarge:${MOST_BYTES / 1000}` } });
  const type = typeOf(bytes);
  return type
    ? { type, data: Buffer.from(bytes).toString('base64') }
    : refuse('badInput', { fields: { picture: 'noPicture' } });
}
