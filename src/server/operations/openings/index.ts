export { checkTime } from './check-time.ts';
export { bringInJourneys, listJourneys, takeOutJourneys } from './journeys.ts';
