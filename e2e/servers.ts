import { type ChildProcess, spawn, spawnSync } from 'node:child_process';
import { cpSync, existsSync, mkdirSync, rmSync } from 'node:fs';
import { createServer } from 'node:net';
import { join } from 'node:path';
import { afterAll } from 'vitest';

/** Tuesday, 2 March 2027, 9:10 in Lisbon: when the tests' servers believe it is. */
export const CLOCK = '2027-03-02T09:10:00Z';

/** What mail that comes in from outside is signed with. */
export const INBOUND_SECRET = 'a secret for mail in tests';

/** The code by which the first start is made, where it is made outside the demo. */
export const START_CODE = 'TESTS-ONLY';

export interface Running {
  readonly address: string;
  readonly port: number;
  readonly data: string;
  readonly stop: () => Promise<void>;
}

/** The sample organisation as it was seeded, before any server ran on it. */
const SEEDED = join(process.cwd(), '.e2e', 'seeded');

/** Seeds the sample organisation once, for all servers that begin with it. */
export function seedOnce(): void {
  rmSync(SEEDED, { recursive: true, force: true });
  mkdirSync(SEEDED, { recursive: true });
  const env = {
    ...process.env,
    NODE_ENV: 'production',
    PARAMO_DATA: SEEDED,
    ...SETTINGS,
    PARAMO_DEMO: '1',
    PARAMO_CLOCK: CLOCK,
  };
  seed(env as NodeJS.ProcessEnv);
}

function seed(env: NodeJS.ProcessEnv): void {
  const seeded = spawnSync(process.execPath, ['node_modules/tsx/dist/cli.mjs', 'demo/seed.ts'], {
    env,
    encoding: 'utf8',
  });
  if (seeded.status !== 0) throw new Error(`seeding failed: ${seeded.stdout}${seeded.stderr}`);
}

/** What every server of the tests is told, whatever is in it. */
const SETTINGS = {
  PARAMO_SECRET: 'a secret for tests alone, 32 characters long',
  PARAMO_LOG: 'warn',
  PARAMO_INBOUND_SECRET: INBOUND_SECRET,
  PARAMO_CHECK_ANSWERS: '1',
};

/** Beneath the ports that connections are given, so that none of them takes one between two servers. */
const FIRST_PORT = 21_000;
const PORTS_OF_WORKER = 100;
/** The ports at which this worker's servers run now. */
const taken = new Set<number>();

/**
 * A port nobody listens on, the same one for one server after the other: what the browser keeps of the product's scripts, it then keeps for the
 * next file's server too.
 */
async function freePort(): Promise<number> {
  const first = FIRST_PORT + Number(process.env.VITEST_POOL_ID ?? 0) * PORTS_OF_WORKER;
  for (let port = first; port < first + PORTS_OF_WORKER; port++) {
    if (taken.has(port) || !(await isFree(port))) continue;
    taken.add(port);
    return port;
  }
  throw new Error(`no port is free from ${first} on`);
}

const isFree = (port: number): Promise<boolean> =>
  new Promise((done) => {
    const probe = createServer()
      .once('error', () => done(false))
      .listen(port, () => probe.close(() => done(true)));
  });

/** The running servers by their address. */
const running = new Map<string, ChildProcess>();

/** Puts a server's clock forward by ten seconds: what waits for its ten seconds is sent, and nobody waits for it. */
export function tenSecondsPass(address: string): void {
  if (!running.get(address)?.kill('SIGUSR2')) throw new Error(`no server runs at ${address}`);
}

/** The address of a server with the sample organisation for one file of tests alone; it ends with them. */
export async function sampleFor(name: string): Promise<string> {
  const server = await startServer(name, { demo: true, sample: true });
  afterAll(server.stop);
  return server.address;
}

/** Starts the built product on data of its own. `sample` seeds the sample organisation; `demo` gives it the tests' clock. */
export async function startServer(
  name: string,
  options: {
    demo: boolean;
    sample?: boolean;
    env?: Readonly<Record<string, string>>;
    /** Goes on with what is there, at this time of the demo's clock. */
    later?: string;
  },
): Promise<Running> {
  const data = join(process.cwd(), '.e2e', name);
  if (!options.later) {
    rmSync(data, { recursive: true, force: true });
    mkdirSync(data, { recursive: true });
  }
  const port = await freePort();
  const env: NodeJS.ProcessEnv = {
    ...process.env,
    NODE_ENV: 'production',
    PARAMO_DATA: data,
    ...SETTINGS,
    PORT: String(port),
    PARAMO_ADDRESS: `http://localhost:${port}`,
    ...options.env,
    ...(options.demo ? { PARAMO_DEMO: '1', PARAMO_CLOCK: options.later ?? CLOCK } : {}),
  };
  // What differs by its settings is seeded for itself; of everything else there is one, and it is copied.
  if (options.later) mkdirSync(data, { recursive: true });
  else if (options.sample && options.demo && !options.env && existsSync(SEEDED))
    cpSync(SEEDED, data, { recursive: true });
  else if (options.sample) seed(env);
  const child = spawn(process.execPath, ['server.mjs'], { env, stdio: ['ignore', 'pipe', 'pipe'] });
  await ready(child);
  const address = `http://localhost:${port}`;
  running.set(address, child);
  return {
    address,
    port,
    data,
    stop: () =>
      new Promise((done) => {
        child.once('exit', () => {
          taken.delete(port);
          done();
        });
        child.kill('SIGTERM');
      }),
  };
}

function ready(child: ChildProcess): Promise<void> {
  return new Promise((done, fail) => {
    let said = '';
    const hear = (data: Buffer) => {
      said += data.toString();
      if (said.includes('Paramo is ready')) done();
    };
    child.stdout?.on('data', hear);
    child.stderr?.on('data', hear);
    child.once('exit', (code) => fail(new Error(`the server ended with ${code}:\n${said}`)));
  });
}

/** Whether the product has been built. */
export const isBuilt = (): boolean => existsSync('.next/BUILD_ID') && existsSync('dist/workers/heavy-worker.cjs');
