import type { ItemsAnswer } from '../src/contract/items/items.ts';
import type { LiveMessage } from '../src/contract/items/live.ts';
import { putInto, standingOf } from '../src/ui/common/fetched/live-items.ts';
import { at, sideBySideAsync } from './measure.ts';
import { Client, serveBare, serveProduct } from './served.ts';

const DATES = { from: '2027-03-01', to: '2027-03-08', zone: 'Europe/Lisbon' };
const QUERY = `from=${DATES.from}&to=${DATES.to}&zone=Europe%2FLisbon`;
const WINDOWS = 200;
const PEOPLE = 28;
const SECONDS = Number(process.env.BENCH_SECONDS ?? 60);
const A_SECOND = 5;

/** One window: a stream, and the week of one calendar as it shows it. */
class OneWindow {
  private held: ItemsAnswer | null = null;
  private fetching = false;
  private again = false;
  private readonly queued: LiveMessage[] = [];
  fetches = 0;
  failed = 0;
  constructor(
    private readonly who: Client,
    readonly calendar: string,
    private readonly shown: (window: OneWindow) => void,
  ) {}

  async open(end: AbortSignal): Promise<void> {
    const answer = await this.who.fetch('/api/live', { signal: end });
    if (!answer.ok || !answer.body) throw new Error(`no stream: ${answer.status}`);
    const reader = answer.body.pipeThrough(new TextDecoderStream()).getReader();
    void this.listen(reader);
    await this.refetch();
    this.fetches = 0;
  }

  private async listen(reader: ReadableStreamDefaultReader<string>): Promise<void> {
    let rest = '';
    try {
      for (;;) {
        const part = await reader.read();
        if (part.done) return;
        rest += part.value;
        const lines = rest.split('\n\n');
        rest = lines.pop() ?? '';
        for (const line of lines) if (line.startsWith('data: ')) this.hear(JSON.parse(line.slice(6)) as LiveMessage);
      }
    } catch {
      // The measuring is over.
    }
  }

  private hear(message: LiveMessage): void {
    if (message.kind !== 'changed' || message.calendar !== this.calendar) return;
    if (this.fetching) this.queued.push(message);
    else this.put(message);
  }

  private put(message: LiveMessage): void {
    if (message.kind !== 'changed' || !this.held) return;
    const standing = standingOf(this.held.version, message);
    if (standing === 'known') return;
    const next = standing === 'next' ? putInto(this.held, message, DATES) : null;
    if (next) {
      this.held = next;
      this.shown(this);
    } else void this.refetch();
  }

  private async refetch(): Promise<void> {
    if (this.fetching) {
      this.again = true;
      return;
    }
    this.fetching = true;
    this.fetches++;
    try {
      this.held = await this.who.json<ItemsAnswer>(`/api/calendars/${this.calendar}/items?${QUERY}`);
    } catch {
      this.failed++;
    }
    this.fetching = false;
    this.shown(this);
    for (const message of this.queued.splice(0)) this.put(message);
    if (this.again) {
      this.again = false;
      await this.refetch();
    }
  }

  has(start: string): boolean {
    return this.held?.items.some((item) => item.start === start) ?? false;
  }
}

interface Write {
  readonly calendar: string;
  readonly start: string;
  answered: number;
  readonly waiting: Set<OneWindow>;
}

/** Windows told of writes in two calendars, and others that have nothing to do with them: how soon each has what it wants. */
async function measureServed(): Promise<void> {
  const served = await serveProduct();
  const end = new AbortController();
  try {
    const people = await Promise.all((await peopleOf(served.address)).map((h) => Client.stepIn(served.address, h)));
    const [ines, bruno] = [people.find((p) => p.handle === 'ines'), people.find((p) => p.handle === 'bruno')];
    if (!ines || !bruno) throw new Error('nobody to write');
    const calendars = await Promise.all([ines, bruno].map(ownCalendar));
    const readers = await seeingBoth(people, calendars);
    await overHttp(ines, calendars[0] as string);

    const writes: Write[] = [];
    const delays: number[] = [];
    const shown = (window: OneWindow) => {
      for (const write of writes)
        if (write.waiting.has(window) && window.has(write.start)) {
          write.waiting.delete(window);
          // Before the answer has arrived there is nothing to wait for.
          delays.push(Math.max(0, performance.now() - (write.answered || performance.now())));
        }
    };
    const windows = Array.from(
      { length: WINDOWS },
      (_, i) => new OneWindow(readers[i % readers.length] as Client, calendars[i % 2] as string, shown),
    );
    for (let i = 0; i < windows.length; i += 20)
      await Promise.all(windows.slice(i, i + 20).map((w) => w.open(end.signal)));

    const moved = await Promise.all([ines, bruno].map((who, i) => anItem(who, calendars[i] as string)));
    const uninvolved: number[] = [];
    const took: number[] = [];
    let late = 0;
    let over = false;
    const apart = people.find((p) => p.handle === 'amara') as Client;
    const others = await ownCalendar(apart);
    const reading = (async () => {
      while (!over) {
        const begun = performance.now();
        await apart.json(`/api/calendars/${others}/items?${QUERY}`);
        uninvolved.push(performance.now() - begun);
        await new Promise((go) => setTimeout(go, 50));
      }
    })();
    const begun = performance.now();
    const sent: Promise<void>[] = [];
    for (let n = 0; n < SECONDS * A_SECOND; n++) {
      await new Promise((go) => setTimeout(go, Math.max(0, begun + (n * 1000) / A_SECOND - performance.now())));
      const side = n % 2;
      const start = `2027-03-0${1 + (Math.floor(n / 2 / 600) % 5)}T${String(6 + (Math.floor(n / 2 / 60) % 10)).padStart(2, '0')}:${String(Math.floor(n / 2) % 60).padStart(2, '0')}`;
      const write: Write = {
        calendar: calendars[side] as string,
        start: `${start}:00Z`,
        answered: 0,
        waiting: new Set(windows.filter((w) => w.calendar === calendars[side])),
      };
      writes.push(write);
      sent.push(
        (async () => {
          const item = moved[side] as { id: string; version: number };
          const at = performance.now();
          const stop = `${start.slice(0, 11)}${String(Number(start.slice(11, 13)) + 1).padStart(2, '0')}${start.slice(13)}`;
          const answer = await (side ? bruno : ines).fetch(`/api/items/${item.id}`, {
            method: 'PATCH',
            body: JSON.stringify({
              version: item.version,
              when: { start, end: stop, allDay: false, zone: 'UTC' },
              fields: {},
            }),
          });
          if (!answer.ok) throw new Error(`a write was refused: ${answer.status} ${await answer.text()}`);
          item.version = ((await answer.json()) as { item: { version: number } }).item.version;
          write.answered = performance.now();
          took.push(write.answered - at);
          if (write.answered - at > 1000 / A_SECOND) late++;
        })(),
      );
      await sent.at(-1);
    }
    await Promise.all(sent);
    const last = performance.now();
    while (writes.some((w) => w.waiting.size > 0) && performance.now() - last < 20_000)
      await new Promise((go) => setTimeout(go, 20));
    over = true;
    await reading;
    const never = writes.reduce((sum, w) => sum + w.waiting.size, 0);
    const fetches = windows.reduce((sum, w) => sum + w.fetches, 0);
    const failed = windows.reduce((sum, w) => sum + w.failed, 0);
    const wrote = `${writes.length} writes in ${((last - begun) / 1000).toFixed(0)} s`;
    console.log(
      `${WINDOWS} windows of ${readers.length} people, ${wrote}, ${late} late; asked again ${fetches} times, ${failed} failed, never shown ${never}`,
    );
    console.log(
      `  from a write's answer to its being shown, p50 ${at(delays, 0.5).toFixed(0)} ms, p95 ${at(delays, 0.95).toFixed(0)} ms (want under 300), most ${at(delays, 1).toFixed(0)} ms`,
    );
    console.log(`  a write's answer, p50 ${at(took, 0.5).toFixed(1)} ms, p95 ${at(took, 0.95).toFixed(1)} ms`);
    console.log(
      `  reads of windows that have nothing to do with it, p50 ${at(uninvolved, 0.5).toFixed(1)} ms, p95 ${at(uninvolved, 0.95).toFixed(1)} ms (want under 100), of ${uninvolved.length}`,
    );
  } finally {
    end.abort();
    served.stop();
  }
}

async function peopleOf(address: string): Promise<string[]> {
  const one = await Client.stepIn(address, 'ines');
  const { people } = await one.json<{ people: { handle: string; kind: string; resource: string | null }[] }>(
    '/api/people',
  );
  // Rooms and things don't sign in.
  return people.filter((p) => p.kind === 'person' && p.resource === null).map((p) => p.handle);
}

async function ownCalendar(who: Client): Promise<string> {
  type Frame = { principals: { own: boolean; calendar: string }[] };
  return (await who.json<Frame>('/api/frame')).principals.find((p) => p.own)?.calendar ?? '';
}

/** Those who see something of all the calendars. */
async function seeingBoth(people: readonly Client[], calendars: readonly string[]): Promise<Client[]> {
  const found: Client[] = [];
  for (const who of people) {
    const answers = await Promise.all(calendars.map((c) => who.fetch(`/api/calendars/${c}/items?${QUERY}`)));
    if (answers.every((a) => a.ok)) found.push(who);
    if (found.length === PEOPLE) break;
  }
  return found;
}

/** An item everybody sees as a block. */
async function anItem(who: Client, calendar: string): Promise<{ id: string; version: number }> {
  const made = await who.fetch(`/api/calendars/${calendar}/items`, {
    method: 'POST',
    body: JSON.stringify({
      title: 'Moved about',
      when: { start: '2027-03-01T05:00', end: '2027-03-01T06:00', allDay: false, zone: 'UTC' },
    }),
  });
  const { item } = (await made.json()) as { item: { id: string; version: number } };
  return { id: item.id, version: item.version };
}

/** A week read over HTTP, against a bare handler that answers the same bytes. */
async function overHttp(who: Client, calendar: string): Promise<void> {
  const path = `/api/calendars/${calendar}/items?${QUERY}`;
  const answer = await (await who.fetch(path)).text();
  const bare = await serveBare(answer);
  try {
    const times = await sideBySideAsync(400, {
      week: async () => (await who.fetch(path)).text(),
      bare: async () => (await fetch(`${bare.address}/bare`)).text(),
    });
    const ratio = times.week.median / times.bare.median;
    console.log(
      `a week over HTTP (${(answer.length / 1000).toFixed(0)} KB), one after the other: p50 ${times.week.median.toFixed(2)} ms, p95 ${times.week.p95.toFixed(2)} ms; a bare handler ${times.bare.median.toFixed(2)} ms: ${ratio.toFixed(2)}x (want at most 3x)`,
    );
  } finally {
    bare.stop();
  }
}

await measureServed();
