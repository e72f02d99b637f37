export { type Connection, database, openAccountsFile, openDatabase } from './connection.ts';
