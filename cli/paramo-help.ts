import type { ParseArgsConfig } from 'node:util';
import { PRESETS } from '../src/core/access/index.ts';

export const LEVELS = Object.keys(PRESETS).join(', ');

/** What each command is given, and what it does. */
export const COMMANDS: Readonly<Record<string, { readonly takes: string; readonly does: string }>> = {
  list: { takes: 'CALENDAR', does: 'who has access to a calendar, and what' },
  show: { takes: 'CALENDAR AUDIENCE', does: 'what one audience has there, and what it comes to' },
  give: { takes: 'CALENDAR AUDIENCE LEVEL', does: 'gives a level, in place of what stands there' },
  take: { takes: 'CALENDAR AUDIENCE', does: 'takes away what an audience has by name' },
  batch: {
    takes: 'FILE',
    does: 'up to a thousand changes out of a JSON file, all or none (as POST /api/grants takes them)',
  },
  explain: { takes: 'CALENDAR AUDIENCE ITEM', does: 'what they see of an item and why, step by step' },
  'see-as': { takes: 'CALENDAR AUDIENCE', does: 'what they see of a week, as far as you see it yourself' },
  ask: { takes: 'PERSON… LEVEL', does: 'asks people for access to their calendars, in your name' },
  asks: { takes: '', does: 'who asks you, and how your own asks stand' },
  people: { takes: '', does: 'the directory, and what you see of each' },
  groups: { takes: '', does: 'the groups, with their members' },
  trail: {
    takes: 'verify | forget KEY',
    does: 'whether the trail is what was written (needs no --as); forgets what it says of an item or an entry (administrators)',
  },
  rules: { takes: '[RULE VALUE]', does: 'the house rules; sets one (administrators)' },
};

export const HELP = `Who sees what, from a script, in the name of somebody of the organisation.

  npm run paramo -- --as ADDRESS COMMAND …

${Object.entries(COMMANDS)
  .map(([name, { takes, does }]) => `  ${`${name} ${takes}`.padEnd(36)} ${does}`)
  .join('\n')}

  ADDRESS    the e-mail address of whoever this is done by: they may do here what they may do in a window
  CALENDAR   its owner's e-mail address (their main calendar), or a calendar's key
  AUDIENCE   an e-mail address, everyone, or group:NAME
  LEVEL      ${LEVELS}

  --from DATE, --until DATE   days of your own clock, the last one included; --today is until tonight
  --private, --copies, --away let into what is private; told of invitations; sets the away notice
  --tell NOTE, --quiet        tells them with a few words, or doesn't; otherwise whoever was told before is
  --digest HEX                trail verify: a digest that was kept, which has to be among them
  --why TEXT                  with an ask
  --at INSTANT                explain: as it stood then
  --week DATE                 see-as: the week with that day
  --further                   rules: those of further calendars
  --dry-run                   says what would change, and changes nothing
  --json                      one JSON object a line, instead of a table

Ends with 0 when it is done, 1 when it is refused (the sentence says why), 2 when it isn't understood. Set PARAMO_DATA to the data of the
server; it may be running, and its windows follow.`;

export const OPTIONS = {
  as: { type: 'string' },
  from: { type: 'string' },
  until: { type: 'string' },
  today: { type: 'boolean' },
  private: { type: 'boolean' },
  copies: { type: 'boolean' },
  away: { type: 'boolean' },
  tell: { type: 'string' },
  quiet: { type: 'boolean' },
  digest: { type: 'string' },
  why: { type: 'string' },
  at: { type: 'string' },
  week: { type: 'string' },
  further: { type: 'boolean' },
  'dry-run': { type: 'boolean' },
  json: { type: 'boolean' },
  help: { type: 'boolean' },
} as const satisfies NonNullable<ParseArgsConfig['options']>;

/** How one command is called; all of them where there is none of that name. */
export const helpOf = (command: string): string => {
  const found = COMMANDS[command];
  return found ? `npm run paramo -- --as ADDRESS ${command} ${found.takes}\n\n  ${found.does}` : HELP;
};
