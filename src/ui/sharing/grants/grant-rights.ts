'use client';
import type { RightsWire } from '@/contract/sharing/sight.ts';

/** What of a choice is kept when another row, or another screen, is turned to. */
export interface SavedGrant {
  readonly chosen: RightsWire | null;
  readonly span: { from: string; until: string } | null;
  readonly note: string;
  readonly linkName: string;
}
