// @ts-check
import { execFileSync } from 'node:child_process';
import { build } from 'esbuild';

/* Builds what production runs: the worker that reads files, then the pages. */
process.env.NEXT_TELEMETRY_DISABLED = '1';
await build({
  entryPoints: ['src/server/workers/read-file-worker.ts'],
  outfile: 'dist/workers/read-file-worker.mjs',
  bundle: true,
  platform: 'node',
  format: 'esm',
  target: 'node20',
  alias: { '@': './src' },
  logLevel: 'warning',
});
execFileSync(process.execPath, ['node_modules/next/dist/bin/next', 'build'], { stdio: 'inherit' });
