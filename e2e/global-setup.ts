import { spawnSync } from 'node:child_process';
import { isBuilt, seedOnce } from './servers.ts';

/** One build and one sample organisation for all browser tests; each file copies it for a server of its own. */
export default function setup(): void {
  if (!isBuilt()) {
    const built = spawnSync(process.execPath, ['scripts/build.mjs'], { encoding: 'utf8' });
    if (built.status !== 0) throw new Error(`${built.stdout}${built.stderr}`);
  }
  if (!process.env.PARAMO_SEEDED) seedOnce();
}
