import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { settings } from '../settings.ts';

/** Mail hosts of the sample's world where anybody has an address. */
const INVENTED = new Set(['freemail.example']);

/** The kept list of such hosts, a line each. As a module it would be two megabytes of program to read at every start, of every thread. */
const LIST = join(process.cwd(), 'node_modules/free-email-domains-list/build/src/constants.js');
let text: string | null = null;

function isListed(domain: string): boolean {
  text ??= readFileSync(LIST, 'latin1');
  return text.includes(`\n    ${JSON.stringify(domain)}`);
}

/**
 * Whether a domain is one where anybody gets an address, so that two addresses of it say nothing of each other: by a kept list, and what the
 * house adds to it by `PARAMO_PUBLIC_MAIL_HOSTS`. `domain` is in small letters.
 */
export function isPublicMailHost(domain: string): boolean {
  return INVENTED.has(domain) || settings().publicMailHosts.has(domain) || isListed(domain);
}
