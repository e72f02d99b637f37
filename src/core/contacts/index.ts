export { addressForm, likelySame, mergedContact, phoneForm } from './alike.ts';
export {
  type Contact,
  type ContactFieldSeenAt,
  contactFields,
  contactSights,
  newContactFields,
  SEARCHED_CONTACT_FIELDS,
  sentContactFields,
  WRITTEN_CONTACT_FIELDS,
  type WrittenContact,
} from './contact-fields.ts';
export { ADDRESS_PLACES, CARD_VERSIONS, type CardVersion, PHONE_PLACES } from './contact-table.ts';
