export { mayReadMessage, readerOn, takeMessage, unreadFor } from './list-messages.ts';
export { messagesWithAny } from './messages-with.ts';
