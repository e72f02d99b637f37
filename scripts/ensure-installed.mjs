// @ts-check
import { execFileSync } from 'node:child_process';
import { createHash } from 'node:crypto';
import { existsSync, readFileSync, writeFileSync } from 'node:fs';

const MARK = 'node_modules/.paramo-installed';

/** Installs the packages where they aren't, or where the lock file has changed since. Says what is missing and stops. */
export function ensureInstalled() {
  const [major = 0, minor = 0] = process.versions.node.split('.').map(Number);
  if (major < 20 || (major === 20 && minor < 16)) {
    console.error(
      `Node 20.16 or newer is needed; this is ${process.version}. Get it from your system's packages or nodejs.org.`,
    );
    process.exit(1);
  }
  const want = createHash('sha256').update(readFileSync('package-lock.json')).digest('hex');
  const have = existsSync(MARK) ? readFileSync(MARK, 'utf8') : '';
  if (have === want) return;
  console.log('Installing packages (the database is compiled here, which takes some minutes the first time)…');
  try {
    // Not `npm ci`: it refuses a lock file where a registry lacks builds for machines other than this one.
    execFileSync('npm', ['install', '--no-save', '--no-audit', '--no-fund'], {
      stdio: ['ignore', 'ignore', 'inherit'],
      shell: process.platform === 'win32',
    });
  } catch {
    console.error(
      'The packages could not be installed. What is needed: the npm registry, and for the database python3, make and a C++ compiler (Debian: apt-get install python3 make g++).',
    );
    process.exit(1);
  }
  writeFileSync(MARK, want);
}
