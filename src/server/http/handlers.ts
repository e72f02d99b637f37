import { ROUTES, type RouteName } from '@/contract/routes.ts';
import type { Handler, HandlersOf } from './handler.ts';
import { absencesHandlers } from './handlers/absences.ts';
import { contactsHandlers } from './handlers/contacts.ts';
import { daysHandlers } from './handlers/days.ts';
import { deskHandlers } from './handlers/desk.ts';
import { frameHandlers } from './handlers/frame.ts';
import { itemsHandlers } from './handlers/items.ts';
import { lanesHandlers } from './handlers/lanes.ts';
import { meetingsHandlers } from './handlers/meetings.ts';
import { messagesHandlers } from './handlers/messages.ts';
import { openingsHandlers } from './handlers/openings.ts';
import { peopleHandlers } from './handlers/people.ts';
import { remindersHandlers } from './handlers/reminders.ts';
import { searchHandlers } from './handlers/search.ts';
import { sharingHandlers } from './handlers/sharing.ts';
import { suggestionsHandlers } from './handlers/suggestions.ts';
import { tasksHandlers } from './handlers/tasks.ts';
import { timeUseHandlers } from './handlers/time-use.ts';
import { trailHandlers } from './handlers/trail.ts';
import { nothingThere } from './inbound.ts';
import { answerRoute } from './route.ts';

/** What answers each route of the contract; a route without a handler doesn't compile. */
const HANDLERS = {
  ...absencesHandlers,
  ...daysHandlers,
  ...deskHandlers,
  ...frameHandlers,
  ...itemsHandlers,
  ...lanesHandlers,
  ...meetingsHandlers,
  ...messagesHandlers,
  ...openingsHandlers,
  ...peopleHandlers,
  ...remindersHandlers,
  ...searchHandlers,
  ...sharingHandlers,
  ...suggestionsHandlers,
  ...tasksHandlers,
  ...contactsHandlers,
  ...timeUseHandlers,
  ...trailHandlers,
} satisfies HandlersOf<RouteName>;

interface Place {
  readonly name: RouteName;
  readonly method: string;
  /** The path below /api, part by part; what is in braces is a parameter. */
  readonly parts: readonly string[];
}

const isParameter = (part: string): boolean => part.startsWith('{');

/** The routes with fewer parameters first: `asks/choices` is no ask. */
const PLACES: readonly Place[] = Object.entries(ROUTES)
  .map(([name, { method, path }]) => ({ name: name as RouteName, method, parts: path.split('/').slice(2) }))
  .sort((a, b) => a.parts.filter(isParameter).length - b.parts.filter(isParameter).length);

/** Answers whatever is asked below /api: by the route of that method and path, or as what isn't there. */
export async function answerApi(request: Request, path: readonly string[]): Promise<Response> {
  const alike = PLACES.filter(({ parts }) => parts.length === path.length);
  const first = alike.find(({ parts }) => parts.every((part, i) => isParameter(part) || part === path[i]));
  if (!first) return nothingThere();
  const method = request.method === 'HEAD' ? 'GET' : request.method;
  const place = alike.find((one) => one.method === method && one.parts.join('/') === first.parts.join('/'));
  if (!place) return new Response(null, { status: 405 });
  const params = Object.fromEntries(
    place.parts.flatMap((part, i) => (isParameter(part) ? [[part.slice(1, -1), path[i] ?? '']] : [])),
  );
  return answerRoute(place.name, HANDLERS[place.name] as Handler<RouteName>, request, params);
}
