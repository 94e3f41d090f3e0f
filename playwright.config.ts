import { defineConfig } from 'playwright/test'

/** What takes long for what it may find: every panel, windows of every size, whole jobs, servers that go away. `npm run test:long` runs it. */
const LONG = ['faults', 'guides', 'house', 'jobs', 'moves', 'offline', 'panels', 'sizes'].map(name => `${name}.spec.ts`)

export default defineConfig({
  testDir: 'e2e',
  timeout: 120_000,
  expect: { timeout: 15_000 },
  // A shared machine may stall for seconds: what fails once is tried once more, and said.
  retries: 1,
  workers: 2,
  fullyParallel: false,
  // What is measured runs when nothing else does: two tests at a time fill a machine of two cores.
  projects: [
    { name: 'rooms', testIgnore: ['pace.spec.ts', ...LONG] },
    { name: 'long', testMatch: LONG },
    { name: 'pace', testMatch: 'pace.spec.ts', dependencies: ['rooms'] },
  ],
  reporter: [['list'], ['json', { outputFile: 'test-results/e2e.json' }]],
  outputDir: 'test-results/pages',
  use: {
    viewport: { width: 1280, height: 800 },
    // Tracing costs a quarter of the time: only what failed once is traced.
    trace: 'on-first-retry',
    // Every page would fetch the whole application for later; the one test that is about it lets it.
    serviceWorkers: 'block',
    launchOptions: {
      executablePath: '/usr/bin/chromium',
      args: [
        '--no-sandbox',
        '--disable-gpu',
        '--disable-quic',
        '--disable-background-networking',
        '--disable-component-update',
        '--disable-sync',
      ],
    },
  },
})
