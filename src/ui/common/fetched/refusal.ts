import { CallRefused } from '@/contract/call.ts';

/** What a failed call says, in words: its sentence, the sentences at its fields, and its code. */
export interface Said {
  readonly code: string;
  readonly sentence: string;
  readonly fields: Readonly<Record<string, string>>;
  readonly data: unknown;
}

/** Reads a failed call; anything that is no refusal means the server couldn't be reached. */
export function said(error: unknown, unreachable: string): Said {
  if (error instanceof CallRefused) {
    const { code, sentence, fields = {}, data } = error.body;
    return { code, sentence: sentence || unreachable, fields, data };
  }
  return { code: 'unreachable', sentence: unreachable, fields: {}, data: undefined };
}

/** What a refused question says at its fields; nothing where it was answered. */
export const fieldsOf = (error: unknown): Said['fields'] => said(error, '').fields;

/** The one sentence that says why something was refused: that of its first field, where it has fields. */
export const sentenceOf = ({ fields, sentence }: Pick<Said, 'fields' | 'sentence'>): string =>
  Object.values(fields)[0] ?? sentence;
