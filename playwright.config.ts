import { existsSync } from 'node:fs';
import { defineConfig } from '@playwright/test';

const PORT = Number(process.env.E2E_PORT ?? 3217);
export const CHROMIUM =
  process.env.CHROMIUM ??
  ['/usr/bin/chromium', '/usr/bin/chromium-browser', '/usr/bin/google-chrome'].find((path) =>
    existsSync(path),
  ) ??
  '/usr/bin/chromium';

/** One worker: takes are recorded in real time on one audio clock. The server is the production build on a database of its own. */
export default defineConfig({
  testDir: 'tests/e2e',
  workers: 1,
  timeout: 90_000,
  retries: 0,
  reporter: [['list'], ['json', { outputFile: '.tmp/e2e.json' }]],
  outputDir: 'test-results',
  use: {
    baseURL: `http://127.0.0.1:${PORT}`,
    viewport: { width: 1280, height: 800 },
    launchOptions: {
      executablePath: CHROMIUM,
      args: [
        '--no-sandbox',
        '--disable-gpu',
        '--disable-quic',
        '--no-first-run',
        '--disable-background-networking',
        '--disable-component-update',
        '--disable-sync',
        '--autoplay-policy=no-user-gesture-required',
      ],
    },
  },
  webServer: {
    command: `node tests/support/serve.mjs ${PORT}`,
    url: `http://127.0.0.1:${PORT}/api/charts`,
    timeout: 60_000,
    reuseExistingServer: false,
  },
});
