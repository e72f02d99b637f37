import { call } from '@/contract/call.ts';
import type { WrittenAnswer } from '@/contract/items/items.ts';
import { FORM_FIELDS, type FormField, NOT_FORWARD, type WrittenFields } from '@/core/calendar/index.ts';
import { wallText } from '@/core/time/index.ts';
import { listed } from '../../common/listed.ts';
import type { InvitedPerson } from '../../meetings/heard.ts';
import type { Meant } from './from-sentence.ts';
import { isTyped, TIMES, type Values, valuesOf, whenOf } from './item-values.ts';
import { ruleFor } from './repeat-kinds.ts';

/*
 * What the form sends: all of something new, and of a change only what was touched.
 */
type Touched = ReadonlySet<keyof Values>;

const text = (s: string): string | null => s.trim() || null;

/** Written fields as they are sent: an empty text is none, but the title, which has to be there. */
const sentFields = <K extends FormField>(v: Values, names: readonly K[]) =>
  Object.fromEntries(names.map((name) => [name, isTyped(name) && name !== 'title' ? text(v[name]) : v[name]])) as Pick<
    WrittenFields,
    K
  >;

const fresh = (v: Values) => ({
  when: whenOf(v),
  ...(v.repeat === 'none' ? {} : { repeat: { rule: ruleFor(v.repeat, v.repeatUntil, v.rule) } }),
  ...(v.repeat === 'picked' ? { dates: v.dates } : {}),
});

function touchedOf(v: Values, touched: Touched) {
  const names = FORM_FIELDS.filter((name) => touched.has(name));
  const fields = {
    ...sentFields(v, names),
    ...(touched.has('categories') ? { categories: listed(v.categories) } : {}),
  };
  return { fields, when: [...touched].some((name) => TIMES.has(name)) ? { when: whenOf(v) } : {} };
}

const peopleBody = (people: readonly InvitedPerson[]) =>
  people.map(({ address, name, role, group }) => ({ address, name, role, group: group?.key ?? null }));

export const sendNew = (calendar: string, v: Values, people: readonly InvitedPerson[]): Promise<WrittenAnswer> =>
  call('createItem', {
    params: { calendar },
    body: {
      ...fresh(v),
      ...sentFields(v, FORM_FIELDS),
      categories: listed(v.categories),
      ...(people.length > 0 ? { people: peopleBody(people) } : {}),
    },
  });

/** Whether something speaks against the time a sentence meant, in whose calendar it would be. */
export async function speaksAgainst(calendar: string, { start, end, sentence }: Meant, zone: string): Promise<boolean> {
  const when = { start: wallText(start).slice(0, 16), end: wallText(end).slice(0, 16), allDay: sentence.allDay, zone };
  const { clashes } = await call('checkTime', {
    params: { calendar },
    body: { when, item: null, people: [], place: sentence.place, shows: sentence.shows ?? 'busy', kind: 'meeting' },
  });
  return clashes.length > 0;
}

/** Adds what a sentence meant, as it was read back, and asks who comes. */
export const sendMeant = (
  calendar: string,
  { values }: Pick<Meant, 'values'>,
  zone: string,
  people: readonly InvitedPerson[] = [],
): Promise<WrittenAnswer> =>
  sendNew(calendar, { ...valuesOf({ kind: 'new', start: 0, end: 0 }, zone), ...values }, people);

/** Changes an item that was seen at a version; of a series one occurrence or all. */
export function sendChange(
  item: string,
  version: number,
  scope: Values['scope'],
  v: Values,
  touched: Touched,
  people: { readonly list: readonly InvitedPerson[] | null; readonly tellAll: boolean },
): Promise<WrittenAnswer> {
  const { fields, when } = touchedOf(v, touched);
  const repeats = touched.has('repeat') || touched.has('repeatUntil') || touched.has('rule');
  const dates = v.repeat === 'picked' && (touched.has('dates') || touched.has('repeat')) ? { dates: v.dates } : {};
  return call('changeItem', {
    params: { item },
    body: {
      version,
      scope,
      ...when,
      ...(people.list ? { people: peopleBody(people.list) } : {}),
      ...(people.tellAll ? { tellAll: true } : {}),
      ...(repeats && v.repeat !== 'kept' ? { repeat: { rule: ruleFor(v.repeat, v.repeatUntil, v.rule) } } : {}),
      ...dates,
      fields,
    },
  });
}

/** The fields that may be put forward of something new. */
const FORWARD = FORM_FIELDS.filter(
  (name): name is Exclude<FormField, keyof typeof NOT_FORWARD> => !(name in NOT_FORWARD),
);

/** Puts something new, or a change of an item, forward for a yes. */
export function sendForward(
  calendar: string,
  item: string | null,
  v: Values,
  touched: Touched,
  why: string,
  people: readonly InvitedPerson[] | null,
) {
  const params = { calendar };
  const who = people ? { people: peopleBody(people) } : {};
  if (item === null)
    return call('putForward', {
      params,
      body: { kind: 'add', item: { ...fresh(v), ...sentFields(v, FORWARD), ...who }, why },
    });
  const { fields, when } = touchedOf(v, touched);
  return call('putForward', {
    params,
    body: { kind: 'change', item, ...when, ...who, scope: v.scope === 'all' ? 'all' : 'one', fields, why },
  });
}
