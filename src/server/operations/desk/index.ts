export { deskPrincipals } from './desk.ts';
export { openDeskRow, withWhoIsThere } from './open-row.ts';
export { readDeskPreferences, saveDeskPreferences } from './preferences.ts';
export { readDesk } from './read-desk.ts';
export { takeDeskStep } from './take-step.ts';
