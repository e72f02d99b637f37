import { DOMAINS } from 'free-email-domains-list';
import { settings } from '../settings.ts';

/** Mail hosts of the sample's world where anybody has an address. */
const INVENTED = new Set(['freemail.example']);

/**
 * Whether a domain is one where anybody gets an address, so that two addresses of it say nothing of each other: by a kept list, and what the
 * house adds to it by `PARAMO_PUBLIC_MAIL_HOSTS`. `domain` is in small letters.
 */
export function isPublicMailHost(domain: string): boolean {
  return DOMAINS.has(domain) || INVENTED.has(domain) || settings().publicMailHosts.has(domain);
}
