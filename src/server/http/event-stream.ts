import { type LiveMessage, liveMessage } from '@/contract/items/live.ts';
import { hub, type Listener } from '../live/hub.ts';
import { refuse } from '../result.ts';
import { checkAnswers, refusalResponse } from './route.ts';

const BEAT_MS = 5000;
/** The first word to a window that says which page it is of: whether what it was told since is told now. */
const begun = (held: boolean): LiveMessage => ({ kind: 'begun', held });
const OVER = `data: ${JSON.stringify({ kind: 'over' } satisfies LiveMessage)}\n\n`;
/** Messages that may wait for a slow reader before it is let go: it asks everything again when it is back. */
const MOST_WAITING = 100;

/**
 * A stream of what a listener is told, a line a message; it ends with its reader, with a reader that doesn't keep up, and as soon as
 * `mayHear` says no: that is asked before every message. Refused where the listener has as many windows open as may be. With `page`, the name
 * of a page that is on its way to the window, it begins with what was told since that was made.
 */
export function eventStream(
  request: Request,
  listener: Listener,
  session: string | null,
  mayHear: () => boolean,
  page?: string,
): Response {
  const encoder = new TextEncoder();
  let close = () => {};
  let full = false;
  const stream = new ReadableStream<Uint8Array>({
    start(controller) {
      const put = (text: string) => {
        if ((controller.desiredSize ?? 0) < -MOST_WAITING) close();
        else if (mayHear()) controller.enqueue(encoder.encode(text));
        else {
          // Its last word: that there will be no more. What would have been said isn't.
          controller.enqueue(encoder.encode(OVER));
          close();
        }
      };
      const send = (message: string) => {
        if (checkAnswers) liveMessage.parse(JSON.parse(message));
        put(`data: ${message}\n\n`);
      };
      const end = () => {
        controller.enqueue(encoder.encode(OVER));
        close();
      };
      const leave = hub().join(listener, { session, send, close: end });
      if (!leave) {
        full = true;
        controller.close();
        return;
      }
      const beat = setInterval(() => put(': beat\n\n'), BEAT_MS);
      close = () => {
        close = () => {};
        leave();
        clearInterval(beat);
        try {
          controller.close();
        } catch {
          // It was closed by the other side.
        }
      };
      request.signal.addEventListener('abort', () => close());
      // A byte at once, so that the window knows it is connected.
      put('retry: 1000\n: open\n\n');
      if (page === undefined) return;
      const told = hub().toldSince(listener, page);
      for (const message of [begun(told !== null), ...(told ?? [])]) send(JSON.stringify(message));
    },
    cancel: () => close(),
  });
  if (full) return refusalResponse(refuse('tooManyWindows'));
  return new Response(stream, {
    headers: {
      'content-type': 'text/event-stream',
      'cache-control': 'no-store, no-transform',
      'x-accel-buffering': 'no',
    },
  });
}
