export { itemFields, newItemFields, sentFields } from './fields.ts';
export type { Item, Repeats } from './item.ts';
export {
  AS_SET_FIELDS,
  CONTENT_FIELDS,
  COPIED_FIELDS,
  type ContentField,
  FILED_FIELDS,
  type FieldName,
  type FieldSeenAt,
  type FiledField,
  FORM_FIELDS,
  FORWARD_CHANGED,
  type FormField,
  freshFields,
  freshValue,
  LONG_TEXTS,
  NOT_FORWARD,
  pick,
  SAID_FIELDS,
  type SaidField,
  SEARCHED_FIELDS,
  type SearchedField,
  specOf,
  TOLD_FIELDS,
  WRITTEN_FIELDS,
  type WrittenField,
  type WrittenFields,
  withoutEmpty,
} from './item-fields.ts';
export { ITEM_FIELDS } from './item-table.ts';
export {
  ANSWERS,
  type Answer,
  type Attendee,
  IMPORTANCES,
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
export { isTaken, takesTime } from './takes-time.ts';
export type { ItemView } from './view.ts';
