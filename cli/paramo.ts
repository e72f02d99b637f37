import { readFileSync } from 'node:fs';
import { parseArgs } from 'node:util';
import { requestAccessBody } from '../src/contract/sharing/access-requests.ts';
import { changesBody, type GrantChange } from '../src/contract/sharing/changes.ts';
import { ruleChange } from '../src/contract/sharing/rules.ts';
import type { AudienceWire, SightlineRow, SightlinesAnswer } from '../src/contract/sharing/sharing.ts';
import { PRESETS, type Rights } from '../src/core/access/index.ts';
import { dateText, parseDate, toWall, weekStart } from '../src/core/time/index.ts';
import { type Connection, database } from '../src/server/db/index.ts';
import { refusalBody } from '../src/server/http/sentences.ts';
import { type Context, contextFor } from '../src/server/operations/deciding/context/context.ts';
import { listItems } from '../src/server/operations/items/list-items.ts';
import { listGroups } from '../src/server/operations/people/groups.ts';
import { listPeople } from '../src/server/operations/people/list-people.ts';
import { listAccessRequests } from '../src/server/operations/sharing/access-requests.ts';
import { changeGrants } from '../src/server/operations/sharing/change-grants.ts';
import { explainAccess } from '../src/server/operations/sharing/explain-access.ts';
import { calendarForScript, personForScript, tellOthers } from '../src/server/operations/sharing/for-scripts.ts';
import { readHouseRules } from '../src/server/operations/sharing/house-rules.ts';
import { previewAccess } from '../src/server/operations/sharing/preview-access.ts';
import { requestAccess } from '../src/server/operations/sharing/request-access.ts';
import { setRule } from '../src/server/operations/sharing/rule-wishes.ts';
import { listSightlines } from '../src/server/operations/sharing/sightlines.ts';
import { forgetTrail } from '../src/server/operations/trail/chain.ts';
import type { Result } from '../src/server/result.ts';
import { COMMANDS, HELP, helpOf, LEVELS, OPTIONS } from './paramo-help.ts';
import { type Ended, verifyTrail } from './verify-trail.ts';

const DAY = 86_400_000;
type Row = Readonly<Record<string, unknown>>;

/** Not understood: what is wrong with how it was called. */
class Unclear extends Error {}

/** Runs one command over some data; answers what it prints and how it ended (0 done, 1 refused, 2 not understood). */
export function run(db: Connection, args: readonly string[], at?: number): Ended {
  try {
    const { values, positionals } = parseArgs({ args: [...args], allowPositionals: true, options: OPTIONS });
    const [command = '', ...rest] = positionals;
    if (values.help || command === 'help' || command === '')
      return {
        code: command === '' && !values.help ? 2 : 0,
        out: helpOf(rest[0] ?? (command === 'help' ? '' : command)),
      };
    if (!Object.hasOwn(COMMANDS, command)) throw new Unclear(`There is no command ${command}.`);
    if (command === 'trail' && rest[0] === 'verify')
      return verifyTrail(db, values.digest ?? null, values.json === true);
    const who = personForScript(db, values.as ?? '');
    if (!who) throw new Unclear('--as must be the address of somebody of the organisation.');
    const ctx: Context = { ...contextFor(who, db), ...(at === undefined ? {} : { now: at }) };
    const rows = commands[command as keyof typeof commands](ctx, rest, values);
    if (!rows.ok) return { code: 1, out: sentenceOf(rows) };
    return { code: 0, out: values.json ? rows.value.map((row) => JSON.stringify(row)).join('\n') : table(rows.value) };
  } catch (error) {
    const unclear = error instanceof Unclear || (error instanceof TypeError && 'code' in error);
    if (!unclear) throw error;
    return { code: 2, out: `${error.message}\n\n${HELP}` };
  }
}

type Values = {
  readonly [K in keyof typeof OPTIONS]?: ((typeof OPTIONS)[K]['type'] extends 'string' ? string : boolean) | undefined;
};
type Command = (ctx: Context, args: readonly string[], values: Values) => Result<readonly Row[]>;

const list: Command = (ctx, [calendar]) => {
  const lines = listSightlines(ctx, keyOf(ctx, calendar));
  return lines.ok ? { ok: true, value: lines.value.rows.flatMap((row) => rowsOf(row)) } : lines;
};

const show: Command = (ctx, [calendar, who]) => {
  const key = keyOf(ctx, calendar);
  const lines = listSightlines(ctx, key);
  if (!lines.ok) return lines;
  const audience = audienceOf(ctx, who);
  const row = rowFor(lines.value, audience);
  if (row) return { ok: true, value: rowsOf(row).map((line) => ({ ...line, effective: row.effective })) };
  // Nothing by name: what a group of theirs gets, or everyone inside, and through which.
  const day = dateText(ctx.now);
  const range = { from: day, to: dateText(ctx.now + DAY), zone: 'UTC' };
  const comesTo = previewAccess(ctx, key, { audience, rights: null, seen: null, range });
  if (!comesTo.ok) return comesTo;
  const { without, withoutStep } = comesTo.value;
  return { ok: true, value: [{ name: who ?? '', level: null, through: withoutStep, effective: without }] };
};

const give: Command = (ctx, [calendar, who, level], values) => {
  const rights = {
    ...rightsOf(level),
    ...(values.private ? { private: true } : {}),
    ...(values.copies ? { copies: true } : {}),
    ...(values.away ? { absence: true } : {}),
  };
  return change(ctx, values, [
    {
      calendar: keyOf(ctx, calendar),
      audience: audienceOf(ctx, who),
      rights,
      span: spanOf(ctx, values),
      ...noteOf(values),
    },
  ]);
};

const take: Command = (ctx, [calendar, who], values) => {
  const key = keyOf(ctx, calendar);
  const lines = listSightlines(ctx, key);
  if (!lines.ok) return lines;
  const audience = audienceOf(ctx, who);
  const grants = rowFor(lines.value, audience)?.grants ?? [];
  // What stands and what is for a time: all that they have by name.
  const changes = grants.map(
    (g): GrantChange => ({ calendar: key, audience, rights: null, seen: g.key, ...noteOf(values) }),
  );
  return change(ctx, values, changes.length > 0 ? changes : [{ calendar: key, audience, rights: null }]);
};

const batch: Command = (ctx, [file], values) => {
  let read: unknown;
  try {
    read = JSON.parse(readFileSync(file ?? '', 'utf8'));
  } catch (error) {
    throw new Unclear(`${file ?? 'The file'} can't be read as JSON: ${error instanceof Error ? error.message : error}`);
  }
  const body = changesBody.safeParse(Array.isArray(read) ? { changes: read } : read);
  if (!body.success) {
    const [issue] = body.error.issues;
    throw new Unclear(`${file}: ${issue?.path.join('.')} isn't as it should be (${issue?.message}).`);
  }
  return change(ctx, values, body.data.changes);
};

const explain: Command = (ctx, [calendar, who, item], values) => {
  const key = keyOf(ctx, calendar);
  const answer = explainAccess(ctx, key, { audience: audienceOf(ctx, who), item: item ?? '', at: values.at ?? null });
  if (!answer.ok) return answer;
  const { name, seen, steps, at } = answer.value;
  return {
    ok: true,
    value: [...steps.map(({ step, facts }) => ({ step, ...facts })), { step: 'answer', name, seen, at }],
  };
};

const seeAs: Command = (ctx, [calendar, who], values) => {
  const day = values.week ?? dateText(toWall(ctx.viewer.zone, ctx.now));
  const on = parseDate(day);
  if (on === null) throw new Unclear(`${day} is no date.`);
  const monday = weekStart(on);
  const audience = audienceOf(ctx, who);
  const person = audience.kind === 'address' ? personForScript(ctx.db, audience.address) : null;
  const as = person
    ? `person:${person.handle}`
    : audience.kind === 'everyone'
      ? 'everyone'
      : 'id' in audience
        ? `${audience.kind}:${audience.id}`
        : '';
  if (as === '') throw new Unclear(`${who} isn't somebody whose eyes can be looked through.`);
  const range = { from: dateText(monday), to: dateText(monday + 7 * DAY), zone: ctx.viewer.zone };
  const answer = listItems(ctx, keyOf(ctx, calendar), { ...range, as });
  return answer.ok ? { ok: true, value: answer.value.items.map(({ id: _id, ...item }) => ({ ...item })) } : answer;
};

const requestCommand: Command = (ctx, args, values) => {
  const level = args.at(-1);
  const handles = args.slice(0, -1).map((address) => {
    const person = personForScript(ctx.db, address);
    if (!person) throw new Unclear(`Nobody of the organisation has the address ${address}.`);
    return person.handle;
  });
  const body = requestAccessBody.safeParse({
    to: handles,
    rights: rightsOf(level),
    span: spanOf(ctx, values),
    why: values.why ?? '',
  });
  if (!body.success) throw new Unclear('Say whom, and what.');
  if (values['dry-run']) return { ok: true, value: handles.map((handle) => ({ ask: handle, level })) };
  const requested = requestAccess(ctx, body.data);
  return requested.ok ? { ok: true, value: [requested.value] } : requested;
};

const listRequests: Command = (ctx) => {
  const all = listAccessRequests(ctx);
  if (!all.ok) return all;
  const { waiting, answered, own } = all.value;
  const row = (which: string) => (one: (typeof own)[number] | (typeof waiting)[number]) => ({
    which,
    key: one.key,
    state: one.state,
    from: one.from.name,
    to: one.to.name,
    wants: one.preset ?? one.wants.sight,
    at: one.at,
    why: one.why,
  });
  return {
    ok: true,
    value: [...waiting.map(row('waits for you')), ...answered.map(row('answered')), ...own.map(row('yours'))],
  };
};

const people: Command = (ctx) => {
  const answer = listPeople(ctx);
  return answer.ok
    ? {
        ok: true,
        value: answer.value.people.map(({ handle, name, address, role, site, rights, through }) => ({
          handle,
          name,
          address,
          role,
          site,
          sight: rights.sight,
          through,
        })),
      }
    : answer;
};

const groups: Command = (ctx) => {
  const answer = listGroups(ctx);
  return answer.ok
    ? {
        ok: true,
        value: answer.value.groups.map((g) => ({
          name: g.name,
          people: g.people,
          members: g.members.map((m) => m.handle).join(' '),
          within: g.within.map((w) => w.name).join('; '),
        })),
      }
    : answer;
};

const rules: Command = (ctx, [rule, value], values) => {
  if (rule !== undefined) {
    const wanted = ruleChange.safeParse({ rule, wanted: value ?? '' });
    if (!wanted.success) throw new Unclear(`There is no rule ${rule}.`);
    if (values['dry-run']) return { ok: true, value: [{ ...wanted.data, further: values.further === true }] };
    const set = setRule(ctx, wanted.data, values.further === true);
    if (!set.ok) return set;
  }
  const answer = readHouseRules(ctx);
  if (!answer.ok) return answer;
  const { main, further, ...rest } = answer.value.rules;
  const of = (which: string, list: object) =>
    Object.entries(list).map(([rule, value]) => ({ calendars: which, rule, value }));
  return { ok: true, value: [...of('main', main), ...(further ? of('further', further) : []), ...of('', rest)] };
};

const trail: Command = (ctx, [act, subject]) => {
  if (act !== 'forget' || !subject)
    throw new Unclear('Say trail verify, or trail forget and the key of an item or an entry.');
  const forgotten = forgetTrail(ctx, subject);
  return forgotten.ok ? { ok: true, value: [{ ...forgotten.value }] } : forgotten;
};

const commands = {
  list,
  show,
  give,
  take,
  batch,
  explain,
  'see-as': seeAs,
  ask: requestCommand,
  asks: listRequests,
  people,
  groups,
  rules,
  trail,
} satisfies Record<keyof typeof COMMANDS, Command>;

function change(ctx: Context, values: Values, changes: readonly GrantChange[]): Result<readonly Row[]> {
  const dryRun = values['dry-run'] === true;
  const done = changeGrants(ctx, { changes: [...changes], dryRun });
  if (!done.ok) return done;
  for (const { calendar } of done.value.answer.results) if (!dryRun) tellOthers(ctx, calendar);
  return {
    ok: true,
    value: done.value.answer.results.map((r) => ({ ...r, changed: done.value.answer.changed })),
  };
}

function keyOf(ctx: Context, named: string | undefined): string {
  const key = calendarForScript(ctx.db, named ?? '');
  if (!key) throw new Unclear(`There is no calendar ${named ?? 'named'}.`);
  return key;
}

function audienceOf(ctx: Context, who: string | undefined): AudienceWire {
  if (who === 'everyone') return { kind: 'everyone' };
  if (who?.startsWith('group:')) {
    const all = listGroups(ctx);
    const group = all.ok && all.value.groups.find((g) => g.name === who.slice('group:'.length));
    if (group) return { kind: 'group', id: group.key };
  }
  if (who?.includes('@')) return { kind: 'address', address: who.toLowerCase() };
  throw new Unclear(`There is no ${who ?? 'audience named'}.`);
}

const rowFor = ({ rows }: SightlinesAnswer, audience: AudienceWire): SightlineRow | undefined =>
  rows.find((r) =>
    audience.kind === 'address'
      ? r.who.detail.split(' · ').at(-1) === audience.address
      : JSON.stringify(r.audience) === JSON.stringify(audience),
  );

function rightsOf(level: string | undefined): Rights {
  if (!level || !Object.hasOwn(PRESETS, level))
    throw new Unclear(`There is no level ${level ?? 'named'}. There are: ${LEVELS}.`);
  return PRESETS[level as keyof typeof PRESETS];
}

function spanOf(ctx: Context, values: Values): { from: string | null; until: string | null; zone: string } | null {
  const { zone } = ctx.viewer;
  const until = values.today ? dateText(toWall(zone, ctx.now)) : (values.until ?? null);
  return values.from === undefined && until === null ? null : { from: values.from ?? null, until, zone };
}

const noteOf = (values: Values) =>
  values.quiet ? { note: null } : values.tell === undefined ? {} : { note: values.tell };

function rowsOf(row: SightlineRow): Row[] {
  const a = row.audience;
  return row.grants.map((g) => ({
    audience: a.kind === 'everyone' ? a.kind : 'id' in a ? `${a.kind}:${a.id}` : a.kind,
    name: row.who.name,
    level: g.preset,
    rights: g.rights,
    from: g.from,
    until: g.until,
    state: g.state,
    told: g.told,
    byAdministrator: g.byAdministrator,
    key: g.key,
  }));
}

/** Rows as columns that line up, under their names; what is no plain value as JSON. */
function table(rows: readonly Row[]): string {
  const names = [...new Set(rows.flatMap((row) => Object.keys(row)))];
  const text = (value: unknown): string =>
    value === null || value === undefined
      ? ''
      : typeof value === 'object'
        ? rightsText(value)
        : String(value).replace(/\s+/g, ' ');
  const lines = [names, ...rows.map((row) => names.map((name) => text(row[name])))];
  const widths = names.map((_, i) => Math.max(...lines.map((line) => (line[i] ?? '').length)));
  return rows.length === 0
    ? ''
    : lines
        .map((line) =>
          line
            .map((cell, i) => cell.padEnd(widths[i] ?? 0))
            .join('  ')
            .trimEnd(),
        )
        .join('\n');
}

/** Rights in few words: what is seen, and what there is besides; anything else as JSON. */
function rightsText(value: object): string {
  if (!('sight' in value)) return JSON.stringify(value);
  const { sight, ...rest } = value as Rights;
  const more = Object.entries(rest).flatMap(([name, right]) =>
    right === true ? [name] : right === false || right === 'none' ? [] : [`${name}:${right}`],
  );
  return [sight, ...more].join('+');
}

function sentenceOf(refusal: Result<unknown> & { ok: false }): string {
  const { sentence, fields } = refusalBody(refusal, 'en');
  const named = Object.entries(fields ?? {}).map(([field, text]) => {
    const [, n] = /^changes\.(\d+)/.exec(field) ?? [];
    return n === undefined || n === '0' ? text : `change ${Number(n) + 1}: ${text}`;
  });
  return refusal.code === 'badInput' && named.length > 0 ? named.join('\n') : sentence;
}

if (process.argv[1]?.endsWith('paramo.ts')) {
  const { code, out } = run(database(), process.argv.slice(2));
  (code === 0 ? console.log : console.error)(out);
  process.exit(code);
}
