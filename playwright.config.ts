import { existsSync } from 'node:fs';
import { defineConfig } from '@playwright/test';

const PORT = Number(process.env.E2E_PORT ?? 3217);
export const CHROMIUM =
  process.env.CHROMIUM ??
  ['/usr/bin/chromium', '/usr/bin/chromium-browser', '/usr/bin/google-chrome'].find((path) =>
    existsSync(path),
  ) ??
  '/usr/bin/chromium';

/** A production server on a database of its own, one for each project. */
const serverAt = (port: number) => ({
  command: `node tests/support/serve.mjs ${port}`,
  url: `http://127.0.0.1:${port}/api/charts`,
  timeout: 60_000,
  reuseExistingServer: false,
});
const addressOf = (port: number): string => `http://127.0.0.1:${port}`;

/** Tests that play and record in real time, one after the other, and a few more: about half of the whole run. */
const PLAYING = /\/(again|lan|names|practice|print|record-a-take|recording-[a-z]+|study|tour)\.spec\.ts$/;

export default defineConfig({
  testDir: 'tests/e2e',
  workers: 2,
  timeout: 90_000,
  // a machine may be busy: what fails is tried once more, and reported as flaky
  retries: 1,
  reporter: [['list'], ['json', { outputFile: '.tmp/e2e.json' }]],
  outputDir: 'test-results',
  projects: [
    { name: 'playing', workers: 1, testMatch: PLAYING, use: { baseURL: addressOf(PORT) } },
    { name: 'screens', workers: 1, testIgnore: PLAYING, use: { baseURL: addressOf(PORT + 1) } },
  ],
  use: {
    baseURL: addressOf(PORT),
    viewport: { width: 1280, height: 800 },
    // the theme follows the system until one is chosen
    colorScheme: 'dark',
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
  webServer: [serverAt(PORT), serverAt(PORT + 1)],
});
