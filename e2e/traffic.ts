import type { CDPSession } from 'puppeteer-core';

interface SentRequest {
  readonly url: string;
  readonly method: string;
  /** What was sent with it. */
  readonly body: string;
  /** What was answered, once all of it has come. */
  answer: Promise<string> | null;
}

/** What a window asked the server, and was answered, since listening began. */
export interface Traffic {
  readonly requests: () => readonly SentRequest[];
  /** The instant at which the next request of a method and path is answered. */
  readonly answered: (method: string, path: RegExp) => Promise<number>;
}

const HEARD = ['Network.requestWillBeSent', 'Network.responseReceived', 'Network.loadingFinished'] as const;

/** Listens to a window's requests by the DevTools protocol, which costs nothing where no test asks for it. */
export async function hearTraffic(session: CDPSession): Promise<Traffic> {
  const all = new Map<string, SentRequest>();
  const waiting: { readonly fits: (one: SentRequest) => boolean; readonly done: (at: number) => void }[] = [];
  session.on('Network.requestWillBeSent', ({ requestId, request: { url, method, postData } }) =>
    all.set(requestId, { url, method, body: postData ?? '', answer: null }),
  );
  session.on('Network.responseReceived', ({ requestId }) => {
    const one = all.get(requestId);
    for (const { fits, done } of waiting) if (one && fits(one)) done(Date.now());
  });
  // A request that is broken off never finishes, and has nothing to read.
  session.on('Network.loadingFinished', ({ requestId }) => {
    const one = all.get(requestId);
    if (!one) return;
    one.answer = session.send('Network.getResponseBody', { requestId }).then(
      ({ body, base64Encoded }) => (base64Encoded ? Buffer.from(body, 'base64').toString('utf8') : body),
      () => '',
    );
  });
  await session.send('Network.enable');
  return {
    requests: () => [...all.values()],
    answered: (method, path) => {
      const fits = (one: SentRequest) => one.method === method && path.test(new URL(one.url).pathname);
      return new Promise((done) => waiting.push({ fits, done }));
    },
  };
}

/** Stops listening to a window. */
export async function hearNoMore(session: CDPSession): Promise<void> {
  for (const heard of HEARD) session.removeAllListeners(heard);
  await session.send('Network.disable');
}
