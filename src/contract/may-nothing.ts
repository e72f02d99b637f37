/** What may be done on a board, all of it refused: each key is one of `BoardHead.may`. */
export const MAY_NOTHING = {
  add: false,
  suggest: false,
  share: false,
  import: false,
  /** Say things in the owner's name. */
  speak: false,
  /** Change every item. */
  arrange: false,
  /** Both: read and take along all that is held of an item. */
  whole: false,
  /** Either: read what happened, and be reminded. */
  run: false,
  seePrivate: false,
  bringBack: false,
  /** Set the owner's away notice. */
  absence: false,
};
