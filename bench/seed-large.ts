import { mkdirSync, readdirSync } from 'node:fs';
import { openDatabase } from '../src/server/db/index.ts';
import { seedLarge } from './large.ts';

/** `npm run seed:large -- FOLDER [PEOPLE]`: 5,000 people with two million occurrences between them, in a new folder. */
const [folder, people = '5000'] = process.argv.slice(2);
if (!folder || !/^\d{1,5}$/.test(people)) {
  console.error('Name a new folder: npm run seed:large -- FOLDER [PEOPLE]');
  process.exit(2);
}
mkdirSync(folder, { recursive: true });
if (readdirSync(folder).length > 0) {
  console.error(`There is something in ${folder} already. Name a new folder.`);
  process.exit(2);
}
const db = openDatabase(folder);
const started = performance.now();
seedLarge(db, Number(people), (done) => {
  if (done % 1000 === 0) console.log(`${done} people`);
});
const count = db.get<{ n: number }>('SELECT count(*) AS n FROM occurrence')?.n ?? 0;
console.log(`${people} people, ${count} happenings, in ${Math.round((performance.now() - started) / 1000)} s`);
db.raw.close();
