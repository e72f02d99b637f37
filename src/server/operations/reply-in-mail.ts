/** The answer of somebody outside to a meeting, as mail. */
export const replyTo = (uid: string, address: string): string =>
  [
    'Authentication-Results: mx.example; dmarc=pass header.from=river.example',
    `From: ${address}`,
    'To: ines@cloudmoor.example',
    `Message-ID: <reply-${uid}>`,
    'Content-Type: text/calendar; method=REPLY; charset=utf-8',
    '',
    'BEGIN:VCALENDAR',
    'VERSION:2.0',
    'PRODID:-//x//x//EN',
    'METHOD:REPLY',
    'BEGIN:VEVENT',
    `UID:${uid}`,
    'DTSTAMP:20270302T100000Z',
    'ORGANIZER:mailto:ines@cloudmoor.example',
    `ATTENDEE;PARTSTAT=ACCEPTED:mailto:${address}`,
    'END:VEVENT',
    'END:VCALENDAR',
    '',
  ].join('\r\n');
