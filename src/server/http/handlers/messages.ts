import type { RouteName } from '@/contract/routes.ts';
import { bringListBack } from '../../operations/lists/index.ts';
import { changeMessages } from '../../operations/messages/change-messages.ts';
import { saveDraft } from '../../operations/messages/drafts.ts';
import { addFolder, changeFolder, listFolders, moveFolder, removeFolder } from '../../operations/messages/folders.ts';
import { listMessages, readMessages, readThread, takeMessage } from '../../operations/messages/list-messages.ts';
import { listMailRules, saveMailRules } from '../../operations/messages/mail-rules.ts';
import { readMessageFile } from '../../operations/messages/message-file.ts';
import { listNotices, readNotices } from '../../operations/messages/notices.ts';
import { writeMailFor } from '../../operations/messages/write-mail.ts';
import { sandboxed } from '../download.ts';
import type { HandlersOf } from '../handler.ts';

export const messagesHandlers = {
  listNotices: ({ ctx }) => listNotices(ctx),
  readNotices: ({ ctx }) => readNotices(ctx),
  listMessages: ({ ctx, params, query }) => listMessages(ctx, params.person, query),
  readMessages: ({ ctx, params, body }) => readMessages(ctx, params.person, body),
  listFolders: ({ ctx, params, query }) => listFolders(ctx, params.person, query),
  addFolder: ({ ctx, params, body }) => addFolder(ctx, params.person, body),
  changeFolder: ({ ctx, params, body }) => changeFolder(ctx, params.folder, body),
  removeFolder: ({ ctx, params }) => removeFolder(ctx, params.folder),
  bringFolderBack: ({ ctx, params }) => bringListBack(ctx, params.folder),
  moveFolder: ({ ctx, params, body }) => moveFolder(ctx, params.folder, body.parent),
  changeMessages: ({ ctx, params, body }) => changeMessages(ctx, params.folder, body),
  readThread: ({ ctx, params }) => readThread(ctx, params.message),
  readMessageFile: {
    slow: async ({ ctx, params }) => {
      const file = await readMessageFile(ctx, params.message, params.file);
      return file.ok ? sandboxed(file.value) : file;
    },
  },
  saveDraft: ({ ctx, params, body }) => saveDraft(ctx, params.person, body),
  listMailRules: ({ ctx, params }) => listMailRules(ctx, params.person),
  saveMailRules: ({ ctx, params, body }) => saveMailRules(ctx, params.person, body),
  writeMail: ({ ctx, params, body }) => writeMailFor(ctx, params.person, body),
  takeMessage: ({ ctx, params }) => takeMessage(ctx, params.message),
} satisfies Partial<HandlersOf<RouteName>>;
