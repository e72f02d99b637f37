'use client';
import { createContext, type ReactNode, useContext } from 'react';
import type { FrameAnswer, Principal } from '@/contract/frame.ts';
import type { RightsWire } from '@/contract/sharing/sight.ts';
import type { CollectionKind, FirstCollection } from '@/core/collection/index.ts';
import type { LiveState } from './fetched/live.ts';
import { speak } from './language.ts';
import type { TimeStyle } from './times.ts';

/** Where in the band, beside whom this window works for, the choice among their calendars stands. */
export const BAND_CALENDAR = 'band-calendar';

/** A short message at the foot of the window, with what takes the act back. */
export interface Toast {
  readonly text: string;
  readonly undo?: () => void;
  /** What that press is called, where it is more than undoing. */
  readonly undoWord?: string;
}

/** Whom access is asked of: people, or whoever is still to be chosen. */
export interface AccessSubject {
  readonly people: readonly { readonly handle: string; readonly name: string }[];
  /** Which of what they began with it is about: their calendar, unless it is said. */
  readonly what?: FirstCollection;
  /** The further one it is about, of which one sees something already. */
  readonly further?: { readonly key: string; readonly name: string; readonly kind: CollectionKind } | null;
  /** What one has there already, where that is known. */
  readonly has?: RightsWire | null;
}

export interface FrameState {
  readonly frame: FrameAnswer;
  readonly style: TimeStyle;
  /** Who this window works for; `null` once they no longer let one. */
  readonly principal: Principal | null;
  readonly live: LiveState;
  readonly now: () => number;
  readonly toast: (toast: Toast) => void;
  /** Opens the panel that asks for access beside the screen; `null` where nobody is signed in who could ask. */
  readonly requestAccess: ((asking: AccessSubject) => void) | null;
  /** Shows every key; `null` where there are none. */
  readonly help: (() => void) | null;
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
