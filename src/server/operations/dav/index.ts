export {
  listProgramCalendars,
  type ProgramCalendar,
  type ProgramPerson,
  readProgramCalendar,
  readProgramPerson,
} from './calendars.ts';
export {
  type Instants,
  isLongObject,
  listObjects,
  MOST_OBJECTS,
  type ProgramObject,
  queryFreeBusy,
  readObject,
  shownInstants,
} from './objects.ts';
export {
  askFreeBusy,
  clearInbox,
  type InboxObject,
  listInbox,
  MOST_ASKED,
  MOST_ASKED_DAYS,
  readInbox,
} from './scheduling.ts';
export { deleteObject, putObject } from './write-object.ts';
