// @ts-check
import { spawnSync } from 'node:child_process';
import { existsSync } from 'node:fs';
import { findChromium, HOW_TO_GET_CHROMIUM } from './chromium.mjs';
import { ensureInstalled } from './ensure-installed.mjs';

/* Runs the browser tests whose file names begin with what is given, on the product as it was built last: `npm run test:browser -- sightlines`. */
await ensureInstalled();
const chromium = findChromium();
if (!chromium) {
  console.error(HOW_TO_GET_CHROMIUM);
  process.exit(1);
}
if (!existsSync('.next/BUILD_ID')) spawnSync(process.execPath, ['scripts/build.mjs'], { stdio: 'inherit' });
const names = process.argv.slice(2).map((name) => (name.startsWith('-') ? name : `e2e/${name}`));
const run = spawnSync(
  process.execPath,
  ['node_modules/vitest/vitest.mjs', 'run', '--project', 'e2e', '--maxWorkers=1', ...names],
  {
    stdio: 'inherit',
    // One file at a time, and what it says of speed is held: `npm test` only prints it.
    env: { PARAMO_TIMED: '1', ...process.env, CHROMIUM_PATH: chromium },
  },
);
process.exit(run.status ?? 1);
