import { useQueryClient } from '@tanstack/react-query';
import { useRef } from 'react';
import { useTranslations } from 'use-intl';
import { call } from '@/contract/call.ts';
import type { DeskDone, DeskRowWire } from '@/contract/desk.ts';
import { useActing } from '../common/fetched/acting.ts';
import { KEYS } from '../common/fetched/query-keys.ts';
import { sentenceOf } from '../common/fetched/refusal.ts';
import { useFrame } from '../common/frame-context.tsx';

/** A step as the screen sends it; what isn't said is as the server takes it. */
export type Step = Parameters<typeof call<'takeDeskStep'>>[1]['body'];

/** A step on a row. */
export interface Taken {
  readonly row: DeskRowWire;
  readonly step: Step;
}

/** What was done last, and of which row: by what it is taken back. */
interface Done {
  readonly row: DeskRowWire;
  readonly done: DeskDone;
}

/** Taking steps on rows, and taking the latest back. A refusal is said at its place; a row that is gone is asked for again. */
export function useDeskSteps() {
  const t = useTranslations('desk');
  const { toast } = useFrame();
  const client = useQueryClient();
  const { attempt, busy, refused, fields, clear } = useActing(['place', 'link', 'until', 'to']);
  const last = useRef<Done[]>([]);
  const again = (row: DeskRowWire) => client.invalidateQueries({ queryKey: KEYS.desk(row.for) });

  const back = async ({ row, done }: Done): Promise<void> => {
    const undone = await attempt(async () => {
      for (const sending of done.sendings) await call('takeBack', { params: { sending } });
      if (done.undo && done.sendings.length === 0) await call('undo', { body: { undo: done.undo } });
      if (done.said)
        await call('takeDeskStep', { params: { row: row.key }, query: { for: row.for }, body: { act: 'back' } });
    });
    if (undone) toast({ text: t('undone') });
    void again(row);
  };

  /** Takes back what was done last. */
  const undo = () => {
    const made = last.current;
    last.current = [];
    if (made.length === 0) toast({ text: t('nothingToUndo') });
    for (const one of made) void back(one);
  };

  /** Takes some steps, one after the other; `says` is what is said once they are taken. Answers whether all were: the first refusal ends it. */
  const take = async (list: readonly Taken[], says: string): Promise<boolean> => {
    const made: Done[] = [];
    const all = await attempt(
      async () => {
        for (const { row, step } of list)
          made.push({
            row,
            done: await call('takeDeskStep', { params: { row: row.key }, query: { for: row.for }, body: step }),
          });
      },
      (why) => {
        // What is said at a field isn't said twice.
        if (Object.keys(why.fields).length > 0) return null;
        toast({ text: sentenceOf(why) });
        return why.sentence;
      },
    );
    // Mail that is sent again and a word that is counted can't be taken back.
    const undoable = made.filter(({ done }) => done.said || done.undo !== null || done.sendings.length > 0);
    if (made.length > 0) last.current = undoable;
    if (all) toast({ text: says, ...(undoable.length > 0 ? { undo, undoWord: t('undoWord') } : {}) });
    for (const { row } of list) void again(row);
    return all;
  };
  return { take, undo, busy, refused, fields, clear };
}
