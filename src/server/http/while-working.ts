import type { IncomingMessage, ServerResponse } from 'node:http';

/** How long an answer may be worked out, or wait for its turn at a thread, before its connection is closed. */
const QUIET_WHILE_WORKING_MS = 15 * 60_000;

/**
 * Lets a connection be quiet for as long as its answer is worked out: what waits for its turn says nothing meanwhile. From the first byte of
 * the answer on, it is closed after `usualMs` without a byte, as any other. Call it before the answer is begun.
 */
export function openWhileWorking({ socket }: IncomingMessage, response: ServerResponse, usualMs: number): void {
  socket.setTimeout(QUIET_WHILE_WORKING_MS);
  const writeHead = response.writeHead.bind(response) as (...head: unknown[]) => ServerResponse;
  response.writeHead = (...head: unknown[]) => {
    socket.setTimeout(usualMs);
    return writeHead(...head);
  };
}
