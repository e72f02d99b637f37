import { now, putForward } from '../clock.ts';
import { writingIsFree } from '../db/gate.ts';
import { database } from '../db/index.ts';
import { log } from '../log.ts';
import { mailPost, post } from '../mail/post.ts';
import { dayLettersDue } from '../operations/days/index.ts';
import { contextFor, freeLapsed } from '../operations/deciding/index.ts';
import { moveHorizons } from '../operations/deciding/writing/indexing.ts';
import { clearPreviews } from '../operations/in-worker/imports.ts';
import { dayLetterInWorker, deliverAll, readFindingsUnseen } from '../operations/in-worker/in-worker.ts';
import { clearAttachments } from '../operations/items/attachments.ts';
import { forgetUnfinished } from '../operations/items/bring-in.ts';
import { releaseDue } from '../operations/meetings/index.ts';
import { clearMessages } from '../operations/messages/change-messages.ts';
import { remindOfEnds } from '../operations/messages/remind-of-ends.ts';
import { sendLetters, settleLetters, type WriteDay } from '../operations/messages/send-letters.ts';
import { sendMail, settleMail } from '../operations/messages/send-mail.ts';
import { howToBegin } from '../operations/people/found-people.ts';
import { remindDue } from '../operations/reminders/index.ts';
import { hearOthers } from '../operations/sharing/hear-others.ts';
import { countFindings } from '../operations/sharing/index.ts';
import { settings } from '../settings.ts';
import { startStandIn } from './correspondents.ts';

const HOUR = 3_600_000;
const LETTERS_EVERY = 1000;
const MAIL_EVERY = 500;
const DELIVERIES_EVERY = 250;
const OTHERS_EVERY = 200;
const REMINDERS_EVERY = 15_000;
/** By how much a signal puts the demo’s clock forward: what waits to be sent is due then. */
const FORWARD_MS = 10_000;
const holder = globalThis as { paramoJobs?: NodeJS.Timeout[] };

/**
 * Opens the data and starts the work that runs in the background: extending the index of endless repeats once an hour, warning people outside
 * before their access ends, counting findings, reminding, sending letters, and hearing what other processes changed. Where a setting is
 * wrong or the data can't be opened the process ends with the reason: a server that can do nothing must not look as if it ran.
 */
export function startJobs(): void {
  if (holder.paramoJobs) return;
  try {
    database();
    post();
  } catch (error) {
    console.error(`Paramo can’t start. ${error instanceof Error ? error.message : String(error)}`);
    process.exit(1);
  }
  const begin = howToBegin(database());
  if (begin) console.log(begin);
  const { clock, demo, smtp } = settings();
  const standsIn = demo && smtp === null;
  const standIn = standsIn ? startStandIn() : Promise.resolve(null);
  settleLetters(database());
  settleMail(database(), standsIn);
  clearPreviews(database());
  void guarded(() => forgetUnfinished(database(), othersFirst))();
  const hear = hearOthers(database());
  let sending = false;
  const letters = async () => {
    if (sending) return;
    sending = true;
    const ofDay: WriteDay = async (person, of) => {
      const letter = await dayLetterInWorker(contextFor(person), of);
      // What can't be written now is tried again, and not taken for a day with nothing to tell.
      if (!letter.ok) throw new Error(letter.code);
      return letter.value;
    };
    await sendLetters(database(), now(), post(), ofDay).finally(() => {
      sending = false;
    });
  };
  let mailing = false;
  const mail = async () => {
    releaseDue(database(), now());
    if (mailing) return;
    mailing = true;
    try {
      await sendMail(database(), now(), mailPost(await standIn));
    } finally {
      mailing = false;
    }
  };
  let delivering = false;
  const deliveries = async () => {
    if (delivering) return;
    delivering = true;
    const others = async () => {
      await othersFirst();
      await writingIsFree();
    };
    await deliverAll(database(), now(), others).finally(() => {
      delivering = false;
    });
  };
  let moving = false;
  const horizon = async () => {
    if (moving) return;
    moving = true;
    await moveHorizons(database(), now(), othersFirst).finally(() => {
      moving = false;
    });
  };
  let reminding = false;
  const remind = async () => {
    if (reminding) return;
    // Whoever has a window open sees at once what has freed itself.
    freeLapsed({ db: database(), now: now() });
    reminding = true;
    await remindDue(database(), now(), othersFirst).finally(() => {
      reminding = false;
    });
  };
  let clearing = false;
  const files = async () => {
    if (clearing) return;
    clearing = true;
    await clearMessages(database(), now(), othersFirst);
    await clearAttachments(database(), now(), othersFirst).finally(() => {
      clearing = false;
    });
  };
  let days = false;
  const dayLetters = async () => {
    if (days) return;
    days = true;
    await dayLettersDue(database(), now(), othersFirst).finally(() => {
      days = false;
    });
  };
  const ends = () => {
    remindOfEnds(database(), now());
  };
  let looking = false;
  const look = async () => {
    if (looking) return;
    looking = true;
    await countFindings(database(), now(), readFindingsUnseen, othersFirst).finally(() => {
      looking = false;
    });
  };
  void guarded(horizon)();
  void guarded(ends)();
  void guarded(look)();
  holder.paramoJobs = [
    setInterval(guarded(horizon), HOUR),
    setInterval(guarded(ends), HOUR),
    setInterval(guarded(files), HOUR),
    setInterval(guarded(look), HOUR),
    setInterval(guarded(remind), REMINDERS_EVERY),
    setInterval(guarded(dayLetters), REMINDERS_EVERY),
    setInterval(guarded(letters), LETTERS_EVERY),
    setInterval(guarded(mail), MAIL_EVERY),
    setInterval(guarded(deliveries), DELIVERIES_EVERY),
    setInterval(guarded(hear), OTHERS_EVERY),
  ];
  for (const job of holder.paramoJobs) job.unref();
  if (clock !== null) process.on('SIGUSR2', () => putForward(FORWARD_MS));
}

/** Lets whatever waits have its turn. */
const othersFirst = (): Promise<void> => new Promise((go) => setImmediate(go));

/** Work that may fail without ending the process: its failure is logged, and it comes again. */
const guarded = (work: () => void | Promise<void>) => async () => {
  try {
    await writingIsFree();
    await work();
  } catch (error) {
    log().error({ error: String(error) }, 'work in the background failed');
  }
};
