import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';

const made: string[] = [];
process.on('exit', () => {
  for (const folder of made) rmSync(folder, { recursive: true, force: true });
});

/** A file on this machine under a name, for a window to take; gone when the tests are. Answers its path. */
export function fileToUpload(name: string, content: string | Buffer): string {
  const folder = mkdtempSync(join(tmpdir(), 'paramo-upload-'));
  made.push(folder);
  writeFileSync(join(folder, name), content);
  return join(folder, name);
}
