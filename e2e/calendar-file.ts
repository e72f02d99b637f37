/** Values planted in a file: what a viewer may not see must be in no byte sent to them. */
export const MARKS = {
  title: 'Zqtitle Weir talk',
  place: 'Zqplace Hall Lane',
  notes: 'Zqnotes bring the map',
  link: 'https://zqlink.example/room',
  privateTitle: 'Zqsecret Clinic',
  privatePlace: 'Zqward Seven',
} as const;

const event = (uid: string, ...lines: string[]) =>
  ['BEGIN:VEVENT', `UID:${uid}@elsewhere.example`, 'DTSTAMP:20270101T000000Z', ...lines, 'END:VEVENT'].join('\r\n');

/** A file as another program writes it: 41 items that can be read in the spring of 2027, and 3 that can't. */
export function calendarFile(): string {
  const events = [
    event(
      'weir',
      'DTSTART;TZID=Europe/Lisbon:20270304T100000',
      'DTEND;TZID=Europe/Lisbon:20270304T113000',
      `SUMMARY:${MARKS.title}`,
      `LOCATION:${MARKS.place}`,
      `DESCRIPTION:${MARKS.notes}`,
      `URL:${MARKS.link}`,
    ),
    event(
      'clinic',
      'DTSTART:20270303T140000Z',
      'DTEND:20270303T150000Z',
      `SUMMARY:${MARKS.privateTitle}`,
      `LOCATION:${MARKS.privatePlace}`,
    ),
    event(
      'bogota',
      'DTSTART;TZID=America/Bogota:20270305T090000',
      'DTEND;TZID=America/Bogota:20270305T100000',
      'SUMMARY:Call to Bogotá',
    ),
    event('forum', 'DTSTART;VALUE=DATE:20270304', 'DTEND;VALUE=DATE:20270306', 'SUMMARY:Uplands forum'),
    event(
      'week',
      'DTSTART;TZID=Own/Time:20270301T083000',
      'DTEND;TZID=Own/Time:20270301T090000',
      'RRULE:FREQ=WEEKLY;COUNT=6',
      'EXDATE;TZID=Own/Time:20270315T083000',
      'SUMMARY:Week with everyone',
    ),
    event(
      'week',
      'RECURRENCE-ID;TZID=Own/Time:20270308T083000',
      'DTSTART;TZID=Own/Time:20270309T110000',
      'DTEND;TZID=Own/Time:20270309T113000',
      'SUMMARY:Week with everyone, moved',
    ),
  ];
  for (let i = events.length; i < 41; i++) {
    const day = String(1 + (i % 28)).padStart(2, '0');
    events.push(
      event(
        `more-${i}`,
        `DTSTART:202704${day}T1${i % 8}0000Z`,
        `DTEND:202704${day}T1${(i % 8) + 1}0000Z`,
        `SUMMARY:Site round ${i}`,
      ),
    );
  }
  events.push(
    event('often', 'DTSTART:20270303T090000Z', 'RRULE:FREQ=SECONDLY', 'SUMMARY:Every second for ever'),
    event(
      'nowhere',
      'DTSTART;TZID=Far/Away:20270303T090000',
      'DTEND;TZID=Far/Away:20270303T100000',
      'SUMMARY:In a zone nobody knows',
    ),
    event('back', 'DTSTART:20270303T090000Z', 'DTEND:20270303T080000Z', 'SUMMARY:Ends before it starts'),
  );
  // A zone by a name of the other program's own, told by its offsets alone.
  const zone = [
    'BEGIN:VTIMEZONE',
    'TZID:Own/Time',
    'BEGIN:STANDARD',
    'DTSTART:20001029T020000',
    'TZOFFSETFROM:+0100',
    'TZOFFSETTO:+0000',
    'RRULE:FREQ=YEARLY;BYMONTH=10;BYDAY=-1SU',
    'END:STANDARD',
    'BEGIN:DAYLIGHT',
    'DTSTART:20000326T010000',
    'TZOFFSETFROM:+0000',
    'TZOFFSETTO:+0100',
    'RRULE:FREQ=YEARLY;BYMONTH=3;BYDAY=-1SU',
    'END:DAYLIGHT',
    'END:VTIMEZONE',
  ].join('\r\n');
  return ['BEGIN:VCALENDAR', 'VERSION:2.0', 'PRODID:-//Another program//EN', zone, ...events, 'END:VCALENDAR', ''].join(
    '\r\n',
  );
}
