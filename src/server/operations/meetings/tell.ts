import { decide } from '@/core/access/index.ts';
import { now } from '../../clock.ts';
import type { Connection } from '../../db/index.ts';
import { hub } from '../../live/hub.ts';
import { type Calendar, calendarById } from '../../repositories/calendars.ts';
import { grantsOn } from '../../repositories/grants.ts';
import type { StoredMeeting } from '../../repositories/meetings.ts';
import { type Person, personById } from '../../repositories/people.ts';
import { collectionOf, rulesOf, viewerOf } from '../deciding/index.ts';

/** Tells the open windows of a calendar's owner, and of those who read the owner's meeting messages, that there is something new among them. */
export function tellReaders(db: Connection, calendar: Calendar): void {
  db.afterWriting(() => {
    const listeners = hub().listeners();
    if (listeners.length === 0) return;
    const collection = collectionOf(calendar, grantsOn(db, calendar.id));
    const house = rulesOf(db, calendar);
    for (const listener of listeners) {
      const person = typeof listener === 'number' ? personById(db, listener) : null;
      if (!person) continue;
      const { owner, rights } = decide(collection, viewerOf(db, person), now(), house);
      if (owner || rights.speaks || rights.copies || rights.change === 'all') hub().tell(listener, { kind: 'told' });
    }
  });
}

/** The calendar and owner of a meeting. */
export function homeOf(db: Connection, meeting: StoredMeeting): { calendar: Calendar; owner: Person } | null {
  const calendar = calendarById(db, meeting.calendarId);
  const owner = calendar && personById(db, calendar.ownerId);
  return calendar && owner ? { calendar, owner } : null;
}
