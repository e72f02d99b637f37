export { dateText, instantText, parseDate, parseInstant, parseWall, wallText, weekStart } from './iso.ts';
export { fromWall, fromWallLenient, isZone, offsetAt, toWall, transitions } from './zone.ts';
