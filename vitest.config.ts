import { resolve } from 'node:path';
import { defineConfig } from 'vitest/config';

const alias = { '@': resolve(import.meta.dirname, 'src') };
export default defineConfig({
  resolve: { alias },
  test: {
    projects: [
      {
        resolve: { alias },
        test: {
          name: 'unit',
          include: ['src/**/*.test.ts', 'demo/**/*.test.ts', 'cli/**/*.test.ts'],
          environment: 'node',
          // A property runs hundreds of cases; on a machine busy with something else that takes its time.
          testTimeout: 60_000,
          hookTimeout: 60_000,
        },
      },
      {
        resolve: { alias },
        test: {
          name: 'e2e',
          include: ['e2e/**/*.test.ts'],
          globalSetup: 'e2e/global-setup.ts',
          // Two browsers side by side, each file at a server of its own: there are two cores on a small machine.
          maxWorkers: 2,
          maxConcurrency: 2,
          testTimeout: 120_000,
          hookTimeout: 120_000,
          sequence: { concurrent: false },
        },
      },
    ],
  },
});
