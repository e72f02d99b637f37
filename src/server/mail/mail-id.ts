import { settings } from '../settings.ts';

/** The Message-ID of a mail of ours (RFC 5322, 3.6.4), made of its key, so that a receiver knows one that came twice. */
export const mailIdFor = (key: string): string => `<${key}@${new URL(settings().address).hostname}>`;
