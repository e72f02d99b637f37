'use client';
import Select from '@mui/material/Select';
import { useTranslations } from 'use-intl';
import type { BoardHead } from '@/contract/items/items.ts';
import { pick } from '@/core/calendar/index.ts';
import { parseDate } from '@/core/time/index.ts';
import type { InvitedPerson } from '../../meetings/heard.ts';
import { PanelHead } from '../details/panel-head.tsx';
import itemFormCss from './item-form.module.css';
import type { Values } from './item-values.ts';
import { useOpenCopy } from './open-copy.ts';
import { useTargetItems, useTargets } from './targets.tsx';

interface Head {
  readonly head: BoardHead;
  readonly typed: Values;
  /** What was typed, and what is as it began. */
  readonly dirtyFields: Partial<Record<keyof Values, unknown>>;
  readonly people: readonly InvitedPerson[] | null;
  readonly onClose: () => void;
  /** What was typed is in another calendar's form from now on. */
  readonly onOver: () => void;
}

/** Whose calendar something new goes into, and the choice of another, where there is one: the form opens there with what was typed. */
export function NewHead(props: Head) {
  return (
    <PanelHead head={props.head} onClose={props.onClose}>
      {(words) => <GoesWhere {...props} words={words} />}
    </PanelHead>
  );
}

function GoesWhere({ head, typed, dirtyFields, people, onOver, words }: Head & { words: string }) {
  const t = useTranslations('form');
  const targets = useTargets();
  const itemsOf = useTargetItems();
  const openCopy = useOpenCopy();
  const { calendars } = targets;
  if (calendars.length < 2 || !calendars.some((one) => one.key === head.calendar.key)) return <span>{words}</span>;
  const start = parseDate(typed.day);
  const go = (key: string) => {
    const target = calendars.find((one) => one.key === key);
    if (!target || start === null) return;
    const names = new Set<keyof Values>([
      'day',
      'lastDay',
      'from',
      'to',
      ...(Object.keys(dirtyFields) as (keyof Values)[]),
    ]);
    onOver();
    openCopy(
      target,
      { item: null, start, end: start, values: pick(typed, [...names]), why: '', people },
      { id: '', title: typed.title },
    );
  };
  return (
    <Select
      variant="standard"
      disableUnderline
      className={itemFormCss.where}
      value={head.calendar.key}
      disabled={start === null}
      SelectDisplayProps={{ 'aria-label': t('goesInto') }}
      renderValue={() => words}
      onChange={(e) => go(e.target.value)}
    >
      {itemsOf(targets)}
    </Select>
  );
}
