import { type Decision, type MayItem, mayItem, projectOther, type Standing } from '@/core/access/index.ts';
import { firstLineOf } from '@/core/mail/index.ts';
import { instantText } from '@/core/time/index.ts';
import { bareIdFor } from '../../../ids.ts';
import type { Folder } from '../../../repositories/lists.ts';
import type { StoredMessage } from '../../../repositories/message-row.ts';
import type { FoundAudience } from '../access/audience.ts';
import type { Context } from '../context/context.ts';

/** From which sight on a message of a folder is seen. */
type MessageSight = 'title' | 'outline' | 'full';

/** A message of a folder as the viewer sees it: with each sight there is more of it, and nothing of what isn't seen. */
export interface MessageView {
  /** Its key where it is seen in full; below that an id that leads nowhere. */
  readonly id: string;
  readonly sight: MessageSight;
  readonly firstLine: string | null;
  readonly attached: boolean | null;
  readonly text: string | null;
  readonly may: Pick<MayItem, 'change' | 'remove'>;
}

/** Nobody is named on a message so that they would see more of somebody else's copy. */
const standingOn = (ctx: Pick<Context, 'viewer'>, m: StoredMessage): Standing => ({
  named: false,
  created: m.actorId === ctx.viewer.id,
  ownerInvited: false,
});

const factsOf = (m: StoredMessage) =>
  ({
    visibility: m.facts.private ? 'private' : 'follow',
    shows: 'busy',
    cancelled: false,
    ownerAnswer: null,
  }) as const;

/** What the viewer may do with a message, whether they see it or not. */
export const mayOnMessage = (ctx: Pick<Context, 'viewer'>, decision: Decision, m: StoredMessage): MayItem =>
  mayItem(factsOf(m), standingOn(ctx, m), decision);

/** A message as the viewer sees it by a decision on its folder; `null` where it is left out. */
export function viewOfMessage(ctx: Pick<Context, 'viewer'>, decision: Decision, m: StoredMessage): MessageView | null {
  const view = projectOther(
    'folder',
    {
      from: m.fromAddress,
      to: [],
      when: instantText(m.at),
      subject: m.subject,
      // Whether it is seen is asked here; read it is only where somebody wants it.
      firstLine: '',
      attached: (m.facts.files?.length ?? 0) > 0,
      text: m.body,
      attachments: [],
      categories: [],
      visibility: factsOf(m).visibility,
      createdBy: null,
    },
    standingOn(ctx, m),
    decision,
  );
  if (view === null) return null;
  const full = view.text !== undefined;
  const { change, remove } = mayOnMessage(ctx, decision, m);
  return {
    id: full ? m.key : bareIdFor(ctx.viewer.id, m.key),
    sight: full ? 'full' : view.firstLine === undefined ? 'title' : 'outline',
    get firstLine() {
      return view.firstLine === undefined ? null : firstLineOf(m.body);
    },
    attached: view.attached ?? null,
    text: view.text ?? null,
    may: { change, remove },
  };
}

/** Messages of a folder that are shown where access to it is thought of: as an audience sees them, and nothing the one who looks doesn't see. */
export function messagesAs(
  ctx: Context,
  mine: { readonly list: Folder; readonly decision: Decision },
  { person }: Pick<FoundAudience, 'person'>,
  theirs: Decision,
  messages: readonly StoredMessage[],
): { id: string; from: string; at: string; subject: string; firstLine: string | null; text: string | null }[] {
  const eyes = { ...ctx, viewer: person ?? { ...ctx.viewer, id: -1, address: '' } };
  return messages.flatMap((m) => {
    const [seen, own] = [viewOfMessage(eyes, theirs, m), viewOfMessage(ctx, mine.decision, m)];
    if (!seen || !own) return [];
    return [
      {
        id: seen.id,
        from: m.fromName ?? m.fromAddress,
        at: instantText(m.at),
        subject: m.subject,
        firstLine: own.firstLine === null ? null : seen.firstLine,
        text: own.text === null ? null : seen.text,
      },
    ];
  });
}
