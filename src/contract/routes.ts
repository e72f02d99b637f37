import type { RouteName } from './addresses.ts';
import { frameRoutes } from './frame.ts';
import { itemRoutes } from './items.ts';
import { attachmentRoutes } from './items-attachments.ts';
import { fileRoutes } from './items-files.ts';
import { lookingRoutes } from './items-looking.ts';
import { severalRoutes } from './items-several.ts';
import { laneRoutes } from './lanes.ts';
import { meetingRoutes } from './meetings.ts';
import { holdRoutes } from './meetings-holds.ts';
import { messageRoutes } from './messages.ts';
import { openingsRoutes } from './openings.ts';
import { keepRoutes } from './openings-keeps.ts';
import { roundRoutes } from './openings-round.ts';
import { peopleRoutes } from './people.ts';
import { accountRoutes } from './people-accounts.ts';
import { sessionRoutes } from './people-sessions.ts';
import { tokenRoutes } from './people-tokens.ts';
import { reminderRoutes } from './reminders.ts';
import type { Route } from './route.ts';
import { searchRoutes } from './search.ts';
import { sharingRoutes } from './sharing.ts';
import { askRoutes } from './sharing-asks.ts';
import { changesRoutes } from './sharing-changes.ts';
import { reviewRoutes } from './sharing-review.ts';
import { ruleRoutes } from './sharing-rules.ts';
import { suggestionRoutes } from './suggestions.ts';
import { trailRoutes } from './trail.ts';

/** Every route of the API. The OpenAPI description, the typed call, the server's checks and the leak test all read this. */
export const ROUTES = {
  ...frameRoutes,
  ...peopleRoutes,
  ...itemRoutes,
  ...fileRoutes,
  ...attachmentRoutes,
  ...severalRoutes,
  ...lookingRoutes,
  ...laneRoutes,
  ...sharingRoutes,
  ...askRoutes,
  ...changesRoutes,
  ...reviewRoutes,
  ...ruleRoutes,
  ...suggestionRoutes,
  ...meetingRoutes,
  ...holdRoutes,
  ...messageRoutes,
  ...openingsRoutes,
  ...roundRoutes,
  ...keepRoutes,
  ...searchRoutes,
  ...trailRoutes,
  ...reminderRoutes,
  ...sessionRoutes,
  ...accountRoutes,
  ...tokenRoutes,
} as const satisfies Record<RouteName, Route>;

export type { RouteName };
