import type { AudienceWire } from '@/contract/access.ts';

/** How an audience stands in an address: `everyone`, `person:HANDLE`, `group:KEY`. */
export const audienceParam = (a: AudienceWire): string => (a.kind === 'everyone' ? 'everyone' : `${a.kind}:${a.id}`);
