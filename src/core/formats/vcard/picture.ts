import type { CardVersion } from '../../contacts/index.ts';
import type { UnmodelledLine } from '../ical/unmodelled.ts';
import { cardLine, lineOf } from './lines.ts';
import { inVersion } from './versions.ts';

/** The kinds of picture that are shown and taken. */
const PICTURE_TYPES = ['image/jpeg', 'image/png', 'image/gif', 'image/webp'] as const;
export type PictureType = (typeof PICTURE_TYPES)[number];

/** A picture of somebody: its kind as its card says it, and its bytes in base64. */
export interface CardPicture {
  readonly type: PictureType;
  readonly data: string;
}

const isPicture = (text: string): boolean => cardLine(text)?.name === 'PHOTO';

/** The picture in the lines of a card (RFC 6350 6.2.4, RFC 2426 3.1.4); `null` where none is in the card itself: what is only named by an address isn't fetched. */
export function pictureIn(lines: readonly UnmodelledLine[], version: CardVersion): CardPicture | null {
  for (const { line } of lines) {
    if (!isPicture(line)) continue;
    const value = cardLine(inVersion(line, version, '4.0'))?.value ?? '';
    const [, said = '', data = ''] = /^data:(image\/[\w.+-]+);base64,([A-Za-z0-9+/=]+)$/i.exec(value) ?? [];
    const type = PICTURE_TYPES.find((one) => one === said.toLowerCase().replace('/jpg', '/jpeg'));
    if (type && data !== '') return { type, data };
  }
  return null;
}

/** The lines of a card with this picture in place of the one there was; `null` takes it out. */
export function withPicture(
  lines: readonly UnmodelledLine[],
  version: CardVersion,
  picture: CardPicture | null,
): readonly UnmodelledLine[] {
  const others = lines.filter(({ line }) => !isPicture(line));
  if (!picture) return others;
  const line = lineOf('', 'PHOTO', [], `data:${picture.type};base64,${picture.data}`);
  return [...others, { line: inVersion(line, '4.0', version) }];
}
