import { createTranslator } from 'use-intl/core';
import type { ErrorBody, ErrorCode } from '@/contract/errors.ts';
import messages from '@/messages/en/index.ts';
import type { Refusal } from '../result.ts';

const t = createTranslator({ locale: 'en', messages });
type Key = Parameters<typeof t>[0];

/** The sentence for a field's code; `tooLong:300` carries its number along. */
function fieldSentence(code: string): string {
  const [name, fact] = code.split(':');
  const key = `fields.${name}` as Key;
  return t.has(key) ? t(key, { most: Number(fact ?? 0) } as never) : t('fields.unclear');
}

/** A refusal as it is sent: the code, its sentence, and a sentence at each field. */
export function refusalBody(refusal: Refusal): ErrorBody {
  return {
    code: refusal.code,
    sentence: t(`errors.${refusal.code satisfies ErrorCode}` as Key, (refusal.facts ?? {}) as never),
    ...(refusal.fields
      ? { fields: Object.fromEntries(Object.entries(refusal.fields).map(([k, v]) => [k, fieldSentence(v)])) }
      : {}),
    ...(refusal.data === undefined ? {} : { data: refusal.data }),
  };
}
