'use client';
import { createContext, type ReactNode, useContext } from 'react';
import type { FrameAnswer, Principal } from '@/contract/frame.ts';
import { speak } from './language.ts';
import type { LiveState } from './live.ts';
import type { TimeStyle } from './times.ts';

/** A short message at the foot of the window, with what takes the act back. */
export interface Toast {
  readonly text: string;
  readonly undo?: () => void;
  /** What that press is called, where it is more than undoing. */
  readonly undoWord?: string;
}

export interface FrameState {
  readonly frame: FrameAnswer;
  readonly style: TimeStyle;
  /** Who this window works for; `null` once they no longer let one. */
  readonly principal: Principal | null;
  readonly live: LiveState;
  readonly now: () => number;
  readonly toast: (toast: Toast) => void;
}

const FrameContext = createContext<FrameState | null>(null);

export function FrameProvider({ value, children }: { value: FrameState; children: ReactNode }) {
  return <FrameContext value={value}>{children}</FrameContext>;
}

/** The frame's state: who is signed in, for whom this window works, how times are shown. */
export function useFrame(): FrameState {
  const value = useContext(FrameContext);
  if (!value) throw new Error('outside the frame');
  speak(value.style.language);
  return value;
}
