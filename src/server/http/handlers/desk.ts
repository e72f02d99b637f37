import type { RouteName } from '@/contract/routes.ts';
import { openDeskRow, readDeskPreferences, saveDeskPreferences, takeDeskStep } from '../../operations/desk/index.ts';
import { readDeskInWorker } from '../../operations/in-worker/in-worker.ts';
import type { HandlersOf } from '../handler.ts';

export const deskHandlers = {
  readDesk: ({ ctx, query }) => readDeskInWorker(ctx, query.for),
  takeDeskStep: ({ ctx, params, query, body }) => takeDeskStep(ctx, params.row, body, query.for),
  openDeskRow: ({ ctx, params, query, body }) => openDeskRow(ctx, params.row, body.open, query.for),
  readDeskPreferences: ({ ctx, params }) => readDeskPreferences(ctx, params.person),
  saveDeskPreferences: ({ ctx, params, body }) => saveDeskPreferences(ctx, params.person, body),
} satisfies Partial<HandlersOf<RouteName>>;
