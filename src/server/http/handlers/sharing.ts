import type { RouteName } from '@/contract/routes.ts';
import { changeGrantsInWorker } from '../../operations/in-worker/changes.ts';
import {
  listLinkItemsInWorker,
  listSightlinesInWorker,
  previewAccessInWorker,
  readFindingsInWorker,
  readLinkInWorker,
  suggestLevelInWorker,
} from '../../operations/in-worker/in-worker.ts';
import { listAccessRequests } from '../../operations/sharing/access-requests.ts';
import { answerAccessRequest } from '../../operations/sharing/answer-access-request.ts';
import { listEverything } from '../../operations/sharing/everything.ts';
import { explainAccess, readItemSight } from '../../operations/sharing/explain-access.ts';
import { changeWords } from '../../operations/sharing/findings.ts';
import { giveAccess, giveSeveral, takeAccess, takeSeveral } from '../../operations/sharing/give-access.ts';
import { changeHouseRules, readHouseRules } from '../../operations/sharing/house-rules.ts';
import { setLinkShown } from '../../operations/sharing/link-feeds.ts';
import { findLink } from '../../operations/sharing/links.ts';
import { previewMessage } from '../../operations/sharing/message-text.ts';
import {
  accessRequestChoices,
  remindOfAccessRequest,
  requestAccess,
  withdrawAccessRequest,
} from '../../operations/sharing/request-access.ts';
import { answerWish, wishForRule } from '../../operations/sharing/rule-wishes.ts';
import { readHistory } from '../../operations/sharing/sightlines.ts';
import { suspendSharing } from '../../operations/sharing/suspend-sharing.ts';
import { tellAfterwards } from '../../operations/sharing/tell.ts';
import { setTold } from '../../operations/sharing/told.ts';
import { eventStream } from '../event-stream.ts';
import { feed } from '../feed.ts';
import type { HandlersOf } from '../handler.ts';

export const sharingHandlers = {
  changeGrants: { slow: ({ ctx, body }) => changeGrantsInWorker(ctx, body) },
  listAccessRequests: ({ ctx }) => listAccessRequests(ctx),
  requestAccess: ({ ctx, body }) => requestAccess(ctx, body),
  accessRequestChoices: ({ ctx, body }) => accessRequestChoices(ctx, body),
  answerAccessRequest: ({ ctx, params, body }) => answerAccessRequest(ctx, params.ask, body),
  remindOfAccessRequest: ({ ctx, params }) => remindOfAccessRequest(ctx, params.ask),
  withdrawAccessRequest: ({ ctx, params }) => withdrawAccessRequest(ctx, params.ask),
  explainAccess: ({ ctx, params, body }) => explainAccess(ctx, params.calendar, body),
  readHistory: ({ ctx, params }) => readHistory(ctx, params.calendar),
  readFindings: { slow: ({ ctx, params }) => readFindingsInWorker(ctx, params.calendar) },
  changeWords: ({ ctx, body }) => changeWords(ctx, body),
  readItemSight: ({ ctx, params }) => readItemSight(ctx, params.item),
  readHouseRules: ({ ctx }) => readHouseRules(ctx),
  changeHouseRules: ({ ctx, body }) => changeHouseRules(ctx, body),
  wishForRule: ({ ctx, body }) => wishForRule(ctx, body),
  answerWish: ({ ctx, params, body }) => answerWish(ctx, params.wish, body),
  previewAccess: { slow: ({ ctx, params, body }) => previewAccessInWorker(ctx, params.calendar, body) },
  suggestLevel: { slow: ({ ctx, params, body }) => suggestLevelInWorker(ctx, params.calendar, body) },
  previewMessage: ({ ctx, params, body }) => previewMessage(ctx, params.calendar, body),
  listEverything: ({ ctx, params }) => listEverything(ctx, params.person),
  listSightlines: { slow: ({ ctx, params }) => listSightlinesInWorker(ctx, params.calendar) },
  setTold: ({ ctx, params, body }) => setTold(ctx, params.calendar, body),
  giveAccess: ({ ctx, params, body }) => giveAccess(ctx, params.calendar, body),
  giveSeveral: ({ ctx, params, body }) => giveSeveral(ctx, params.calendar, body),
  takeAccess: ({ ctx, params, body }) => takeAccess(ctx, params.calendar, body),
  takeSeveral: ({ ctx, params, body }) => takeSeveral(ctx, params.calendar, body),
  tellOfAccess: ({ ctx, params, body }) => tellAfterwards(ctx, params.calendar, body),
  suspendSharing: ({ ctx, params, body }) => suspendSharing(ctx, params.calendar, body.suspended),
  setLinkShown: ({ ctx, params, body }) => setLinkShown(ctx, params.calendar, params.link, body),
  listLinkItems: ({ params, query, request }) => listLinkItemsInWorker(params.link, request.headers, query),
  linkFeed: async ({ params, request }) => {
    const read = await readLinkInWorker('feed', params.link, request.headers, null);
    return read.ok ? feed(read.value, 'calendar.ics', request) : read;
  },
  linkFreeBusy: async ({ params, query, request }) => {
    const read = await readLinkInWorker('freeBusy', params.link, request.headers, query);
    return read.ok ? feed(read.value, 'free-busy.ifb', request) : read;
  },
  /** A stream for whoever has a link open: that what it shows changed, and nothing else. It ends with the link. */
  linkLive: ({ params, request }) => {
    const find = () => findLink(params.link, request.headers);
    const found = find();
    if (!('link' in found)) return found;
    return eventStream(request, `link:${found.link.key}`, null, () => 'link' in find());
  },
} satisfies Partial<HandlersOf<RouteName>>;
