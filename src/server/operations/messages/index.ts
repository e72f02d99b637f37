export { mayReadMessage, readerOn, takeMessage, unreadFor } from './list-messages.ts';
