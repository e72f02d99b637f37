import { createHmac } from 'node:crypto';
import { INBOUND_SECRET } from './servers.ts';
import { until } from './until.ts';

/** Hands a mail on as the mail service does: signed, for somebody inside. Answers the status. */
export async function deliver(address: string, raw: string | Buffer, to: string, secret = INBOUND_SECRET) {
  const bytes = Buffer.from(raw);
  const signature = createHmac('sha256', secret).update(bytes).digest('hex');
  const answer = await fetch(`${address}/api/inbound`, {
    method: 'POST',
    headers: {
      'content-type': 'message/rfc822',
      'x-paramo-signature': `sha256=${signature}`,
      'x-paramo-recipient': to,
    },
    body: new Uint8Array(bytes),
  });
  return { status: answer.status, text: await answer.text() };
}

/** Somebody's session outside a browser: what a script of theirs would get, to the byte. */
export class Caller {
  private cookie = '';
  constructor(readonly address: string) {}

  /** A sample person's session. */
  static async stepIn(address: string, handle: string): Promise<Caller> {
    const caller = new Caller(address);
    const answer = await caller.send('POST', '/api/demo/step-in', { handle });
    if (answer.status !== 200) throw new Error(`${handle} can't step in: ${answer.text}`);
    return caller;
  }

  /** The session of somebody outside, by the letter that was written to their address. */
  static async guest(address: string, mail: string): Promise<Caller> {
    const caller = new Caller(address);
    const requested = await caller.send('POST', '/api/guest', { address: mail });
    if (requested.status !== 200) throw new Error(`${mail} can't ask for a letter: ${requested.text}`);
    const answer = await caller.send('PUT', '/api/guest', { token: await caller.letterFor(mail) });
    if (answer.status !== 200) throw new Error(`${mail} can't come in: ${answer.text}`);
    return caller;
  }

  /** The token in the newest letter with a way in to an address, once it has come. */
  async letterFor(mail: string): Promise<string> {
    return until(`a letter for ${mail}`, async () => {
      const { text } = await this.send('GET', '/letterbox');
      // The letters on the page; what stands after it for the page's script would name them all at once.
      const letters = (text.split('</main>')[0] ?? '')
        .split('<article')
        .slice(1)
        .filter((letter) => letter.includes(mail) && letter.includes('asked for a way in'));
      return /\/guest\/(\w+)/.exec(letters[0] ?? '')?.[1];
    });
  }

  /** The session as a browser would keep it. */
  cookies(): { name: string; value: string; domain: string; httpOnly: boolean; sameSite: 'Lax' }[] {
    return this.cookie.split('; ').map((pair) => {
      const [name = '', ...value] = pair.split('=');
      return { name, value: value.join('='), domain: new URL(this.address).hostname, httpOnly: true, sameSite: 'Lax' };
    });
  }

  /** The session as a header says it. */
  cookieLine(): string {
    return this.cookie;
  }

  /** The same session in another place: what that one ends, this one still believes in. */
  copy(): Caller {
    const other = new Caller(this.address);
    other.cookie = this.cookie;
    return other;
  }

  async send(
    method: string,
    path: string,
    body?: unknown,
    headers: Record<string, string> = {},
  ): Promise<{ status: number; text: string; headers: Headers }> {
    const answer = await fetch(this.address + path, {
      method,
      redirect: 'manual',
      headers: {
        // Nothing is won by compressing what goes to the machine it comes from.
        'accept-encoding': 'identity',
        ...(this.cookie ? { cookie: this.cookie } : {}),
        ...(body === undefined || typeof body === 'string' ? {} : { 'content-type': 'application/json' }),
        ...headers,
      },
      ...(body === undefined ? {} : { body: typeof body === 'string' ? body : JSON.stringify(body) }),
    });
    const set = answer.headers.getSetCookie();
    if (set.length > 0) this.cookie = set.map((c) => c.split(';')[0]).join('; ');
    return { status: answer.status, text: await answer.text(), headers: answer.headers };
  }

  async json<T>(path: string): Promise<T> {
    const answer = await this.send('GET', path);
    if (answer.status !== 200) throw new Error(`${path}: ${answer.status} ${answer.text}`);
    return JSON.parse(answer.text) as T;
  }

  /** The live stream, heard until `until` says so or five seconds have passed; answers all of it. */
  async listen(started: () => Promise<void>, until: (heard: string) => boolean, path = '/api/live'): Promise<string> {
    const end = new AbortController();
    const timer = setTimeout(() => end.abort(), 5000);
    const answer = await fetch(this.address + path, { headers: { cookie: this.cookie }, signal: end.signal });
    const reader = answer.body?.pipeThrough(new TextDecoderStream()).getReader();
    let heard = '';
    let begun = false;
    try {
      for (;;) {
        const part = await reader?.read();
        if (!part || part.done) break;
        heard += part.value;
        if (!begun) {
          begun = true;
          await started();
        }
        if (until(heard)) break;
      }
    } catch {
      // Five seconds have passed: what was heard is the answer.
    }
    clearTimeout(timer);
    end.abort();
    return heard;
  }
}
