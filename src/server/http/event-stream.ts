import { hub, type Listener } from '../live/hub.ts';

const BEAT_MS = 20_000;

/** A stream of what a listener is told, a line a message; it ends with its reader, or when `stillThere` says no at a beat. */
export function eventStream(request: Request, listener: Listener, stillThere: () => Promise<boolean>): Response {
  const encoder = new TextEncoder();
  let close = () => {};
  const stream = new ReadableStream<Uint8Array>({
    start(controller) {
      const send = (text: string) => controller.enqueue(encoder.encode(text));
      const leave = hub().join(listener, (message) => send(`data: ${JSON.stringify(message)}\n\n`));
      const beat = setInterval(async () => {
        if (await stillThere().catch(() => false)) send(': beat\n\n');
        else close();
      }, BEAT_MS);
      close = () => {
        leave();
        clearInterval(beat);
        try {
          controller.close();
        } catch {
          // It was closed by the other side.
        }
      };
      request.signal.addEventListener('abort', close);
      // A byte at once, so that the window knows it is connected.
      send('retry: 1000\n: open\n\n');
    },
    cancel: () => close(),
  });
  return new Response(stream, {
    headers: {
      'content-type': 'text/event-stream',
      'cache-control': 'no-store, no-transform',
      'x-accel-buffering': 'no',
    },
  });
}
