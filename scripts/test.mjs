// @ts-check
import { spawn } from 'node:child_process';
import { existsSync, mkdirSync, readFileSync, rmSync } from 'node:fs';
import { relative } from 'node:path';
import { findChromium, HOW_TO_GET_CHROMIUM } from './chromium.mjs';
import { ensureInstalled } from './ensure-installed.mjs';

/*
 * Everything that says whether Paramo is right: types, lint, walls, unit and property tests, conformance, and the browser
 * tests on the built product. The database's compiling and the build run beside the checks that don't need them. Ends with `N passed, N failed`.
 */
const installed = ensureInstalled();
const chromium = findChromium();
if (!chromium) {
  console.error(HOW_TO_GET_CHROMIUM);
  process.exit(1);
}

const REPORTS = '.e2e/reports';
rmSync('.e2e', { recursive: true, force: true });
mkdirSync(REPORTS, { recursive: true });
/** @type {NodeJS.ProcessEnv} */
const env = {
  ...process.env,
  NEXT_TELEMETRY_DISABLED: '1',
  CHROMIUM_PATH: chromium,
  // Run by a process, not by a person: tools print plain lines.
  NO_COLOR: '1',
};
let passed = 0;
let failed = 0;
/** What failed, in few lines each: repeated at the end, where it is looked for first. @type {string[]} */
const faults = [];
const FAULT_LINES = 12;
const FAULTS_SHOWN = 20;

/** Runs one check; its output is shown whole when it ends. @param {string} name @param {string[]} args */
function run(name, args) {
  const started = Date.now();
  return new Promise((done) => {
    const child = spawn(process.execPath, args, { env, stdio: ['ignore', 'pipe', 'pipe'] });
    let output = '';
    child.stdout.on('data', (data) => {
      output += data;
    });
    child.stderr.on('data', (data) => {
      output += data;
    });
    child.on('close', (code) => {
      const seconds = ((Date.now() - started) / 1000).toFixed(1);
      console.log(`${code === 0 ? 'ok    ' : 'FAILED'} ${name} (${seconds} s)`);
      if (code !== 0) console.log(output);
      done({ ok: code === 0, output });
    });
  });
}

/** @param {string} name @param {string} why */
function fault(name, why) {
  failed++;
  const lines = why.split('\n').filter((line) => line.trim() !== '');
  const ours = lines.slice(FAULT_LINES).filter((line) => /^\s+at (?!.*node_modules)/.test(line));
  const shown = [...lines.slice(0, FAULT_LINES), ...ours.slice(0, FAULT_LINES)];
  faults.push([`FAILED ${name}`, ...shown.map((line) => `    ${line.slice(0, 300)}`)].join('\n'));
}

/** A check that counts as one. @param {string} name @param {string[]} args */
async function check(name, args) {
  const { ok } = await run(name, args);
  if (ok) passed++;
  else fault(name, '');
  return ok;
}

/** Vitest's tests, each counted. @param {string} name @param {string} projects */
async function vitest(name, projects) {
  const report = `${REPORTS}/${name}.json`;
  const args = ['node_modules/vitest/vitest.mjs', 'run', '--project', projects];
  const before = failed;
  const { ok } = await run(`${name} tests`, [
    ...args,
    '--reporter=default',
    '--reporter=json',
    `--outputFile.json=${report}`,
  ]);
  try {
    const counts = JSON.parse(readFileSync(report, 'utf8'));
    passed += counts.numPassedTests;
    for (const file of counts.testResults) {
      const path = relative(process.cwd(), file.name);
      const tests = file.assertionResults.filter((/** @type {{ status: string }} */ t) => t.status === 'failed');
      for (const { fullName, failureMessages } of tests) fault(`${path}: ${fullName}`, failureMessages.join('\n'));
      if (file.status === 'failed' && tests.length === 0) fault(path, file.message ?? '');
    }
    if (!ok && failed === before) fault(`${name} tests`, 'every test passed, the run did not');
  } catch (error) {
    fault(`${name} tests`, String(error));
  }
}

async function conformance(/** @type {string} */ rule) {
  const { ok, output } = await run(`conformance: ${rule}`, [
    'node_modules/tsx/dist/cli.mjs',
    'cli/conformance.ts',
    `conformance/${rule}`,
  ]);
  const counts = /(\d+) passed, (\d+) failed\s*$/.exec(output);
  passed += Number(counts?.[1] ?? 0);
  const wrong = Number(counts?.[2] ?? (ok ? 0 : 1));
  for (let i = 0; i < wrong; i++) fault(`conformance: ${rule}`, '');
}

const bin = (/** @type {string} */ path) => `node_modules/${path}`;
// The compiler made of machine code takes a third of the time; where there is none for a machine, the other one says the same.
const native = existsSync(`node_modules/@typescript/typescript-${process.platform}-${process.arch}`);
const compiler = bin(native ? 'typescript-7/bin/tsc' : 'typescript/bin/tsc');
// The build writes types of its own, which must be neither old nor half written when they are read.
rmSync('.next/types', { recursive: true, force: true });
const types = check('types', [compiler, '--noEmit', '--incremental', 'false']);
await check('core without DOM and Node types', [compiler, '-p', 'tsconfig.core.json']);
await check('lint', [bin('@biomejs/biome/bin/biome'), 'check', '.']);
await check('dead code', [bin('knip/bin/knip.js')]);
if (await types) env.PARAMO_TYPES_READ = '1';
const building = check('build', ['scripts/build.mjs']);
// The sample organisation of the browser tests is seeded beside the unit tests.
const seeding = installed.then(() => run('sample organisation', [bin('tsx/dist/cli.mjs'), 'e2e/seed.ts']));
await check('walls', [
  bin('dependency-cruiser/bin/dependency-cruise.mjs'),
  'src',
  'demo',
  'cli',
  'e2e',
  'bench',
  'standins',
  '--config',
  '.dependency-cruiser.cjs',
]);
await conformance('access');
await conformance('openings');
await conformance('desk');
await installed;
await vitest('unit', 'unit*');
if ((await seeding).ok) env.PARAMO_SEEDED = '1';
if (await building) await vitest('browser', 'e2e');
if (faults.length > FAULTS_SHOWN)
  faults.splice(FAULTS_SHOWN, faults.length, `and ${faults.length - FAULTS_SHOWN} more`);
for (const line of faults) console.log(line);
console.log(`${passed} passed, ${failed} failed`);
process.exit(failed === 0 ? 0 : 1);
