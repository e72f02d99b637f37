// @ts-check
import { execFileSync } from 'node:child_process';
import { readdirSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { join, resolve } from 'node:path';
import { gzipSync } from 'node:zlib';
import { build } from 'esbuild';
import { keepMade } from './built.mjs';

/*
 * Builds what production runs: the worker threads, the API, then the pages, and their scripts and styles compressed once for
 * everybody.
 */
process.env.NEXT_TELEMETRY_DISABLED = '1';
/** @type {import('esbuild').BuildOptions} */
const node = {
  entryNames: '[name]',
  bundle: true,
  platform: 'node',
  target: 'node20',
  alias: { '@': './src' },
  logLevel: 'warning',
};
/** Each bundled into one file, which starts faster; what is native, or reads files of its own, stays outside. @type {Record<string, string[]>} */
const SCRIPTS = {
  'dist/server': ['src/server/http/serve.ts'],
  'dist/workers': ['src/server/workers/heavy-worker.ts', 'src/server/mail/mail-worker.ts'],
};
for (const [outdir, entryPoints] of Object.entries(SCRIPTS)) {
  rmSync(outdir, { recursive: true, force: true });
  await build({
    ...node,
    entryPoints,
    outdir,
    outExtension: { '.js': '.cjs' },
    format: 'cjs',
    external: ['better-sqlite3', 'mailparser', 'smtp-server'],
    minifyWhitespace: true,
    minifySyntax: true,
    // `import()` becomes `require`: a script that `vm` runs has no module from which to import.
    supported: { 'dynamic-import': false },
  });
  for (const file of readdirSync(outdir)) if (file.endsWith('.cjs')) keepMade(resolve(outdir, file));
}
execFileSync(process.execPath, ['node_modules/next/dist/bin/next', 'build'], { stdio: 'inherit' });

const built = '.next/static';
for (const file of readdirSync(built, { recursive: true, withFileTypes: true })) {
  if (!/\.(js|css|svg)$/.test(file.name)) continue;
  const path = join(file.parentPath, file.name);
  writeFileSync(`${path}.gz`, gzipSync(readFileSync(path), { level: 9 }));
}
