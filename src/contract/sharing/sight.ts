import { z } from 'zod';
import { SCOPES, SIGHTS } from '@/core/calendar/index.ts';

/** A full set of rights, as a grant holds it and as a decision answers it. */
export const rightsSchema = z.strictObject({
  sight: z.enum(SIGHTS),
  add: z.boolean(),
  change: z.enum(SCOPES),
  remove: z.enum(SCOPES),
  suggest: z.boolean(),
  private: z.boolean(),
  speaks: z.boolean(),
  copies: z.boolean(),
  shares: z.boolean(),
  /** Sets the owner's away notice. */
  absence: z.boolean().default(false),
});
export type RightsWire = z.infer<typeof rightsSchema>;
