import { defineConfig } from 'vitest/config'

// Files of these projects hold nothing that outlives them, so that they may share a process: what they import is read once.
const isolate = false

export default defineConfig({
  test: {
    projects: [
      { test: { name: 'core', root: 'core', environment: 'node', isolate, include: ['src/**/*.test.ts', 'test/**/*.test.ts'] } },
      { test: { name: 'scripts', root: 'scripts', environment: 'node', include: ['**/*.test.ts'], testTimeout: 60_000 } },
      { test: { name: 'drills', root: 'drills', environment: 'node', include: ['**/*.test.ts'], testTimeout: 180_000, hookTimeout: 180_000 } },
      { test: { name: 'web', root: 'web', environment: 'happy-dom', isolate, include: ['src/**/*.test.{ts,tsx}'] } },
      {
        test: {
          name: 'server',
          root: 'server',
          environment: 'node',
          isolate,
          include: ['src/**/*.test.ts'],
          globalSetup: ['test/global-setup.ts'],
          hookTimeout: 30_000,
          testTimeout: 30_000,
        },
      },
    ],
    reporters: ['default', ['json', { outputFile: '.out/vitest.json' }]],
  },
})
