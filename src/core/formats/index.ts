export { type DirectoryRow, readDirectory, writeDirectory } from './csv/directory.ts';
export { type ReadFile, type ReadItem, type ReadProblem, type ReadRemark, readCalendar } from './ical/read.ts';
export { calendarFileName, type WrittenItem, writeCalendar } from './ical/write.ts';
