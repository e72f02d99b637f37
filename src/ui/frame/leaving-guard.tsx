'use client';
import { useEffect, useState } from 'react';
import { confirmBeforeItLeaves } from '@/contract/call.ts';
import { later } from '../common/later.tsx';

const LeavingDialog = later(() => import('./leaving-dialog.tsx').then((m) => m.LeavingDialog));

interface Confirmation {
  readonly people: readonly string[];
  readonly answer: (may: boolean) => void;
}

/** The one place of a window that asks before a meeting leaves the house, whichever screen it is sent from. */
export function LeavingGuard() {
  const [waiting, setWaiting] = useState<readonly Confirmation[]>([]);
  useEffect(
    () => confirmBeforeItLeaves((people) => new Promise((answer) => setWaiting((was) => [...was, { people, answer }]))),
    [],
  );
  const first = waiting[0];
  if (!first) return null;
  const onAnswer = (may: boolean) => {
    setWaiting((was) => was.slice(1));
    first.answer(may);
  };
  return <LeavingDialog people={first.people} onAnswer={onAnswer} />;
}
