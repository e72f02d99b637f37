'use client';
import MenuItem from '@mui/material/MenuItem';
import TextField from '@mui/material/TextField';
import { useTranslations } from 'use-intl';
import type { BoardHead } from '@/contract/items/items.ts';
import { parseDate } from '@/core/time/index.ts';
import type { Asked } from '../../meetings/heard.ts';
import type { Values } from './item-values.ts';
import { useOpenCopy } from './open-copy.ts';
import { useTargetName, useTargets } from './targets.ts';

/** Into which calendar something new goes: another one opens the form there, with what is typed. Shown where there is a choice. */
export function GoesWhere(props: {
  head: BoardHead;
  typed: Values;
  people: readonly Asked[] | null;
  /** What was typed is in the other calendar's form from now on. */
  onOver: () => void;
}) {
  const { head, typed, people, onOver } = props;
  const t = useTranslations('form');
  const targets = useTargets();
  const nameOf = useTargetName();
  const openCopy = useOpenCopy();
  if (targets.length < 2 || !targets.some((one) => one.key === head.calendar.key)) return null;
  const go = (key: string) => {
    const target = targets.find((one) => one.key === key);
    const start = parseDate(typed.day);
    if (!target || start === null) return;
    onOver();
    openCopy(target, { item: null, start, end: start, values: typed, why: '', people }, { id: '', title: typed.title });
  };
  return (
    <TextField
      select
      label={t('calendar')}
      value={head.calendar.key}
      disabled={parseDate(typed.day) === null}
      onChange={(e) => go(e.target.value)}
      slotProps={{ inputLabel: { shrink: true } }}
    >
      {targets.map((one) => (
        <MenuItem key={one.key} value={one.key}>
          {nameOf(one)}
        </MenuItem>
      ))}
    </TextField>
  );
}
