export { unreadFor, waitingFor } from './list-messages.ts';
