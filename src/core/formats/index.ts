export { type DirectoryRow, readDirectory, writeDirectory } from './csv/directory.ts';
export type { KeptLine } from './ical/kept.ts';
export { readCalendar, recurrenceIn } from './ical/read.ts';
export type { ReadFile, ReadItem, ReadProblem } from './ical/read-item.ts';
export { calendarFileName, writeCalendar } from './ical/write.ts';
export type { WrittenItem } from './ical/write-event.ts';
export type { FileZone } from './ical/zones.ts';
export { type ReadMessage, readMessage } from './itip/read-message.ts';
export { writeMessage } from './itip/write-message.ts';
