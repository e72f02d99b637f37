import type { RouteName } from '@/contract/routes.ts';
import { readTimeUseInWorker, timeUseFileInWorker } from '../../operations/in-worker/in-worker.ts';
import { saveTimeShares } from '../../operations/time-use/index.ts';
import { csvFile } from '../download.ts';
import type { HandlersOf } from '../handler.ts';

export const timeUseHandlers = {
  readTimeUse: { slow: ({ ctx, params, query }) => readTimeUseInWorker(ctx, params.person, query) },
  timeUseFile: {
    slow: async ({ ctx, params, query }) => {
      const file = await timeUseFileInWorker(ctx, params.person, query);
      return file.ok ? csvFile('time-use.csv', file.value) : file;
    },
  },
  saveTimeShares: ({ ctx, params, body }) => saveTimeShares(ctx, params.person, body),
} satisfies Partial<HandlersOf<RouteName>>;
