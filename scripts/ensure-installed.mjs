// @ts-check
import { execFileSync, spawn } from 'node:child_process';
import { createHash } from 'node:crypto';
import { existsSync, readFileSync, writeFileSync } from 'node:fs';

const MARK = 'node_modules/.paramo-installed';
const shell = process.platform === 'win32';

/**
 * Installs the packages where they aren't, or where the lock file has changed since; says what is missing and stops. When this returns the
 * packages are there, and the promise is kept once the database is compiled too, which takes one core more than a minute: there may be other
 * work meanwhile. Whatever was broken off is done again.
 */
export function ensureInstalled() {
  const want = missing();
  if (want === null) return Promise.resolve();
  install();
  // What installing would have run: the packages' own compiling, then our preparation.
  return npm(['rebuild'])
    .then(() => npm(['run', 'prepare']))
    .then(() => writeFileSync(MARK, want));
}

/** What the lock file asks for, where that isn't installed; `null` where it is. */
function missing() {
  const [major = 0, minor = 0] = process.versions.node.split('.').map(Number);
  if (major < 20 || (major === 20 && minor < 16)) {
    console.error(
      `Node 20.16 or newer is needed; this is ${process.version}. Get it from your system's packages or nodejs.org.`,
    );
    process.exit(1);
  }
  const want = createHash('sha256').update(readFileSync('package-lock.json')).digest('hex');
  const have = existsSync(MARK) ? readFileSync(MARK, 'utf8') : '';
  return have === want ? null : want;
}

function install() {
  console.log('Installing packages (the database is compiled here, which takes some minutes the first time)…');
  try {
    // Not `npm ci`: it refuses a lock file where a registry lacks builds for machines other than this one.
    execFileSync('npm', ['install', '--no-save', '--no-audit', '--no-fund', '--ignore-scripts'], {
      stdio: ['ignore', 'ignore', 'inherit'],
      shell,
    });
  } catch {
    couldNot();
  }
}

/** @param {string[]} args */
const npm = (args) =>
  /** @type {Promise<void>} */ (
    new Promise((done) => {
      // SQLite's own default. Its package asks for -O3, which takes twice as long to compile and ran our mix of queries no faster.
      const env = { ...process.env, CFLAGS: `-O2 ${process.env.CFLAGS ?? ''}` };
      const child = spawn('npm', args, { stdio: ['ignore', 'ignore', 'inherit'], shell, env });
      child.once('error', couldNot).once('exit', (code) => (code === 0 ? done() : couldNot()));
    })
  );

function couldNot() {
  console.error(
    'The packages could not be installed. What is needed: the npm registry, and for the database python3, make and a C++ compiler (Debian: apt-get install python3 make g++).',
  );
  process.exit(1);
}
