// @ts-check
import { execFileSync } from 'node:child_process';
import { build } from 'esbuild';

/* Builds what production runs: the thread that works beside requests, then the pages. */
process.env.NEXT_TELEMETRY_DISABLED = '1';
await build({
  entryPoints: ['src/server/workers/heavy-worker.ts'],
  outfile: 'dist/workers/heavy-worker.mjs',
  bundle: true,
  packages: 'external',
  platform: 'node',
  format: 'esm',
  target: 'node20',
  alias: { '@': './src' },
  logLevel: 'warning',
});
execFileSync(process.execPath, ['node_modules/next/dist/bin/next', 'build'], { stdio: 'inherit' });
