import { type ChildProcess, spawn, spawnSync } from 'node:child_process';
import { existsSync, mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { createServer } from 'node:net';
import { tmpdir } from 'node:os';
import { join } from 'node:path';

/* The built product as it runs, over HTTP: the harness beside the server. */
const CLOCK = '2027-03-02T09:10:00Z';
const next = 'node_modules/next/dist/bin/next';

async function freePort(): Promise<number> {
  return new Promise((done) => {
    const probe = createServer().listen(0, '127.0.0.1', () => {
      const address = probe.address();
      probe.close(() => done(typeof address === 'object' && address ? address.port : 0));
    });
  });
}

async function started(child: ChildProcess): Promise<void> {
  return new Promise((done, fail) => {
    let said = '';
    const hear = (data: Buffer) => {
      said += data.toString();
      if (said.includes('is ready')) done();
    };
    child.stdout?.on('data', hear);
    child.stderr?.on('data', hear);
    child.once('exit', (code) => fail(new Error(`the server ended with ${code}:\n${said}`)));
  });
}

function must(args: string[], env: NodeJS.ProcessEnv): void {
  const done = spawnSync(process.execPath, args, { env, encoding: 'utf8' });
  if (done.status !== 0) throw new Error(`${args.join(' ')}: ${done.stdout}${done.stderr}`);
}

export interface Served {
  readonly address: string;
  stop(): void;
}

/** The product on the sample organisation, built where it isn't yet. */
export async function serveProduct(): Promise<Served> {
  const data = mkdtempSync(join(tmpdir(), 'paramo-bench-'));
  const port = await freePort();
  const env: NodeJS.ProcessEnv = {
    ...process.env,
    NODE_ENV: 'production',
    PARAMO_DATA: data,
    PARAMO_SECRET: 'a secret for measuring alone, 32 characters long',
    PARAMO_LOG: 'warn',
    PARAMO_DEMO: '1',
    PARAMO_CLOCK: CLOCK,
    PORT: String(port),
  };
  if (!existsSync('.next/BUILD_ID')) must(['scripts/build.mjs'], env);
  must(['node_modules/tsx/dist/cli.mjs', 'demo/seed.ts'], env);
  const child = spawn(process.execPath, ['server.mjs'], { env, stdio: ['ignore', 'pipe', 'pipe'] });
  await started(child);
  return {
    address: `http://localhost:${port}`,
    stop: () => {
      child.kill('SIGTERM');
      rmSync(data, { recursive: true, force: true });
    },
  };
}

/** A bare route handler that answers some bytes: the floor of every answer. */
export async function serveBare(answer: string): Promise<Served> {
  const folder = mkdtempSync(join(tmpdir(), 'paramo-bare-'));
  const file = join(folder, 'answer.json');
  writeFileSync(file, answer);
  const port = await freePort();
  const env = {
    ...process.env,
    NODE_ENV: 'production' as const,
    NEXT_TELEMETRY_DISABLED: '1',
    BARE_ANSWER: file,
    PORT: String(port),
  };
  if (!existsSync('bench/bare/.next/BUILD_ID')) must([next, 'build', 'bench/bare'], env);
  const child = spawn(process.execPath, ['bench/bare/serve.mjs'], { env, stdio: ['ignore', 'pipe', 'pipe'] });
  await started(child);
  return {
    address: `http://localhost:${port}`,
    stop: () => {
      child.kill('SIGTERM');
      rmSync(folder, { recursive: true, force: true });
    },
  };
}

/** Somebody of the sample organisation, signed in. */
export class Client {
  private constructor(
    private readonly address: string,
    readonly handle: string,
    readonly cookie: string,
  ) {}

  static async stepIn(address: string, handle: string): Promise<Client> {
    const answer = await fetch(`${address}/api/demo/step-in`, {
      method: 'POST',
      headers: { origin: address, 'content-type': 'application/json' },
      body: JSON.stringify({ handle }),
    });
    if (!answer.ok) throw new Error(`${handle} could not step in: ${answer.status}`);
    const cookie = answer.headers
      .getSetCookie()
      .map((c) => c.split(';')[0])
      .join('; ');
    return new Client(address, handle, cookie);
  }

  fetch(path: string, how: RequestInit = {}): Promise<Response> {
    const headers = { cookie: this.cookie, origin: this.address, 'content-type': 'application/json' };
    return fetch(this.address + path, { ...how, headers });
  }

  async json<T>(path: string): Promise<T> {
    const answer = await this.fetch(path);
    if (!answer.ok) throw new Error(`${this.handle} ${path}: ${answer.status} ${await answer.text()}`);
    return (await answer.json()) as T;
  }
}
