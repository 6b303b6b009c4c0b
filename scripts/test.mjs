// npm test: installs what is missing, then format, lint, types, boundaries, unit tests, and the browser
// tests against the production build. Ends with the count.
import { spawn, spawnSync } from 'node:child_process';
import { existsSync, mkdirSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import path from 'node:path';
import { fileURLToPath } from 'node:url';
import { findChromium } from './chromium.mjs';
import { buildIsFresh } from './freshBuild.mjs';
import { installPackages } from './install.mjs';

process.chdir(path.dirname(path.dirname(fileURLToPath(import.meta.url))));
process.env.NEXT_TELEMETRY_DISABLED = '1';
mkdirSync('.tmp', { recursive: true });
installPackages();
const count = { passed: 0, failed: 0 };

function step(name, command, args, env = {}) {
  console.log(`\n== ${name}`);
  const started = Date.now();
  const { status } = spawnSync(command, args, { stdio: 'inherit', env: { ...process.env, ...env } });
  console.log(
    `== ${name}: ${status === 0 ? 'passed' : 'failed'} in ${((Date.now() - started) / 1000).toFixed(0)} s`,
  );
  return status === 0;
}

const tally = (passed, failed) => {
  count.passed += passed;
  count.failed += failed;
};

/** A step that is one check. */
const check = (name, command, args, env) => (step(name, command, args, env) ? tally(1, 0) : tally(0, 1));

/** A check that runs beside others; what it says is printed at its end. Gives whether it passed. */
function checkBeside(name, command, args) {
  const started = Date.now();
  const child = spawn(command, args, { stdio: ['ignore', 'pipe', 'pipe'] });
  const said = [];
  child.stdout.on('data', (part) => said.push(part));
  child.stderr.on('data', (part) => said.push(part));
  return new Promise((resolve) => {
    child.on('close', (status) => {
      const words = status === 0 ? 'passed' : 'failed';
      console.log(`\n== ${name}\n${Buffer.concat(said).toString()}`);
      console.log(`== ${name}: ${words} in ${((Date.now() - started) / 1000).toFixed(0)} s`);
      if (status === 0) tally(1, 0);
      else tally(0, 1);
      resolve(status === 0);
    });
  });
}

/** A runner that writes its own report; a run without a report has failed. */
function runner(name, command, args, report, read, env) {
  rmSync(report, { force: true });
  const ok = step(name, command, args, env);
  if (!existsSync(report)) return tally(0, 1);
  const [passed, failed] = read(JSON.parse(readFileSync(report, 'utf8')));
  tally(passed, ok ? failed : Math.max(1, failed));
}

const [, , typesHold] = await Promise.all([
  checkBeside('format', 'npx', ['prettier', '--check', '--log-level', 'warn', '.']),
  checkBeside('lint and boundaries', 'npx', ['eslint', '.']),
  checkBeside('types', 'npm', ['run', '--silent', 'types']),
]);
runner(
  'unit tests',
  'npx',
  ['jest', '--json', '--outputFile=.tmp/unit.json'],
  '.tmp/unit.json',
  (report) => [report.numPassedTests, report.numFailedTests + report.numRuntimeErrorTestSuites],
  { NODE_OPTIONS: '--experimental-vm-modules --no-warnings' },
);
if (!buildIsFresh())
  check('build', 'npm', ['run', '--silent', 'build'], { TYPES_CHECKED: typesHold ? 'yes' : 'no' });
runner(
  'browser tests',
  'npx',
  ['playwright', 'test'],
  '.tmp/e2e.json',
  ({ stats }) => [stats.expected + stats.flaky, stats.unexpected],
  { CHROMIUM: findChromium() },
);

const line = `${count.passed} passed, ${count.failed} failed`;
writeFileSync('.tmp/count', `${line}\n`);
console.log(`\n${line}`);
process.exit(count.failed > 0 || count.passed === 0 ? 1 : 0);
