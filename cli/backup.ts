import { type BackupFacts, BackupRefused, backUp, restore } from '../src/server/db/backup.ts';

const HELP = `Everything Paramo holds, in one file.

  npm run backup -- FILE     while the server runs or not; checked before it gets its name
  npm run restore -- FILE    into an empty folder, with the server of that folder not running

Set PARAMO_DATA to the folder of the data.`;

async function main([act, file, ...rest]: readonly string[]): Promise<number> {
  if ((act !== 'backup' && act !== 'restore') || !file || file.startsWith('-') || rest.length > 0) {
    console.error(HELP);
    return 2;
  }
  const data = process.env.PARAMO_DATA ?? '.data';
  try {
    const facts = act === 'backup' ? await backUp(data, file) : restore(file, data);
    console.log(said(act === 'backup' ? `${data} is in ${file}` : `${file} is in ${data}`, facts));
    return 0;
  } catch (error) {
    console.error(error instanceof BackupRefused ? error.message : error);
    return 1;
  }
}

const said = (what: string, facts: BackupFacts): string =>
  `${what}, and checked: ${facts.people} people, ${facts.items} items, ${(facts.bytes / 1e6).toFixed(1)} MB.`;

process.exitCode = await main(process.argv.slice(2));
