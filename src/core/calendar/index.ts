export { itemFields } from './fields.ts';
export type { Item, Repeats } from './item.ts';
export {
  ANSWERS,
  type Answer,
  type Attendee,
  IMPORTANCES,
  type Importance,
  KINDS,
  type Kind,
  LIMITS,
  type Party,
  STATUSES,
  type Status,
  VISIBILITIES,
  type Visibility,
} from './kinds.ts';
export { isPhone } from './phone.ts';
export { settled } from './settled.ts';
export { SCOPES, type Scope, SIGHTS, type Sight } from './sight.ts';
export type { ItemView } from './view.ts';
