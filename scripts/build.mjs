// @ts-check
import { execFileSync } from 'node:child_process';
import { readdirSync, readFileSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { gzipSync } from 'node:zlib';
import { build } from 'esbuild';

/* Builds what production runs: the threads that work beside requests, then the pages, and their scripts and styles compressed once for everybody. */
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

const built = '.next/static';
for (const file of readdirSync(built, { recursive: true, withFileTypes: true })) {
  if (!/\.(js|css|svg)$/.test(file.name)) continue;
  const path = join(file.parentPath, file.name);
  writeFileSync(`${path}.gz`, gzipSync(readFileSync(path), { level: 9 }));
}
