export { takeMessage, unreadFor } from './list-messages.ts';
export { messagesWithAny } from './messages-with.ts';
export { messageSeen, readerOn } from './readers.ts';
