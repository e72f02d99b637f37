'use client';
import { useSyncExternalStore } from 'react';

const never = () => () => {};

/** Whether the page's own script runs yet: until then a form must not be sent, or the browser would send it by itself. */
export function useHydrated(): boolean {
  return useSyncExternalStore(
    never,
    () => true,
    () => false,
  );
}
