export { checkTime } from './check-time.ts';
export { findRoom } from './find-room.ts';
export { findSeriesTimes, findTimes, readTimesDay } from './find-times.ts';
export { bringInJourneys, listJourneys, takeOutJourneys } from './journeys.ts';
export { findRound } from './round.ts';
export { readTimePreferences, saveTimePreferences } from './time-preferences.ts';
