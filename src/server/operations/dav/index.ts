export {
  findProgramPeople,
  listProgramCalendars,
  type ProgramCalendar,
  type ProgramPerson,
  readProgramCalendar,
  readProgramPerson,
} from './calendars.ts';
export { queryFreeBusy } from './free-busy.ts';
export { moveObject, type ObjectMove } from './move-object.ts';
export { isLongObject, listObjects, readObject } from './objects.ts';
export { type Instants, MOST_OBJECTS, type ObjectsWanted, type ProgramObject } from './program-object.ts';
export {
  clearInbox,
  type InboxObject,
  listInbox,
  MOST_ASKED,
  MOST_ASKED_DAYS,
  readInbox,
  requestFreeBusy,
} from './scheduling.ts';
export { changesSince } from './sync.ts';
export { deleteObject, putObject } from './write-object.ts';
