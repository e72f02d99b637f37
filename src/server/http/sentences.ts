import { createTranslator } from 'use-intl/core';
import type { ErrorBody, ErrorCode } from '@/contract/errors.ts';
import { LANGUAGES, type Language, LOCALES } from '@/messages/languages.ts';
import { TEXTS } from '@/messages/texts.ts';
import type { Refusal } from '../result.ts';

const translator = (language: Language) => createTranslator({ locale: LOCALES[language], messages: TEXTS[language] });
const IN = Object.fromEntries(LANGUAGES.map((one) => [one, translator(one)])) as Record<
  Language,
  ReturnType<typeof translator>
>;
type Translator = (typeof IN)[Language];
type Key = Parameters<Translator>[0];

/** The sentence for a field's code; `tooLong:300` carries its number along. */
function fieldSentence(t: Translator, code: string): string {
  const [name, fact] = code.split(':');
  const key = `fields.${name}` as Key;
  return t.has(key) ? t(key, { most: Number(fact ?? 0) } as never) : t('fields.unclear');
}

/** A refusal as it is sent to somebody: the code, its sentence, and a sentence at each field, in their language. */
export function refusalBody(refusal: Refusal, language: Language): ErrorBody {
  const t = IN[language];
  return {
    code: refusal.code,
    sentence: t(`errors.${refusal.code satisfies ErrorCode}` as Key, (refusal.facts ?? {}) as never),
    ...(refusal.fields
      ? { fields: Object.fromEntries(Object.entries(refusal.fields).map(([k, v]) => [k, fieldSentence(t, v)])) }
      : {}),
    ...(refusal.data === undefined ? {} : { data: refusal.data }),
  };
}
