export { type Connection, database, isOwn, openAccountsFile, openDatabase } from './connection.ts';
export { CHAINED, type ChainedFacts, type ChainedText, entryDigest, newSalt, textDigest } from './trail-digest.ts';
