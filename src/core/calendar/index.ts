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
export type { Hand, Item, Repeats } from './item.ts';
export { SCOPES, type Scope, SIGHTS, type Sight } from './sight.ts';
export type { BriefedView, BusyView, FullView, ItemView, OutlineView, TitleView, WithheldView } from './view.ts';
