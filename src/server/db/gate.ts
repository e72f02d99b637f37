/*
 * While another thread closes an act that must come in as one, it holds SQLite's one place for writing for some tenths of a second.
 * Whoever would write on this thread meanwhile waits here, without holding up those who read.
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
