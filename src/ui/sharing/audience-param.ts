import type { AudienceWire } from '@/contract/sharing/sharing.ts';

/** How an audience stands in an address: `everyone`, `person:HANDLE`, `group:KEY`, `link:KEY`; one still to be made by what it is. */
export const audienceParam = (a: AudienceWire): string => {
  switch (a.kind) {
    case 'everyone':
      return 'everyone';
    case 'address':
      return `address:${a.address}`;
    case 'newLink':
      return 'newLink';
    default:
      return `${a.kind}:${a.id}`;
  }
};
