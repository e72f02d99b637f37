import { resolve } from 'node:path';
import { defineConfig } from 'vitest/config';

const alias = { '@': resolve(import.meta.dirname, 'src') };
// A limit ends what hangs; it says nothing of speed. On a machine busy with something else a test takes five times as long.
const PATIENCE = { testTimeout: 240_000, hookTimeout: 240_000 };
/** There are two cores on a small machine; left to itself, one of them would be kept free. */
const WORKERS = 2;
const UNIT = ['src/**/*.test.ts', 'demo/**/*.test.ts', 'cli/**/*.test.ts'];
/** Tests that change something of their process (its environment, its one database, the table of fields): each has modules of its own. */
const APART = [
  'src/core/time/one-temporal.test.ts',
  'src/server/auth/sessions.test.ts',
  'src/server/db/migrated.test.ts',
  'src/server/limits-page.test.ts',
  'src/server/live/hub.test.ts',
  'src/server/operations/following.test.ts',
  'src/server/operations/new-field.test.ts',
  'src/server/operations/people/accounts.test.ts',
  'src/server/operations/people/directory.test.ts',
  'src/server/operations/sharing/outside-letters.test.ts',
];

export default defineConfig({
  resolve: { alias },
  test: {
    projects: [
      {
        resolve: { alias },
        test: {
          name: 'unit',
          include: UNIT,
          exclude: APART,
          environment: 'node',
          // The files of a worker share their modules: reading them anew for each took half of the time.
          isolate: false,
          maxWorkers: WORKERS,
          ...PATIENCE,
        },
      },
      {
        resolve: { alias },
        test: {
          name: 'unit-apart',
          include: APART,
          environment: 'node',
          maxWorkers: WORKERS,
          ...PATIENCE,
        },
      },
      {
        resolve: { alias },
        test: {
          name: 'e2e',
          include: ['e2e/**/*.test.ts'],
          globalSetup: 'e2e/global-setup.ts',
          // A worker's files share its browser.
          isolate: false,
          // Two browsers side by side, each file at a server of its own.
          maxWorkers: WORKERS,
          maxConcurrency: 2,
          // As above: no test says a limit of its own that is shorter.
          testTimeout: 300_000,
          hookTimeout: 300_000,
          sequence: { concurrent: false },
        },
      },
    ],
  },
});
