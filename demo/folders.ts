import { NO_RIGHTS, type Rights } from '../src/core/access/index.ts';
import type { Context } from '../src/server/operations/deciding/context/context.ts';
import { saveDraft } from '../src/server/operations/messages/drafts.ts';
import { addFolder, listFolders } from '../src/server/operations/messages/folders.ts';
import { saveMailRules } from '../src/server/operations/messages/mail-rules.ts';
import { giveAccess } from '../src/server/operations/sharing/give-access.ts';
import type { Result } from '../src/server/result.ts';

/** Runs somebody's mail with them: reads all but what is private, files, flags and removes, and writes in their name. */
const RUNS: Rights = { ...NO_RIGHTS, sight: 'full', add: true, change: 'all', remove: 'all', speaks: true };
const READS: Rights = { ...NO_RIGHTS, sight: 'full' };
const GLANCES: Rights = { ...NO_RIGHTS, sight: 'outline' };

function value<T>(result: Result<T>): T {
  if (!result.ok) throw new Error(JSON.stringify(result));
  return result.value;
}

/** Message folders of the sample organisation: what of the director's others see, a folder of hers inside another, a rule, and a draft. */
export function sampleFolders(ctx: (handle: string) => Context): void {
  const folders = value(listFolders(ctx('ines'), 'ines', {})).lists;
  const keyOf = (role: string) => folders.find((one) => one.role === role)?.key ?? '';
  const give = (to: string, folder: string, rights: Rights) =>
    value(giveAccess(ctx('ines'), folder, { audience: { kind: 'person', id: to }, seen: null, rights }));
  give('tomas', keyOf('arrived'), RUNS);
  give('tomas', keyOf('sent'), READS);
  give('tomas', keyOf('drafts'), RUNS);
  give('tomas', keyOf('filed'), RUNS);
  give('oona', keyOf('arrived'), GLANCES);
  const water = value(addFolder(ctx('ines'), 'ines', { name: 'Water licences', parent: keyOf('filed') })).list;
  value(
    saveMailRules(ctx('ines'), 'ines', {
      rules: [{ sender: 'water-ministry.example', words: 'licence', meeting: false, folder: water }],
    }),
  );
  value(
    saveDraft(ctx('tomas'), 'ines', {
      draft: null,
      version: 0,
      to: 's.ferrand@uplands-bank.example',
      subject: 'The uplands loan',
      text: 'Dear Solène,\n\nInés can see you on',
      answers: null,
    }),
  );
}
