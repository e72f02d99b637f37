import type { AsSet } from '@/contract/items/items.ts';
import type { Decision, Standing } from '@/core/access/index.ts';
import {
  AS_SET_FIELDS,
  type Attendee,
  type Item,
  type Party,
  pick,
  type Repeats,
  WRITTEN_FIELDS,
  type WrittenFields,
} from '@/core/calendar/index.ts';
import { dateText, instantText } from '@/core/time/index.ts';
import { encodeItem, itemColumns, list, namesParty } from '../../../repositories/item-columns.ts';
import type { OccurrenceRow } from '../../../repositories/occurrence-row.ts';
import type { Person } from '../../../repositories/people.ts';
import type { StoredItem } from '../../../repositories/stored-item.ts';
import type { Directory } from '../context/directory.ts';

/** The fields of an occurrence's row that come of its times, its meeting and who made it. */
class MadeOfRow {
  constructor(
    readonly row: OccurrenceRow,
    private readonly directory: Directory,
  ) {}
  get start(): string {
    return this.row.all_day ? dateText(this.row.at) : instantText(this.row.at);
  }
  get end(): string {
    return this.row.all_day ? dateText(this.row.until) : instantText(this.row.until);
  }
  get allDay(): boolean {
    return this.row.all_day === 1;
  }
  get cancelled(): boolean {
    return this.row.cancelled === 1;
  }
  get ownerAnswer() {
    return this.row.owner_answer;
  }
  get organiser(): Party | null {
    return this.row.organiser === null ? null : JSON.parse(this.row.organiser);
  }
  get attendees(): Attendee[] {
    return list(this.row.attendees);
  }
  get repeats(): Repeats | null {
    const { rule, added, left_out } = this.row;
    if (rule === null && added === '[]') return null;
    return { rule, added: list(added), left: list(left_out) };
  }
  get createdBy(): Party | null {
    return this.directory.party(this.row.created_by);
  }
}

/** The written fields, each by a getter of its own, made of its column as one written by hand would be. */
for (const name of WRITTEN_FIELDS) {
  const value = { plain: `this.row.${name}`, flag: `this.row.${name} === 1`, list: `list(this.row.${name})` };
  const get = new Function('list', `return function () { return ${value[itemColumns[name].as]}; };`)(list);
  Object.defineProperty(MadeOfRow.prototype, name, { get });
}

/** An occurrence's row read as an item: each field is worked out when a projection asks for it, and only then. */
export type RowItem = MadeOfRow & WrittenFields & Item;
export const RowItem = MadeOfRow as new (row: OccurrenceRow, directory: Directory) => RowItem;

/** How a person stands to a row's item. */
export function standingOf(row: OccurrenceRow, person: Pick<Person, 'id' | 'address'> | null): Standing {
  return {
    named: person !== null && namesParty(row.parties, person.address),
    created: person !== null && row.created_by === person.id,
    ownerInvited: row.owner_invited === 1,
  };
}

/** A stored item as the whole row of its first (or only) occurrence. */
export function rowOf(item: StoredItem, at = item.start, until = item.end): OccurrenceRow {
  return { at, until, long: 0, ...encodeItem(item), id: item.id };
}

type AsSetField = (typeof AS_SET_FIELDS)[number];

/**
 * From which standing each value of the envelope is given: those as set to the owner and whoever may change all, the
 * version to whoever may change the item.
 */
const envelopePolicy = {
  shows: 'all',
  ownerAnswer: 'all',
  cancelled: 'all',
  zone: 'all',
  endZone: 'all',
  hold: 'all',
  ...(Object.fromEntries(AS_SET_FIELDS.map((name) => [name, 'all'])) as Record<AsSetField, 'all'>),
  version: 'all',
  series: 'all',
  created: 'all',
  changed: 'all',
} as const satisfies Record<keyof AsSet, 'all'>;

/** The values as set, beside a full view: for the owner and viewers who may change all, `undefined` for others. */
export function asSetOf(row: OccurrenceRow, decision: Decision, directory: Directory): AsSet | undefined {
  if (!decision.owner && decision.rights.change !== envelopePolicy.version) return undefined;
  return {
    shows: row.shows,
    ownerAnswer: row.owner_answer,
    cancelled: row.cancelled === 1,
    zone: directory.zone(row.zone),
    endZone: row.end_zone,
    hold:
      row.kind === 'hold' && row.hold_set !== null
        ? directory.hold(row.hold_set, row.id, row.lapses_at, decision.owner || decision.rights.private)
        : null,
    ...pick(new RowItem(row, directory), AS_SET_FIELDS),
    version: row.version,
    series: row.rule !== null || row.added !== '[]' || row.series_id !== null,
    created: {
      at: instantText(row.created_at),
      actor: directory.name(row.created_by),
      principal: directory.name(row.created_for),
    },
    changed: {
      at: instantText(row.changed_at),
      actor: directory.name(row.changed_by),
      principal: directory.name(row.changed_for),
    },
  };
}
