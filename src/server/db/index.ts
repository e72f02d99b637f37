export { type Connection, database, isOwn, openAccountsFile, openDatabase } from './connection.ts';
