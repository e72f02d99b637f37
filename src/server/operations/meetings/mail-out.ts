import { type Message, sameAddress } from '@/core/meetings/index.ts';
import { newKey } from '../../ids.ts';
import { mailIdFor } from '../../mail/mail-id.ts';
import type { Calendar } from '../../repositories/calendars.ts';
import { itemById } from '../../repositories/items.ts';
import type { StoredMeeting } from '../../repositories/meetings.ts';
import { insertMail, mailThread } from '../../repositories/outgoing-mail.ts';
import type { Person } from '../../repositories/people.ts';
import { type Acting, Directory } from '../deciding/index.ts';

/** Puts mail to somebody outside on its way. */
export function mailOut(
  ctx: Acting,
  from: Person,
  calendar: Calendar,
  meeting: StoredMeeting,
  message: Message,
  address: string,
  automatic = false,
): void {
  const { db, now, viewer } = ctx;
  const item = meeting.itemId === null ? null : itemById(db, meeting.itemId);
  const series = item?.seriesId == null ? item : itemById(db, item.seriesId);
  const directory = new Directory(db);
  const refs = mailThread(db, meeting, address);
  const key = newKey();
  const state = meeting.state;
  const title = (state && ('on' in state ? state.on?.matter.title : state.matter.title)) ?? item?.title ?? '';
  const organiserName = sameAddress(message.organiser, from.address) ? from.name : (item?.organiser?.name ?? null);
  const invited = state && ('on' in state ? state.on?.invited : state.invited);
  const name = invited?.find((one) => sameAddress(one.address, address))?.name ?? null;
  insertMail(db, {
    key,
    at: now,
    collectionId: calendar.id,
    meetingId: meeting.id,
    messageId: mailIdFor(key),
    mail: {
      from: { name: from.name, address: from.address },
      sender: viewer.id === from.id ? null : { name: viewer.name, address: viewer.address },
      to: { name, address },
      subject: '',
      text: '',
      // Whoever it goes to is outside: they are written to as those it comes from read.
      language: from.language,
      meeting: {
        message: { ...message, to: [address] },
        organiserName,
        title,
        series:
          message.recurrence === null || !series ? null : { zone: directory.zone(series.zone), allDay: series.allDay },
      },
      inReplyTo: refs.at(-1) ?? null,
      refs,
      ...(automatic ? { automatic: true as const } : {}),
    },
  });
}
