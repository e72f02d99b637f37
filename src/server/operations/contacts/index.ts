export { listAroundContact } from './around-contact.ts';
export { listAddressBooks } from './books.ts';
export { addContact, changeContact, copyContact, readContact, removeContact } from './change-contact.ts';
export { addReadContact, cardOf, exportContacts, importContacts } from './contact-file.ts';
export { readContactPicture, setContactPicture } from './contact-picture.ts';
export { findContacts } from './find-contacts.ts';
export { listContacts } from './list-contacts.ts';
export { listAlikeContacts, mergeContacts } from './merge-contacts.ts';
export { undoContact } from './undo-contact.ts';
