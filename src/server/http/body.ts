/** Reads a body, counting as it comes; `null` as soon as it is longer than allowed. `each` is given every part of it as it comes. */
export async function readLimited(
  body: ReadableStream<Uint8Array> | null,
  most: number,
  each: (part: Uint8Array) => void = () => {},
): Promise<Uint8Array<ArrayBuffer> | null> {
  if (!body) return new Uint8Array();
  const parts: Uint8Array[] = [];
  let size = 0;
  const reader = body.getReader();
  for (;;) {
    const { done, value } = await reader.read();
    if (done) break;
    size += value.byteLength;
    if (size > most) {
      await reader.cancel();
      return null;
    }
    parts.push(value);
    each(value);
  }
  const whole = new Uint8Array(size);
  let at = 0;
  for (const part of parts) {
    whole.set(part, at);
    at += part.byteLength;
  }
  return whole;
}

/** Bytes as text; `null` where they are no UTF-8. */
export function utf8(bytes: Uint8Array): string | null {
  try {
    return new TextDecoder('utf-8', { fatal: true }).decode(bytes);
  } catch {
    return null;
  }
}
