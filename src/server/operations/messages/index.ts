export { mayReadMessage, messagesWithAny, readerOn, takeMessage, unreadFor } from './list-messages.ts';
