import path from 'node:path';
import { defineConfig } from 'vitest/config';

const alias = {
  '@': path.resolve(import.meta.dirname, 'src'),
  'server-only': path.resolve(import.meta.dirname, 'tests/support/empty.ts'),
};

export default defineConfig({
  resolve: { alias },
  test: {
    projects: [
      {
        resolve: { alias },
        test: {
          name: 'unit',
          setupFiles: 'tests/support/property-runs.ts',
          include: ['src/**/*.test.ts', 'demo/**/*.test.ts', 'scripts/**/*.test.ts'],
          testTimeout: 60_000, // a slow machine is no fault of the code
        },
      },
      {
        resolve: { alias },
        test: {
          name: 'screens',
          environment: 'jsdom',
          setupFiles: 'src/screens/testing/setup.ts',
          include: ['src/**/*.test.tsx'],
          testTimeout: 60_000,
        },
      },
      {
        resolve: { alias },
        test: {
          name: 'server',
          setupFiles: 'tests/support/property-runs.ts',
          include: ['tests/server/**/*.test.ts'],
          globalSetup: 'tests/support/database.setup.ts',
          env: { GATEPOST_OPEN: '1' }, // who asks is chosen, as in the demo; tests of signing in say otherwise
          fileParallelism: false,
          testTimeout: 60_000,
          hookTimeout: 120_000,
        },
      },
    ],
  },
});
