import { createTransport } from 'nodemailer';
import { newItem } from '@/contract/items/items.ts';
import { openDatabase } from '../db/index.ts';
import { mailPostBy } from '../mail/post.ts';
import { mainCalendarOf } from '../repositories/calendars.ts';
import { itemByKey } from '../repositories/items.ts';
import { personByHandle } from '../repositories/people.ts';
import { settings } from '../settings.ts';
import { createMeeting, releaseDue } from './meetings/index.ts';
import { takeMail } from './messages/receive-mail.ts';
import { sendMail, settleMail } from './messages/send-mail.ts';
import { replyTo } from './reply-in-mail.ts';

/*
 * A process that is at work on meetings and says each step it has come to, until it is killed: for the test that kills it. It saves, lets
 * the seconds pass, sends by SMTP and takes in what is answered, as the server does.
 */
const SECONDS = 11_000;
/** Beyond this it would go on by itself if nobody killed it. */
const MOST = 20;
const say = (step: string) => process.stdout.write(`${step}\n`);

/** Works until it is killed: the mail goes to a service at `port`, and what is made says in which `round`. */
export async function work(port: string, round: string): Promise<void> {
  const db = openDatabase(settings().data);
  const post = mailPostBy(createTransport(`smtp://127.0.0.1:${port}`));
  const tomas = personByHandle(db, 'tomas');
  const ines = personByHandle(db, 'ines');
  const calendar = ines && mainCalendarOf(db, ines.id);
  if (!tomas || !calendar) throw new Error('nobody to work for');
  settleMail(db, false);
  say('ready');
  for (let n = 0; n < MOST; n++) {
    const now = Date.now();
    const address = `p${round}-${n}@river.example`;
    const people = [
      { address: 'bruno@cloudmoor.example', name: null, role: 'must' as const },
      { address, name: null, role: 'must' as const },
    ];
    const when = { start: '2027-03-03T10:00', end: '2027-03-03T11:00', allDay: false, zone: 'Europe/Lisbon' };
    const made = db.write(() =>
      createMeeting({ db, now, viewer: tomas }, calendar.key, newItem.parse({ when, title: address, people })),
    );
    const uid = made.ok ? (itemByKey(db, made.value.item?.id ?? '')?.uid ?? '') : '';
    say(`saved ${uid} ${address}`);
    releaseDue(db, now + SECONDS);
    say('released');
    await sendMail(db, now + SECONDS, post);
    say('sent');
    const raw = Buffer.from(replyTo(uid, address));
    await takeMail(db, now + SECONDS, raw, ['ines@cloudmoor.example'], 'mx.example');
    say('received');
  }
}
