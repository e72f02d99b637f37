export {
  addAttachment,
  bringBackAttachment,
  listAttachments,
  readAttachment,
  removeAttachment,
} from './attachments.ts';
export { bringBack, listRemoved } from './bring-back.ts';
export { bringInSteps, takeBatchBack } from './bring-in.ts';
export { changeItem } from './change-item.ts';
export { createItem, draftItem, NOBODY, noRoom, type People } from './create-item.ts';
export { exportFile, writtenFrom } from './export-file.ts';
export { findImportable, mayImport } from './importing.ts';
export { listItems, listLoad, seenOf } from './list-items.ts';
export { listTargets } from './list-targets.ts';
export { sayLooking } from './looking.ts';
export { previewRepeat } from './preview-repeat.ts';
export { COMMON_ZONES, readFile, TOO_MANY } from './read-file.ts';
export { removeItem } from './remove-item.ts';
export { undo } from './undo.ts';
export { readWhen } from './when.ts';
