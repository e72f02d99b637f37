import { createTranslator } from 'use-intl/core';
import type { TrailEntryWire, TrailQuery } from '@/contract/trail.ts';
import { verbName } from '@/contract/trail-verb.ts';
import { presetOf, type Rights } from '@/core/access/index.ts';
import { writeTable } from '@/core/formats/index.ts';
import { LOCALES } from '@/messages/languages.ts';
import { rightsSentence } from '@/messages/rights-sentence.ts';
import { TEXTS } from '@/messages/texts.ts';
import { ok, type Result } from '../../result.ts';
import type { Context } from '../deciding/index.ts';
import { readEntries, scopeOf } from './list-trail.ts';

const MOST_LINES = 5000;
const LOOKED_THROUGH = 6000;

/** The trail as a table in the reader's language: a line for each thing that was changed, at most five thousand; beyond that it says so. */
export function trailFile(ctx: Context, query: TrailQuery): Result<string> {
  const scope = scopeOf(ctx, query);
  if ('ok' in scope) return scope;
  const { language } = ctx.viewer;
  const t = createTranslator({ locale: LOCALES[language], messages: TEXTS[language] });
  const words = createTranslator({ locale: LOCALES[language], messages: TEXTS[language], namespace: 'sentence' });
  const { entries, after } = readEntries(ctx, scope, query.after ?? null, MOST_LINES, LOOKED_THROUGH);
  const name = (rights: Rights): string => {
    const preset = presetOf(rights);
    return preset ? t(`presets.${preset}`) : rightsSentence(words, rights, '', false).does;
  };
  const level = (one: NonNullable<TrailEntryWire['levels']>['before']): string =>
    one ? `${name(one.rights)}${one.until ? ` (${one.until})` : ''}` : '';
  const did = (verb: string): string => {
    const key = `trail.verbs.${verbName(verb)}` as 'trail.verbs.other';
    return t(t.has(key) ? key : 'trail.verbs.other');
  };
  const rows = entries.flatMap((e) => {
    const what =
      e.who === 'everyone'
        ? t('trail.everyone')
        : (e.who ?? e.items.map((item) => item ?? t('trail.unseen')).join('; '));
    const plain = [e.at, e.actor, e.hands ?? '', e.principal, e.calendar ?? '', did(e.verb), what];
    if (e.forgotten) return [[...plain, t('trail.forgotten'), '', '']];
    if (e.levels) return [[...plain, t('trail.fields.access'), level(e.levels.before), level(e.levels.after)]];
    if (e.changed.length === 0) return [[...plain, '', '', '']];
    return e.changed.map((c) => [...plain, t(`trail.fields.${c.field as 'title'}`), c.before ?? '', c.after ?? '']);
  });
  const head = ['at', 'by', 'person', 'for', 'calendar', 'act', 'what', 'field', 'before', 'after'] as const;
  const cut = after !== null || rows.length > MOST_LINES ? [[t('trail.cut'), ...Array<string>(9).fill('')]] : [];
  return ok(writeTable(head, [...rows.slice(0, MOST_LINES), ...cut]));
}
