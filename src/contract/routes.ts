import { z } from 'zod';
import {
  askAnswer,
  askBody,
  findingsAnswer,
  giveBody,
  historyAnswer,
  houseRulesAnswer,
  houseRulesWire,
  itemSightAnswer,
  noticesAnswer,
  previewAnswer,
  previewBody,
  sightlinesAnswer,
  suspensionBody,
  takeBody,
  tellBody,
} from './access.ts';
import { importDone, importPreview } from './imports.ts';
import {
  itemPatch,
  itemsAnswer,
  itemsQuery,
  itemWire,
  loadAnswer,
  newItem,
  rangeQuery,
  removeQuery,
  undoBody,
  writtenAnswer,
} from './items.ts';
import {
  done,
  frameAnswer,
  groupsAnswer,
  membershipBody,
  newGroup,
  newPerson,
  peopleAnswer,
  preferences,
  stepIn,
} from './people.ts';

/** One route of the API: where it is, what it takes and what it answers. */
export interface Route {
  readonly method: 'GET' | 'POST' | 'PUT' | 'PATCH' | 'DELETE';
  readonly path: `/api/${string}`;
  readonly summary: string;
  /** `person` needs a session; `open` doesn't. */
  readonly who: 'person' | 'open';
  readonly query?: z.ZodType;
  readonly body?: z.ZodType;
  /** A body that is no JSON, by its media type; read by the operation itself. */
  readonly rawBody?: string;
  readonly answer?: z.ZodType;
  /** The media type of an answer that is no JSON. */
  readonly rawAnswer?: string;
}

const session = z.strictObject({ id: z.string(), since: z.string(), browser: z.string(), current: z.boolean() });
const signInBody = z.strictObject({
  address: z.string().trim().toLowerCase().max(254).pipe(z.email('address')),
  password: z.string().min(1, 'passwordMissing').max(128, 'tooLong:128'),
});

/** Every route of the API. The OpenAPI description, the typed call, the server's checks and the leak test all read this. */
export const ROUTES = {
  readFrame: {
    method: 'GET',
    path: '/api/frame',
    who: 'person',
    summary: 'Who is signed in and whom they act for',
    answer: frameAnswer,
  },
  listPeople: {
    method: 'GET',
    path: '/api/people',
    who: 'person',
    summary: 'The directory, with what one sees of each calendar',
    answer: peopleAnswer,
  },
  addPerson: {
    method: 'POST',
    path: '/api/people',
    who: 'person',
    summary: 'Add a person (administrators)',
    body: newPerson,
    answer: done,
  },
  listGroups: {
    method: 'GET',
    path: '/api/groups',
    who: 'person',
    summary: 'The groups and who is in them',
    answer: groupsAnswer,
  },
  makeGroup: {
    method: 'POST',
    path: '/api/groups',
    who: 'person',
    summary: 'Make a group (administrators)',
    body: newGroup,
    answer: done,
  },
  setMembership: {
    method: 'PUT',
    path: '/api/groups/{group}/members',
    who: 'person',
    summary: 'Put somebody into a group or take them out (administrators)',
    body: membershipBody,
    answer: done,
  },
  savePreferences: {
    method: 'PUT',
    path: '/api/preferences',
    who: 'person',
    summary: 'How times are shown',
    body: preferences,
    answer: done,
  },
  listItems: {
    method: 'GET',
    path: '/api/calendars/{calendar}/items',
    who: 'person',
    summary: 'What happens in a range, as one sees it, or as an audience would',
    query: itemsQuery,
    answer: itemsAnswer,
  },
  listLoad: {
    method: 'GET',
    path: '/api/calendars/{calendar}/load',
    who: 'person',
    summary: 'Booked minutes by day, from what one sees',
    query: rangeQuery,
    answer: loadAnswer,
  },
  createItem: {
    method: 'POST',
    path: '/api/calendars/{calendar}/items',
    who: 'person',
    summary: 'Add an item in the owner’s name',
    body: newItem,
    answer: writtenAnswer,
  },
  readItem: {
    method: 'GET',
    path: '/api/items/{item}',
    who: 'person',
    summary: 'One item seen in full',
    answer: itemWire,
  },
  changeItem: {
    method: 'PATCH',
    path: '/api/items/{item}',
    who: 'person',
    summary: 'Change the touched fields of an item',
    body: itemPatch,
    answer: writtenAnswer,
  },
  removeItem: {
    method: 'DELETE',
    path: '/api/items/{item}',
    who: 'person',
    summary: 'Remove an item',
    query: removeQuery,
    answer: writtenAnswer,
  },
  undo: {
    method: 'POST',
    path: '/api/undo',
    who: 'person',
    summary: 'Take back one’s own last write',
    body: undoBody,
    answer: writtenAnswer,
  },
  listSightlines: {
    method: 'GET',
    path: '/api/calendars/{calendar}/sightlines',
    who: 'person',
    summary: 'Who sees what in a calendar',
    answer: sightlinesAnswer,
  },
  previewAccess: {
    method: 'POST',
    path: '/api/calendars/{calendar}/preview',
    who: 'person',
    summary: 'What an audience would get',
    body: previewBody,
    answer: previewAnswer,
  },
  giveAccess: {
    method: 'PUT',
    path: '/api/calendars/{calendar}/grants',
    who: 'person',
    summary: 'Give an audience these rights',
    body: giveBody,
    answer: done,
  },
  takeAccess: {
    method: 'DELETE',
    path: '/api/calendars/{calendar}/grants',
    who: 'person',
    summary: 'Take an audience’s own rights away',
    body: takeBody,
    answer: done,
  },
  tellOfAccess: {
    method: 'POST',
    path: '/api/calendars/{calendar}/grants',
    who: 'person',
    summary: 'Tell an audience of what it was given',
    body: tellBody,
    answer: done,
  },
  readHistory: {
    method: 'GET',
    path: '/api/calendars/{calendar}/history',
    who: 'person',
    summary: 'Every grant ever recorded on a calendar',
    answer: historyAnswer,
  },
  readFindings: {
    method: 'GET',
    path: '/api/calendars/{calendar}/findings',
    who: 'person',
    summary: 'What is more open than it should be',
    answer: findingsAnswer,
  },
  suspendSharing: {
    method: 'PUT',
    path: '/api/calendars/{calendar}/suspension',
    who: 'person',
    summary: 'Suspend all sharing of a calendar, or resume it (its owner)',
    body: suspensionBody,
    answer: done,
  },
  ask: {
    method: 'POST',
    path: '/api/calendars/{calendar}/ask',
    who: 'person',
    summary: 'Whether an audience can see an item, and why, now or at a past instant',
    body: askBody,
    answer: askAnswer,
  },
  readItemSight: {
    method: 'GET',
    path: '/api/items/{item}/sight',
    who: 'person',
    summary: 'Who sees what of an item',
    answer: itemSightAnswer,
  },
  listNotices: {
    method: 'GET',
    path: '/api/notices',
    who: 'person',
    summary: 'What one was told of access, and what soon ends',
    answer: noticesAnswer,
  },
  readNotices: {
    method: 'POST',
    path: '/api/notices',
    who: 'person',
    summary: 'Mark all one was told as read',
    answer: done,
  },
  readHouseRules: {
    method: 'GET',
    path: '/api/house-rules',
    who: 'person',
    summary: 'The organisation’s ceilings',
    answer: houseRulesAnswer,
  },
  changeHouseRules: {
    method: 'PUT',
    path: '/api/house-rules',
    who: 'person',
    summary: 'Set the organisation’s ceilings (administrators)',
    body: houseRulesWire,
    answer: done,
  },
  previewImport: {
    method: 'POST',
    path: '/api/calendars/{calendar}/imports',
    who: 'person',
    summary: 'Read a calendar file and say what would come in',
    rawBody: 'text/calendar',
    answer: importPreview,
  },
  bringIn: {
    method: 'POST',
    path: '/api/imports/{preview}',
    who: 'person',
    summary: 'Bring in what a preview showed',
    answer: importDone,
  },
  exportFile: {
    method: 'GET',
    path: '/api/calendars/{calendar}/file',
    who: 'person',
    summary: 'The calendar as a file',
    rawAnswer: 'text/calendar',
  },
  live: {
    method: 'GET',
    path: '/api/live',
    who: 'person',
    summary: 'A stream that says which calendars changed',
    rawAnswer: 'text/event-stream',
  },
  signIn: { method: 'POST', path: '/api/session', who: 'open', summary: 'Sign in', body: signInBody, answer: done },
  signOut: { method: 'DELETE', path: '/api/session', who: 'person', summary: 'Sign out', answer: done },
  listSessions: {
    method: 'GET',
    path: '/api/sessions',
    who: 'person',
    summary: 'Where one is signed in',
    answer: z.strictObject({ sessions: z.array(session) }),
  },
  withdrawSession: {
    method: 'DELETE',
    path: '/api/sessions/{session}',
    who: 'person',
    summary: 'Withdraw one of one’s sessions',
    answer: done,
  },
  foundOrganisation: {
    method: 'POST',
    path: '/api/start',
    who: 'open',
    summary: 'Make the first administrator',
    body: newPerson,
    answer: done,
  },
  stepIn: {
    method: 'POST',
    path: '/api/demo/step-in',
    who: 'open',
    summary: 'Sign in as a sample person (demo only)',
    body: stepIn,
    answer: done,
  },
  openapi: {
    method: 'GET',
    path: '/api/openapi.json',
    who: 'open',
    summary: 'This description',
    rawAnswer: 'application/json',
  },
} as const satisfies Record<string, Route>;

export type RouteName = keyof typeof ROUTES;
