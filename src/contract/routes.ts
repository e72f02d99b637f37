import { absenceRoutes } from './absences.ts';
import type { RouteName } from './addresses.ts';
import { contactRoutes } from './contacts.ts';
import { dayRoutes } from './days.ts';
import { deskRoutes } from './desk.ts';
import { frameRoutes } from './frame.ts';
import { attachmentRoutes } from './items/attachments.ts';
import { fileRoutes } from './items/files.ts';
import { itemRoutes } from './items/items.ts';
import { lookingRoutes } from './items/looking.ts';
import { severalRoutes } from './items/several.ts';
import { targetRoutes } from './items/targets.ts';
import { laneRoutes } from './lanes.ts';
import { holdRoutes } from './meetings/holds.ts';
import { meetingRoutes } from './meetings/meetings.ts';
import { messageRoutes } from './messages.ts';
import { noticeRoutes } from './notices.ts';
import { openingsRoutes } from './openings/openings.ts';
import { roundRoutes } from './openings/round.ts';
import { timePreferenceRoutes } from './openings/time-preferences.ts';
import { accountRoutes } from './people/accounts.ts';
import { peopleRoutes } from './people/people.ts';
import { sessionRoutes } from './people/sessions.ts';
import { tokenRoutes } from './people/tokens.ts';
import { reminderRoutes } from './reminders.ts';
import type { Route } from './route.ts';
import { searchRoutes } from './search.ts';
import { accessRequestRoutes } from './sharing/access-requests.ts';
import { changesRoutes } from './sharing/changes.ts';
import { linkRoutes } from './sharing/links.ts';
import { reviewRoutes } from './sharing/review.ts';
import { ruleRoutes } from './sharing/rules.ts';
import { sharingRoutes } from './sharing/sharing.ts';
import { suggestionRoutes } from './suggestions.ts';
import { taskRoutes } from './tasks.ts';
import { timeUseRoutes } from './time-use.ts';
import { trailRoutes } from './trail.ts';

/** Every route of the API. The OpenAPI description, the typed call, the server's checks and the leak test all read this. */
export const ROUTES = {
  ...frameRoutes,
  ...deskRoutes,
  ...absenceRoutes,
  ...dayRoutes,
  ...timeUseRoutes,
  ...taskRoutes,
  ...contactRoutes,
  ...peopleRoutes,
  ...itemRoutes,
  ...fileRoutes,
  ...attachmentRoutes,
  ...severalRoutes,
  ...lookingRoutes,
  ...targetRoutes,
  ...laneRoutes,
  ...sharingRoutes,
  ...linkRoutes,
  ...accessRequestRoutes,
  ...changesRoutes,
  ...reviewRoutes,
  ...ruleRoutes,
  ...suggestionRoutes,
  ...meetingRoutes,
  ...holdRoutes,
  ...noticeRoutes,
  ...messageRoutes,
  ...openingsRoutes,
  ...roundRoutes,
  ...timePreferenceRoutes,
  ...searchRoutes,
  ...trailRoutes,
  ...reminderRoutes,
  ...sessionRoutes,
  ...accountRoutes,
  ...tokenRoutes,
} as const satisfies Record<RouteName, Route>;

export type { RouteName };
