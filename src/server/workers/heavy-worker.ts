import { type MessagePort, parentPort } from 'node:worker_threads';
import { openDatabase } from '../db/index.ts';
import { beElsewhere, type Listener } from '../live/hub.ts';
import { doJob } from '../operations/in-worker/jobs.ts';
import { settings } from '../settings.ts';
import type { FromThread, Port, ToThread } from './port.ts';

/* A thread beside the one that serves requests: the same operations over a connection of its own. */

function begin(main: MessagePort): void {
  beElsewhere();
  const db = openDatabase(settings().data, true);
  const stopped = new Set<number>();
  const going = new Map<number, (listeners: readonly Listener[]) => void>();
  const say = (message: FromThread): void => main.postMessage(message);

  function portOf(id: number): Port {
    return {
      progress: (done, of) => say({ id, progress: [done, of] }),
      stopped: () => stopped.has(id),
      // A moment in which messages are heard and the other thread finds the file free to write.
      others: () => new Promise((go) => setTimeout(go, 1)),
      alone: async (work) => {
        const listeners = await new Promise<readonly Listener[]>((go) => {
          going.set(id, go);
          say({ id, wantsAlone: true });
        });
        try {
          return work(listeners);
        } finally {
          say({ id, isOver: true });
        }
      },
    };
  }

  main.on('message', async (message: ToThread) => {
    const { id } = message;
    if ('stop' in message) stopped.add(id);
    else if ('go' in message) going.get(id)?.(message.go);
    else
      try {
        const result = await doJob(db, message.work, portOf(id));
        say({ id, result });
      } catch (error) {
        say({ id, failed: error instanceof Error ? (error.stack ?? error.message) : String(error) });
      } finally {
        stopped.delete(id);
        going.delete(id);
      }
  });
}

// The build runs this script as well, to make its code cache; it is no thread then.
if (parentPort) begin(parentPort);
