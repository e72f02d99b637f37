'use client';
import { useCallback, useEffect, useRef, useSyncExternalStore } from 'react';

/** Something typed and not saved, kept when its form was left: what it is called, where it is gone on with, and what was typed. */
export interface SavedDraft {
  readonly key: string;
  readonly title: string;
  /** Whose calendar it is for, by name and colour. */
  readonly owner: string;
  readonly colour: number;
  readonly href: string;
  readonly data: unknown;
}

const STORE = 'paramo.kept';
const MOST = 20;
let list: readonly SavedDraft[] = [];
let whose: string | null = null;
let loaded: string | null = null;
const hearers = new Set<() => void>();

/** Says who is signed in: whoever comes after them in this window is offered nothing that they typed. */
export function saveDraftsFor(handle: string): void {
  if (typeof window !== 'undefined') whose = handle;
}

const storeName = (): string => `${STORE} ${whose}`;

/** Kept for as long as the window is, also through a reload; only what was typed here, nothing that was read. */
function load(): void {
  if (loaded === whose) return;
  loaded = whose;
  list = [];
  try {
    list = JSON.parse(sessionStorage.getItem(storeName()) ?? '[]');
  } catch {
    // Nothing that can be read was kept.
  }
}
function set(next: readonly SavedDraft[]): void {
  list = next.slice(-MOST);
  try {
    sessionStorage.setItem(storeName(), JSON.stringify(list));
  } catch {
    // It is kept as long as the page is.
  }
  for (const hear of hearers) hear();
}

export function saveDraft(draft: SavedDraft): void {
  load();
  set([...list.filter((d) => d.key !== draft.key), draft]);
}

export function dropDraft(key: string): void {
  load();
  if (list.some((d) => d.key === key)) set(list.filter((d) => d.key !== key));
}

/** Takes a saved draft out to go on with it; `null` where there is none. */
export function takeDraft(key: string): SavedDraft | null {
  load();
  const found = list.find((d) => d.key === key) ?? null;
  if (found) dropDraft(key);
  return found;
}

export function peekDraft(key: string): SavedDraft | null {
  load();
  return list.find((d) => d.key === key) ?? null;
}

/** Forgets everything kept: when somebody signs out. */
export function dropAllDrafts(): void {
  load();
  set([]);
}

const NONE: readonly SavedDraft[] = [];

/** What is kept in this window, the newest last. */
export function useSavedDrafts(): readonly SavedDraft[] {
  return useSyncExternalStore(
    (hear) => {
      load();
      hearers.add(hear);
      return () => hearers.delete(hear);
    },
    () => list,
    () => NONE,
  );
}

/**
 * Keeps what a form holds when it is left with something typed, whichever way: `draft` is what would be kept now, `null` for nothing.
 * The answer says that nothing need be kept any more: it was saved, or thrown away on purpose.
 */
export function useSaveDraftOnLeaving(draft: SavedDraft | null): () => void {
  const latest = useRef(draft);
  const over = useRef(false);
  useEffect(() => {
    latest.current = draft;
    // Typed anew after it was saved: there is something to lose again.
    if (draft === null) over.current = false;
  });
  useEffect(() => {
    const save = () => {
      if (latest.current && !over.current) saveDraft(latest.current);
    };
    window.addEventListener('pagehide', save);
    return () => {
      window.removeEventListener('pagehide', save);
      save();
    };
  }, []);
  return useCallback(() => {
    over.current = true;
  }, []);
}
