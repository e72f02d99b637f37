import { spawnSync } from 'node:child_process';
import type { TestProject } from 'vitest/node';
import { isBuilt, START_CODE, seedOnce, startServer } from './servers.ts';

declare module 'vitest' {
  interface ProvidedContext {
    /** Empty, with the tests' clock: an organisation is made by hand in it. */
    empty: string;
    /** The sample organisation. */
    sample: string;
    /** As in production: no sample people, the real clock, nobody in it. */
    production: string;
  }
}

/** One build and three servers for all browser tests. */
export default async function setup(project: TestProject): Promise<() => Promise<void>> {
  if (!isBuilt()) {
    const built = spawnSync(process.execPath, ['scripts/build.mjs'], { encoding: 'utf8' });
    if (built.status !== 0) throw new Error(`${built.stdout}${built.stderr}`);
  }
  seedOnce();
  const servers = await Promise.all([
    startServer('empty', { demo: true, env: { PARAMO_START_CODE: START_CODE } }),
    startServer('sample', { demo: true, sample: true }),
    startServer('production', { demo: false, env: { PARAMO_START_CODE: START_CODE } }),
  ]);
  project.provide('empty', servers[0].address);
  project.provide('sample', servers[1].address);
  project.provide('production', servers[2].address);
  return async () => {
    await Promise.all(servers.map((server) => server.stop()));
  };
}
