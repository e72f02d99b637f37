import type { RouteName } from '@/contract/routes.ts';
import { readItem } from '../../operations/deciding/access/find-item.ts';
import { bringIn, previewImport, readImport, stopImport, undoAny } from '../../operations/in-worker/imports.ts';
import {
  changeMeetingInWorker,
  changeSeveralInWorker,
  createMeetingInWorker,
  exportFileInWorker,
  listItemsInWorker,
  listLoadInWorker,
} from '../../operations/in-worker/in-worker.ts';
import {
  addAttachment,
  bringBackAttachment,
  listAttachments,
  listTargets,
  previewRepeat,
  readAttachment,
  removeAttachment,
  sayLooking,
} from '../../operations/items/index.ts';
import {
  changeMeeting,
  changeSeveral,
  copyItem,
  createMeeting,
  listApart,
  rejoinItem,
  removeMeeting,
} from '../../operations/meetings/index.ts';
import { ok } from '../../result.ts';
import { calendarFile, download } from '../download.ts';
import type { HandlersOf } from '../handler.ts';

export const itemsHandlers = {
  listAttachments: ({ ctx, params }) => listAttachments(ctx, params.item),
  addAttachment: {
    slow: ({ ctx, params, query, request }) => addAttachment(ctx, params.item, query.name, request.body),
  },
  readAttachment: {
    slow: async ({ ctx, params }) => {
      const file = await readAttachment(ctx, params.attachment);
      return file.ok ? download(file.value) : file;
    },
  },
  removeAttachment: ({ ctx, params }) => removeAttachment(ctx, params.attachment),
  bringBackAttachment: ({ ctx, params }) => bringBackAttachment(ctx, params.attachment),
  previewImport: {
    slow: ({ ctx, params, bytes, request }) => previewImport(ctx, params.calendar, bytes, request.signal),
  },
  readImport: ({ ctx, params }) => readImport(ctx, params.preview),
  stopImport: ({ ctx, params }) => stopImport(ctx, params.preview),
  bringIn: { slow: ({ ctx, params }) => bringIn(ctx, params.preview) },
  exportFile: {
    slow: async ({ ctx, params }) => {
      const result = await exportFileInWorker(ctx, params.calendar);
      return result.ok ? calendarFile(result.value.name, result.value.text) : result;
    },
  },
  listTargets: ({ ctx }) => ok(listTargets(ctx)),
  sayLooking: ({ ctx, params, body }) => sayLooking(ctx, params.item, body),
  changeSeveral: {
    handle: ({ ctx, body }) => changeSeveral(ctx, body),
    inWorker: ({ ctx, body }) => changeSeveralInWorker(ctx, body),
  },
  copyItem: ({ ctx, params, body }) => copyItem(ctx, params.item, body.dates),
  listApart: ({ ctx, params }) => listApart(ctx, params.item),
  rejoinItem: ({ ctx, params, body }) => rejoinItem(ctx, params.item, body.version),
  listItems: { slow: ({ ctx, params, query }) => listItemsInWorker(ctx, params.calendar, query) },
  listLoad: { slow: ({ ctx, params, query }) => listLoadInWorker(ctx, params.calendar, query) },
  createItem: {
    handle: ({ ctx, params, body }) => createMeeting(ctx, params.calendar, body),
    inWorker: ({ ctx, params, body }) => createMeetingInWorker(ctx, params.calendar, body),
  },
  readItem: ({ ctx, params }) => readItem(ctx, params.item),
  changeItem: {
    handle: ({ ctx, params, body }) => changeMeeting(ctx, params.item, body),
    inWorker: ({ ctx, params, body }) => changeMeetingInWorker(ctx, params.item, body),
  },
  removeItem: ({ ctx, params, query }) => removeMeeting(ctx, params.item, query),
  previewRepeat: ({ body }) => previewRepeat(body),
  undo: { slow: ({ ctx, body }) => undoAny(ctx, body.undo) },
} satisfies Partial<HandlersOf<RouteName>>;
