import type { RouteName } from '@/contract/routes.ts';
import {
  listLinkItemsBeside,
  listSightlinesBeside,
  previewAccessBeside,
  readFindingsBeside,
  readLinkBeside,
  suggestLevelBeside,
} from '../../operations/beside/beside.ts';
import { changeGrantsBeside } from '../../operations/beside/changes.ts';
import { answerAsk } from '../../operations/sharing/answer-ask.ts';
import { askAccess, readItemSight } from '../../operations/sharing/ask.ts';
import { listAsks } from '../../operations/sharing/asks.ts';
import { changeWords } from '../../operations/sharing/findings.ts';
import { giveAccess, giveSeveral, takeAccess, takeSeveral } from '../../operations/sharing/give-access.ts';
import { changeHouseRules, readHouseRules } from '../../operations/sharing/house-rules.ts';
import { setLinkShown } from '../../operations/sharing/link-feeds.ts';
import { findLink } from '../../operations/sharing/links.ts';
import { askChoices, makeAsk, nudgeAsk, takeBackAsk } from '../../operations/sharing/make-ask.ts';
import { previewMessage } from '../../operations/sharing/message-text.ts';
import { answerWish, wishForRule } from '../../operations/sharing/rule-wishes.ts';
import { readHistory } from '../../operations/sharing/sightlines.ts';
import { suspendSharing } from '../../operations/sharing/suspend-sharing.ts';
import { tellAfterwards } from '../../operations/sharing/tell.ts';
import { setTold } from '../../operations/sharing/told.ts';
import { eventStream } from '../event-stream.ts';
import { feed } from '../feed.ts';
import type { HandlersOf } from '../handler.ts';

export const sharingHandlers = {
  changeGrants: { slow: ({ ctx, body }) => changeGrantsBeside(ctx, body) },
  listAsks: ({ ctx }) => listAsks(ctx),
  makeAsk: ({ ctx, body }) => makeAsk(ctx, body),
  askChoices: ({ ctx, body }) => askChoices(ctx, body),
  answerAsk: ({ ctx, params, body }) => answerAsk(ctx, params.ask, body),
  nudgeAsk: ({ ctx, params }) => nudgeAsk(ctx, params.ask),
  takeBackAsk: ({ ctx, params }) => takeBackAsk(ctx, params.ask),
  ask: ({ ctx, params, body }) => askAccess(ctx, params.calendar, body),
  readHistory: ({ ctx, params }) => readHistory(ctx, params.calendar),
  readFindings: { slow: ({ ctx, params }) => readFindingsBeside(ctx, params.calendar) },
  changeWords: ({ ctx, body }) => changeWords(ctx, body),
  readItemSight: ({ ctx, params }) => readItemSight(ctx, params.item),
  readHouseRules: ({ ctx }) => readHouseRules(ctx),
  changeHouseRules: ({ ctx, body }) => changeHouseRules(ctx, body),
  wishForRule: ({ ctx, body }) => wishForRule(ctx, body),
  answerWish: ({ ctx, params, body }) => answerWish(ctx, params.wish, body),
  previewAccess: { slow: ({ ctx, params, body }) => previewAccessBeside(ctx, params.calendar, body) },
  suggestLevel: { slow: ({ ctx, params, body }) => suggestLevelBeside(ctx, params.calendar, body) },
  previewMessage: ({ ctx, params, body }) => previewMessage(ctx, params.calendar, body),
  listSightlines: { slow: ({ ctx, params }) => listSightlinesBeside(ctx, params.calendar) },
  setTold: ({ ctx, params, body }) => setTold(ctx, params.calendar, body),
  giveAccess: ({ ctx, params, body }) => giveAccess(ctx, params.calendar, body),
  giveSeveral: ({ ctx, params, body }) => giveSeveral(ctx, params.calendar, body),
  takeAccess: ({ ctx, params, body }) => takeAccess(ctx, params.calendar, body),
  takeSeveral: ({ ctx, params, body }) => takeSeveral(ctx, params.calendar, body),
  tellOfAccess: ({ ctx, params, body }) => tellAfterwards(ctx, params.calendar, body),
  suspendSharing: ({ ctx, params, body }) => suspendSharing(ctx, params.calendar, body.suspended),
  setLinkShown: ({ ctx, params, body }) => setLinkShown(ctx, params.calendar, params.link, body),
  listLinkItems: ({ params, query, request }) => listLinkItemsBeside(params.link, request.headers, query),
  linkFeed: async ({ params, request }) => {
    const read = await readLinkBeside('feed', params.link, request.headers, null);
    return read.ok ? feed(read.value, 'calendar.ics', request) : read;
  },
  linkFreeBusy: async ({ params, query, request }) => {
    const read = await readLinkBeside('freeBusy', params.link, request.headers, query);
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
