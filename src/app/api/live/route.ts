import { route } from '@/server/http/route.ts';
import { hub } from '@/server/live/hub.ts';
import { personOf } from '@/server/operations/session.ts';

const BEAT_MS = 20_000;

export const dynamic = 'force-dynamic';

/** One stream a window: which calendars changed, and nothing else. It ends when the session it was opened with does. */
export const GET = route('live', ({ ctx, request }) => {
  const encoder = new TextEncoder();
  const { headers } = request;
  let close = () => {};
  const stream = new ReadableStream<Uint8Array>({
    start(controller) {
      const send = (text: string) => controller.enqueue(encoder.encode(text));
      const leave = hub().join(ctx.viewer.id, (message) => send(`data: ${JSON.stringify(message)}\n\n`));
      const beat = setInterval(async () => {
        const still = await personOf(headers).catch(() => null);
        if (still?.id === ctx.viewer.id) send(': beat\n\n');
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
});
