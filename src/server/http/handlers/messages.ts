import type { RouteName } from '@/contract/routes.ts';
import { listMessages, readMessages, takeMessage } from '../../operations/messages/list-messages.ts';
import { listNotices, readNotices } from '../../operations/messages/notices.ts';
import { writeMailFor } from '../../operations/messages/write-mail.ts';
import type { HandlersOf } from '../handler.ts';

export const messagesHandlers = {
  listNotices: ({ ctx }) => listNotices(ctx),
  readNotices: ({ ctx }) => readNotices(ctx),
  listMessages: ({ ctx, params, query }) => listMessages(ctx, params.person, query.before ?? null),
  readMessages: ({ ctx, params, body }) => readMessages(ctx, params.person, body.messages),
  writeMail: ({ ctx, params, body }) => writeMailFor(ctx, params.person, body),
  takeMessage: ({ ctx, params }) => takeMessage(ctx, params.message),
} satisfies Partial<HandlersOf<RouteName>>;
