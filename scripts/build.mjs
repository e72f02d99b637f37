// @ts-check
import { execFileSync } from 'node:child_process';
import { build } from 'esbuild';

/* Builds what production runs: the threads that work beside requests, then the pages. */
process.env.NEXT_TELEMETRY_DISABLED = '1';
await build({
  entryPoints: ['src/server/workers/heavy-worker.ts', 'src/server/mail/mail-worker.ts'],
  outdir: 'dist/workers',
  outExtension: { '.js': '.mjs' },
  entryNames: '[name]',
  bundle: true,
  packages: 'external',
  platform: 'node',
  format: 'esm',
  target: 'node20',
  alias: { '@': './src' },
  logLevel: 'warning',
});
execFileSync(process.execPath, ['node_modules/next/dist/bin/next', 'build'], { stdio: 'inherit' });
