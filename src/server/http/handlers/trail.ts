import type { RouteName } from '@/contract/routes.ts';
import { listTrailInWorker, trailFileInWorker } from '../../operations/in-worker/in-worker.ts';
import { listRemoved } from '../../operations/items/index.ts';
import { bringBackMeeting } from '../../operations/meetings/index.ts';
import { readTrail, readTrailDigest } from '../../operations/trail/index.ts';
import { csvFile } from '../download.ts';
import type { HandlersOf } from '../handler.ts';

export const trailHandlers = {
  listTrail: { slow: ({ ctx, query }) => listTrailInWorker(ctx, query) },
  trailFile: {
    slow: async ({ ctx, query }) => {
      const file = await trailFileInWorker(ctx, query);
      return file.ok ? csvFile('trail.csv', file.value) : file;
    },
  },
  readTrailDigest: ({ ctx }) => readTrailDigest(ctx),
  readTrail: ({ ctx, params }) => readTrail(ctx, params.item),
  listRemoved: ({ ctx, params }) => listRemoved(ctx, params.calendar),
  bringBack: ({ ctx, params }) => bringBackMeeting(ctx, params.item),
} satisfies Partial<HandlersOf<RouteName>>;
