// npm run demo: everything from a fresh clone to a served application. A second run starts in seconds and
// keeps the player's data.
import { spawn, spawnSync } from 'node:child_process';
import path from 'node:path';
import { fileURLToPath } from 'node:url';
import { buildIsFresh } from './freshBuild.mjs';
import { installPackages } from './install.mjs';

const root = path.dirname(path.dirname(fileURLToPath(import.meta.url)));
process.chdir(root);
process.env.NEXT_TELEMETRY_DISABLED = '1';
const port = process.env.PORT ?? '3000';
/** Off unless asked for: `npm run demo -- --lan`. */
const isOpenToTheHouse = process.argv.includes('--lan');

function run(command, args) {
  const { status } = spawnSync(command, args, { stdio: 'inherit' });
  if (status !== 0) process.exit(status ?? 1);
}

installPackages();
if (!buildIsFresh()) {
  console.log('Building…');
  run('npm', ['run', 'build']);
}
const { bundleThreads, bundleScript } = await import('./bundle.mjs');
await bundleThreads();
await bundleScript('seed-demo');
run('node', ['dist/scripts/seed-demo.mjs']);

/** The server ends with this code where it asks to be started again: to restore a backup before anything is open. */
const RESTART_CODE = 75;
let server = null;

function serve() {
  server = spawn('node', ['node_modules/next/dist/bin/next', 'start', '-H', '127.0.0.1', '-p', port], {
    stdio: ['ignore', 'pipe', 'inherit'],
    env: { ...process.env, IDLE_WANDER_RESTARTS: 'yes', IDLE_WANDER_LAN: isOpenToTheHouse ? 'yes' : 'no' },
  });
  server.stdout.on('data', (text) => {
    if (!String(text).includes('Ready')) return;
    console.log(`\nIdle Wander is at http://127.0.0.1:${port}\n`);
    if (isOpenToTheHouse) openToTheHouse();
  });
  server.on('exit', (code) => (code === RESTART_CODE ? serve() : process.exit(code ?? 0)));
}
let front = null;

/** Other devices come in by TLS and a passphrase; the server itself goes on listening to this machine alone. */
function openToTheHouse() {
  front ??= spawn('node', ['dist/server/lan.main.mjs'], {
    stdio: ['ignore', 'inherit', 'inherit'],
    env: { ...process.env, PORT: port },
  });
}
process.on('exit', () => front?.kill());
for (const signal of ['SIGINT', 'SIGTERM']) process.on(signal, () => server?.kill(signal));
serve();
