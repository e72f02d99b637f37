import { now } from '../clock.ts';
import { database } from '../db/index.ts';
import { log } from '../log.ts';
import { moveHorizons } from '../operations/indexing.ts';

const HOUR = 3_600_000;
const holder = globalThis as { paramoJobs?: NodeJS.Timeout };

/**
 * Opens the data and starts the hourly work: moving on the index of repeats without end. Where a setting is wrong or the
 * data can't be opened, the process ends with the reason: a server that can do nothing must not look as if it ran.
 */
export function startJobs(): void {
  if (holder.paramoJobs) return;
  const work = () => {
    try {
      moveHorizons(database(), now());
    } catch (error) {
      log().error({ error: String(error) }, 'hourly work failed');
    }
  };
  try {
    database();
  } catch (error) {
    console.error(`Paramo can’t start. ${error instanceof Error ? error.message : String(error)}`);
    process.exit(1);
  }
  work();
  holder.paramoJobs = setInterval(work, HOUR);
  holder.paramoJobs.unref();
}
