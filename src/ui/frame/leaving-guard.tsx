'use client';
import { useEffect, useState } from 'react';
import { askBeforeItLeaves } from '@/contract/call.ts';
import { later } from '../common/later.tsx';

const LeavingDialog = later(() => import('./leaving-dialog.tsx').then((m) => m.LeavingDialog));

interface Asked {
  readonly people: readonly string[];
  readonly answer: (may: boolean) => void;
}

/** The one place of a window that asks before a meeting leaves the house, whichever screen it is sent from. */
export function LeavingGuard() {
  const [asked, setAsked] = useState<readonly Asked[]>([]);
  useEffect(
    () => askBeforeItLeaves((people) => new Promise((answer) => setAsked((was) => [...was, { people, answer }]))),
    [],
  );
  const first = asked[0];
  if (!first) return null;
  const onAnswer = (may: boolean) => {
    setAsked((was) => was.slice(1));
    first.answer(may);
  };
  return <LeavingDialog people={first.people} onAnswer={onAnswer} />;
}
