// The production build on a fresh database, for the browser tests.
import { spawn } from 'node:child_process';
import { mkdirSync, rmSync } from 'node:fs';

const port = process.argv[2] ?? '3217';
mkdirSync('.tmp', { recursive: true });
const database = `.tmp/e2e-${port}.db`;
for (const suffix of ['', '-wal', '-shm']) rmSync(`${database}${suffix}`, { force: true });
const server = spawn('node', ['node_modules/next/dist/bin/next', 'start', '-H', '127.0.0.1', '-p', port], {
  stdio: 'inherit',
  env: { ...process.env, DATABASE_URL: `file:./${database}`, NEXT_TELEMETRY_DISABLED: '1' },
});
for (const signal of ['SIGINT', 'SIGTERM']) process.on(signal, () => server.kill(signal));
server.on('exit', (code) => process.exit(code ?? 0));
