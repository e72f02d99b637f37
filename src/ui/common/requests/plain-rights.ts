import type { RightsWire } from '@/contract/sharing/sight.ts';

export const NOTHING: RightsWire = {
  sight: 'nothing',
  add: false,
  change: 'none',
  remove: 'none',
  suggest: false,
  private: false,
  speaks: false,
  copies: false,
  shares: false,
  absence: false,
};

/** Free/busy and nothing besides: what is given and asked for first. */
export const FREE_BUSY: RightsWire = { ...NOTHING, sight: 'busy' };
