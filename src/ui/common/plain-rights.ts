import type { RightsWire } from '@/contract/sight.ts';

/** Free/busy and nothing besides: what is asked for first. */
export const FREE_BUSY: RightsWire = {
  sight: 'busy',
  add: false,
  change: 'none',
  remove: 'none',
  suggest: false,
  private: false,
  speaks: false,
  copies: false,
  shares: false,
};
