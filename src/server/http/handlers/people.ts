import type { RouteName } from '@/contract/routes.ts';
import { sessionsOf } from '../../auth/accounts.ts';
import { DEMO_PASSWORD } from '../../auth/demo-password.ts';
import { signIn } from '../../auth/sign-in.ts';
import { now } from '../../clock.ts';
import {
  listAccounts,
  makeAccountCode,
  setOperator,
  tieAccount,
  untieAccount,
} from '../../operations/people/accounts.ts';
import { bringInDirectory, directoryFile } from '../../operations/people/directory-file.ts';
import { changeDomains, readDomains } from '../../operations/people/domains.ts';
import { addPersonWithAccount, foundOrganisation } from '../../operations/people/found-people.ts';
import { listGroups, makeGroup, setMembership, setWithin } from '../../operations/people/groups.ts';
import { comeIn, requestWayIn } from '../../operations/people/guests.ts';
import { changePerson, choosePassword, leave, makeWayIn, readPerson } from '../../operations/people/leaving.ts';
import { listPeople } from '../../operations/people/list-people.ts';
import { bringCalendarBack, changeCalendar, removeCalendar } from '../../operations/people/own-calendar.ts';
import { beginCalendar, readPhones } from '../../operations/people/people.ts';
import { addRoom } from '../../operations/people/rooms.ts';
import { addressOf, signOutHere, withdrawOwnSession } from '../../operations/people/session.ts';
import { listTokens, makeToken, readTokenActs, withdrawToken } from '../../operations/people/tokens.ts';
import { ok, refuse } from '../../result.ts';
import { settings } from '../../settings.ts';
import { csvFile } from '../download.ts';
import type { HandlersOf } from '../handler.ts';
import { json } from '../route.ts';

export const peopleHandlers = {
  signIn: {
    slow: async ({ body, request }) => {
      const result = await signIn(body.address, body.password, request.headers, now());
      return result.ok ? json({ done: true }, 200, result.value.cookies) : result;
    },
  },
  signOut: { slow: async ({ request }) => json({ done: true }, 200, (await signOutHere(request.headers)).cookies) },
  listSessions: { slow: async ({ request }) => ok({ sessions: await sessionsOf(request.headers) }) },
  withdrawSession: { slow: ({ ctx, request, params }) => withdrawOwnSession(ctx, request.headers, params.session) },
  listAccounts: ({ ctx }) => ({ ok: true, value: listAccounts(ctx) }),
  makeAccountCode: ({ ctx }) => makeAccountCode(ctx),
  tieAccount: ({ ctx, body }) => tieAccount(ctx, body),
  untieAccount: ({ ctx, params }) => untieAccount(ctx, params.person),
  // The one act of a role account's window that comes before it is said who is behind it.
  setOperator: { slow: async ({ ctx, body }) => setOperator(ctx, body) },
  listTokens: ({ ctx }) => listTokens(ctx),
  makeToken: ({ ctx, body }) => makeToken(ctx, body),
  readTokenActs: ({ ctx, params }) => readTokenActs(ctx, params.token),
  withdrawToken: ({ ctx, params }) => withdrawToken(ctx, params.token),
  foundOrganisation: { slow: ({ body }) => foundOrganisation(body) },
  stepIn: {
    slow: async ({ body, request }) => {
      const address = settings().demo ? addressOf(body.handle) : null;
      if (!address) return refuse('notFound');
      const result = await signIn(address, DEMO_PASSWORD, request.headers, now());
      return result.ok ? json({ done: true }, 200, result.value.cookies) : result;
    },
  },
  addRoom: ({ ctx, body }) => addRoom(ctx, body),
  listPeople: ({ ctx }) => listPeople(ctx),
  addPerson: { slow: ({ ctx, body }) => addPersonWithAccount(ctx, body) },
  readPerson: { slow: ({ ctx, params }) => readPerson(ctx, params.person) },
  changePerson: ({ ctx, params, body }) => changePerson(ctx, params.person, body),
  leave: { slow: ({ ctx, params, body }) => leave(ctx, params.person, body) },
  makeWayIn: { slow: ({ ctx, params }) => makeWayIn(ctx, params.person) },
  choosePassword: { slow: ({ body }) => choosePassword(body.token, body.password) },
  readDirectoryFile: ({ ctx }) => {
    const file = directoryFile(ctx);
    return file.ok ? csvFile('directory.csv', file.value) : file;
  },
  readPhones: ({ ctx, body }) => readPhones(ctx, body.addresses),
  bringInDirectory: { slow: ({ ctx, body }) => bringInDirectory(ctx, body) },
  readDomains: ({ ctx }) => readDomains(ctx),
  changeDomains: ({ ctx, body }) => changeDomains(ctx, body),
  beginCalendar: ({ ctx, body }) => beginCalendar(ctx, body),
  changeCalendar: ({ ctx, params, body }) => changeCalendar(ctx, params.calendar, body),
  removeCalendar: ({ ctx, params }) => removeCalendar(ctx, params.calendar),
  bringCalendarBack: ({ ctx, params }) => bringCalendarBack(ctx, params.calendar),
  listGroups: ({ ctx }) => listGroups(ctx),
  makeGroup: ({ ctx, body }) => makeGroup(ctx, body.name),
  setMembership: ({ ctx, params, body }) => setMembership(ctx, params.group, body),
  setWithin: ({ ctx, params, body }) => setWithin(ctx, params.group, body),
  askWayIn: ({ body, request }) => requestWayIn(body.address, request.headers),
  comeIn: {
    slow: async ({ body, request }) => {
      const result = await comeIn(body.token, request.headers);
      return result.ok ? json({ done: true }, 200, result.value.cookies) : result;
    },
  },
} satisfies Partial<HandlersOf<RouteName>>;
