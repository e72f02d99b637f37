export {
  ANSWERS,
  type Answer,
  type Attendee,
  attendeeSchema,
  IMPORTANCES,
  type Importance,
  itemFields,
  KINDS,
  type Kind,
  LIMITS,
  type Party,
  partySchema,
  STATUSES,
  type Status,
  VISIBILITIES,
  type Visibility,
} from './fields.ts';
export type { Item, Repeats } from './item.ts';
export { SCOPES, type Scope, SIGHTS, type Sight } from './sight.ts';
export type { ItemView } from './view.ts';
