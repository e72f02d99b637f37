/*
 * While another thread commits a large act as one, it holds SQLite's only write lock for some tenths of a second. Writers on this thread
 * wait here for the lock, so that readers are not held up meanwhile.
 */
interface Gate {
  closed: Promise<void> | null;
}
const holder = globalThis as { paramoGate?: Gate };
const gate = (): Gate => {
  holder.paramoGate ??= { closed: null };
  return holder.paramoGate;
};

/** Whether writing on this thread would have to wait. */
export const mustWait = (): boolean => gate().closed !== null;

/** Ends as soon as writing is free. */
export async function writingIsFree(): Promise<void> {
  while (gate().closed) await gate().closed;
}

/** Closes the way for others' writing until the answer is called; waits for its turn. */
export async function closeForOthers(): Promise<() => void> {
  await writingIsFree();
  let open = () => {};
  gate().closed = new Promise<void>((resolve) => {
    open = () => {
      gate().closed = null;
      resolve();
    };
  });
  return open;
}
