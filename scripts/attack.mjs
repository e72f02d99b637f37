// @ts-check
import { spawnSync } from 'node:child_process';
import { existsSync } from 'node:fs';
import { ensureInstalled } from './ensure-installed.mjs';

/* Attacks a server that it starts itself, on data of its own: everything that `npm test` attacks, and what takes longer. */
await ensureInstalled();
if (!existsSync('.next/BUILD_ID')) spawnSync(process.execPath, ['scripts/build.mjs'], { stdio: 'inherit' });
const run = spawnSync(
  process.execPath,
  ['node_modules/vitest/vitest.mjs', 'run', '--project', 'e2e', '--maxWorkers=1', 'e2e/attack'],
  {
    stdio: 'inherit',
    env: { ...process.env, PARAMO_ATTACK: 'all', PARAMO_TIMED: '1' },
  },
);
process.exit(run.status ?? 1);
