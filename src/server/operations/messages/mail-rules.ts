import type { MailRuleWire } from '@/contract/messages.ts';
import { findFolder, folderOf, listById, listByKey } from '../../repositories/lists.ts';
import { mailRulesOf, saveMailRules as saveRules } from '../../repositories/mail-rules.ts';
import { personByHandle } from '../../repositories/people.ts';
import { ok, type Result, refuse } from '../../result.ts';
import { type Context, decideOnList, trailOn } from '../deciding/index.ts';

interface Rules {
  rules: MailRuleWire[];
}

/** The rules of one's own; what was filed into a folder that went since arrives as if there were none. */
export function listMailRules(ctx: Context, handle: string): Result<Rules> {
  const owner = personByHandle(ctx.db, handle);
  if (owner?.id !== ctx.viewer.id || ctx.token?.only != null) return refuse('notFound');
  return ok({ rules: rulesOf(ctx) });
}

const rulesOf = (ctx: Context): MailRuleWire[] =>
  mailRulesOf(ctx.db, ctx.viewer.id).flatMap(({ folderId, ...rule }) => {
    const folder = listById(ctx.db, 'folder', folderId);
    return folder && folder.ownerId === ctx.viewer.id ? [{ ...rule, folder: folder.key }] : [];
  });

/** Says where one's own mail is filed as it arrives, in the order the rules are asked. Each leads into a folder of one's own. */
export function saveMailRules(ctx: Context, handle: string, body: Rules): Result<Rules> {
  return ctx.db.write(() => {
    const owner = personByHandle(ctx.db, handle);
    if (owner?.id !== ctx.viewer.id || ctx.token?.only != null) return refuse('notFound');
    const rules = body.rules.map(({ folder, ...rule }) => ({ rule, folder: listByKey(ctx.db, 'folder', folder) }));
    for (const { folder } of rules)
      if (!folder || !decideOnList(ctx, folder).decision.owner || folder.role === 'sent' || folder.role === 'drafts')
        return refuse('badInput', { fields: { folder: 'otherFolder' } });
    saveRules(
      ctx.db,
      owner.id,
      rules.flatMap(({ rule, folder }) => (folder ? [{ ...rule, folderId: folder.id }] : [])),
    );
    const arrived = findFolder(ctx.db, owner.id, 'arrived') ?? folderOf(ctx.db, owner.id, 'arrived');
    trailOn(ctx, arrived, arrived.key, 'message.rules', null, { rules: rules.length });
    return ok({ rules: rulesOf(ctx) });
  });
}
