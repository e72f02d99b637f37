// @ts-check
import { execFileSync, spawn } from 'node:child_process';
import { randomBytes } from 'node:crypto';
import { existsSync, mkdirSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { ensureInstalled } from './ensure-installed.mjs';

/* Installs, builds, seeds and starts Paramo with the sample organisation. `--fresh` throws the last run's data away. */
await ensureInstalled();
const data = process.env.PARAMO_DATA ?? '.data/demo';
if (process.argv.includes('--fresh')) rmSync(data, { recursive: true, force: true });
mkdirSync(data, { recursive: true });
const secretFile = join(data, 'secret');
if (!existsSync(secretFile)) writeFileSync(secretFile, randomBytes(32).toString('hex'), { mode: 0o600 });
const port = process.env.PORT ?? '3000';
/** @type {NodeJS.ProcessEnv} */
const env = {
  ...process.env,
  NODE_ENV: 'production',
  NEXT_TELEMETRY_DISABLED: '1',
  PARAMO_DEMO: '1',
  PARAMO_DATA: data,
  PARAMO_SECRET: readFileSync(secretFile, 'utf8'),
  PORT: port,
};
/** @param {string[]} args */
const run = (args) => execFileSync(process.execPath, args, { stdio: 'inherit', env });
if (!process.argv.includes('--no-build')) {
  console.log('Building…');
  execFileSync(process.execPath, ['scripts/build.mjs'], { stdio: ['ignore', 'ignore', 'inherit'], env });
}
if (!existsSync(join(data, 'paramo.db'))) {
  console.log('Seeding Cloudmoor Trust…');
  run(['node_modules/tsx/dist/cli.mjs', 'demo/seed.ts']);
}
const server = spawn(process.execPath, ['server.mjs'], { stdio: 'inherit', env });
server.on('exit', (code) => process.exit(code ?? 0));
process.on('SIGINT', () => server.kill('SIGINT'));
process.on('SIGTERM', () => server.kill('SIGTERM'));
console.log(`
  Open   http://localhost:${port}   and step in as anyone the page lists. Each person has an address of their own,
  so that several can stand side by side:

    Inés Varga, the director           http://ines.localhost:${port}
    Tomas Lindqvist, her assistant     http://tomas.localhost:${port}
    Amara, Bruno, Dario, Oona          http://amara.localhost:${port}  and so on

  The data stays in ${data}; start again with  npm run demo -- --fresh  for a new organisation.
`);
