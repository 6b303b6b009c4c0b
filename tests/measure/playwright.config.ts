import path from 'node:path';
import { defineConfig } from '@playwright/test';
import base from '../../playwright.config';

/** Measurements that take minutes of real time: npm run bench:take. `-g @quick`, `@kill` and `@long` choose by how long they take. */
export default defineConfig({
  ...base,
  projects: undefined,
  workers: 1,
  retries: 0,
  webServer: [base.webServer ?? []]
    .flat()
    .slice(0, 1)
    .map((server) => ({ ...server, cwd: path.resolve('.') })),
  testDir: path.resolve('tests/measure'),
  timeout: 400_000,
  reporter: 'list',
});
