export { EARLIEST, inBounds, LATEST } from './bounds.ts';
export {
  civil,
  dateText,
  dayNumber,
  instantText,
  parseBasicInstant,
  parseDate,
  parseInstant,
  parseWall,
  wallText,
  weekdayOf,
  weekdayOfDay,
  weekStart,
} from './iso.ts';
export { merged, type Span } from './spans.ts';
export {
  defineZone,
  fromWall,
  fromWallLenient,
  isDefined,
  isZone,
  offsetAt,
  toWall,
  transitions,
  type ZoneDefinition,
  zonesFrom,
} from './zone.ts';
