// @ts-check
import { existsSync } from 'node:fs';

const PLACES = [
  // The same engine without windows of its own, which nobody would look at: a quarter less work.
  '/usr/bin/chromium-headless-shell',
  '/usr/bin/chromium',
  '/usr/bin/chromium-browser',
  '/snap/bin/chromium',
  '/Applications/Chromium.app/Contents/MacOS/Chromium',
];

/** The path of a Chromium on this machine: `CHROMIUM_PATH`, or the first of the usual places; `null` where there is none. */
export function findChromium() {
  const asked = process.env.CHROMIUM_PATH;
  if (asked) return existsSync(asked) ? asked : null;
  return PLACES.find((place) => existsSync(place)) ?? null;
}

export const HOW_TO_GET_CHROMIUM =
  'The browser tests drive a real Chromium, and none was found. Install it (Debian: apt-get install chromium-headless-shell, or chromium) or set CHROMIUM_PATH to its program.';

/** What it is started with wherever nobody looks at it: nothing in it reaches out. */
export const QUIETLY = [
  '--no-sandbox',
  '--disable-gpu',
  '--disable-quic',
  '--no-first-run',
  '--disable-background-networking',
  '--disable-component-update',
  '--disable-sync',
];
