import { X509Certificate } from 'node:crypto';
import { mkdtempSync, readFileSync, rmSync, statSync, writeFileSync } from 'node:fs';
import { createServer, type IncomingHttpHeaders, type Server } from 'node:http';
import { request, type RequestOptions, type Server as SecureServer } from 'node:https';
import type { AddressInfo } from 'node:net';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { afterAll, beforeAll, expect, test } from '@jest/globals';
import { certificateFor, fingerprintOf, ownNames } from './certificate';
import { DOOR_POLICY, doorPage } from './doorPage';
import { lanFront } from './front';
import { Door, newPassphrase } from './passphrase';

const PASSPHRASE = 'lamp-post-kiln-4';
const NAMES = ['127.0.0.1', 'stand.local'];
const folder = mkdtempSync(path.join(tmpdir(), 'wander-lan-'));
const file = path.join(folder, 'kept', 'certificate.json');
let [app, front] = [null as Server | null, null as SecureServer | null];
/** What reached the application. */
const reached: { method: string; url: string; headers: IncomingHttpHeaders; body: string }[] = [];

const portOf = (server: Server | SecureServer | null): number => (server?.address() as AddressInfo).port;
const listening = (server: Server | SecureServer) =>
  new Promise<void>((done) => server.listen(0, '127.0.0.1', done));

beforeAll(async () => {
  app = createServer((asked, answer) => {
    const parts: Buffer[] = [];
    asked.on('data', (part: Buffer) => parts.push(part));
    asked.on('end', () => {
      const { method = '', url = '', headers } = asked;
      reached.push({ method, url, headers, body: Buffer.concat(parts).toString() });
      if (url === '/moved')
        answer.writeHead(307, { location: `http://127.0.0.1:${portOf(app)}/takes` }).end();
      else answer.writeHead(200, { 'content-type': 'text/plain', 'x-own': 'yes' }).end('the application');
    });
  });
  await listening(app);
  const certificate = await certificateFor(NAMES, file);
  front = lanFront({ certificate, passphrase: PASSPHRASE, port: portOf(app), names: NAMES });
  await listening(front);
});
afterAll(() => {
  front?.close();
  app?.close();
  rmSync(folder, { recursive: true, force: true });
});

type Answer = { readonly status: number; readonly headers: IncomingHttpHeaders; readonly body: string };
function get(url: string, options: RequestOptions = {}, body = ''): Promise<Answer> {
  return new Promise((resolve, reject) => {
    const asked = request(
      {
        host: '127.0.0.1',
        port: portOf(front),
        path: url,
        rejectUnauthorized: false,
        agent: false,
        ...options,
      },
      (answer) => {
        const parts: Buffer[] = [];
        answer.on('data', (part: Buffer) => parts.push(part));
        answer.on('end', () =>
          resolve({
            status: answer.statusCode ?? 0,
            headers: answer.headers,
            body: Buffer.concat(parts).toString(),
          }),
        );
      },
    );
    asked.on('error', reject);
    asked.end(body);
  });
}
const own = () => `https://127.0.0.1:${portOf(front)}`;
const knock = (passphrase: string, headers = {}) =>
  get(
    '/door',
    { method: 'POST', headers: { origin: own(), 'sec-fetch-site': 'same-origin', ...headers } },
    new URLSearchParams({ passphrase }).toString(),
  );

test('without a session nothing of the application is reached', async () => {
  reached.length = 0;
  const page = await get('/takes', { headers: { accept: 'text/html' } });
  expect([page.status, page.headers.location]).toEqual([303, '/door']);
  expect((await get('/api/charts')).status).toBe(401);
  expect(
    (await get('/_next/static/x.js', { headers: { cookie: '__Host-idle-wander=made-up' } })).status,
  ).toBe(401);
  expect((await get('/api/charts', { method: 'POST', headers: { origin: own() } }, '{}')).status).toBe(401);
  const door = await get('/door');
  expect([door.status, door.headers['content-security-policy']]).toEqual([200, DOOR_POLICY]);
  expect(door.body).toContain('<label for="passphrase">');
  expect(reached).toEqual([]);
});

test('with the passphrase a device comes in: its requests arrive as this machine’s own, without the session', async () => {
  reached.length = 0;
  const opened = await knock(PASSPHRASE);
  expect([opened.status, opened.headers.location]).toEqual([303, '/']);
  const [cookie = ''] = opened.headers['set-cookie'] ?? [];
  for (const part of ['__Host-', 'Path=/', 'Secure', 'HttpOnly', 'SameSite=Strict'])
    expect(cookie).toContain(part);
  const session = cookie.split(';')[0]!;
  const page = await get('/takes?from=2', {
    headers: { cookie: `other=1; ${session}`, 'x-forwarded-host': 'evil' },
  });
  expect([page.status, page.body, page.headers['x-own']]).toEqual([200, 'the application', 'yes']);
  const post = { method: 'POST', headers: { cookie: session, origin: own(), 'content-type': 'text/plain' } };
  expect((await get('/api/charts', post, 'a chart')).status).toBe(200);
  expect(reached.map(({ method, url, body }) => [method, url, body])).toEqual([
    ['GET', '/takes?from=2', ''],
    ['POST', '/api/charts', 'a chart'],
  ]);
  const host = `127.0.0.1:${portOf(app)}`;
  expect(reached[1]?.headers).toMatchObject({ host, origin: `http://${host}` });
  for (const { headers } of reached) {
    expect(headers.cookie).toBeUndefined();
    expect(headers['x-forwarded-host']).toBeUndefined();
  }
  // and where the application sends it elsewhere, it stays at the front
  expect((await get('/moved', { headers: { cookie: session } })).headers.location).toBe('/takes');
  // other names and other pages are refused, session or not
  const foreign = { headers: { cookie: session, host: 'evil.example' } };
  expect((await get('/takes', foreign)).status).toBe(403);
  const across = { method: 'DELETE', headers: { cookie: session, origin: 'https://evil.example' } };
  expect((await get('/api/everything', across)).status).toBe(403);
  const site = { ...post, headers: { ...post.headers, 'sec-fetch-site': 'cross-site' } };
  expect((await get('/api/charts', site, '{}')).status).toBe(403);
  expect(reached).toHaveLength(3);
});

test('a device that guesses has to wait, and so has everybody where many guess', async () => {
  let now = 1_000_000;
  const door = new Door(PASSPHRASE, () => now);
  for (let tries = 0; tries < 5; tries++) expect(await door.knock('a', `guess ${tries}`)).toBe('wrong');
  expect(await door.knock('a', PASSPHRASE)).toBe('wait');
  expect(await door.knock('b', PASSPHRASE)).toBe('open');
  const many = Array.from({ length: 15 }, (_, index) => door.knock(`c${index}`, 'guess'));
  expect(new Set(await Promise.all(many))).toEqual(new Set(['wrong']));
  expect(await door.knock('d', PASSPHRASE)).toBe('wait');
  now += 61_000;
  expect(await door.knock('a', PASSPHRASE)).toBe('open');
  expect(await door.knock('a', 'x'.repeat(5_000))).toBe('wrong');
  // sessions end after a month, and names that were never given are none
  const session = door.admit();
  expect([door.knows(session), door.knows('made up'), door.knows(undefined)]).toEqual([true, false, false]);
  now += 31 * 86_400_000;
  expect(door.knows(session)).toBe(false);
}, 30_000);

test('the door itself: wrong words, too many, a body that is no form, another page’s form', async () => {
  expect((await knock('wrong words here')).body).toContain('That is not the passphrase');
  expect((await knock('x'.repeat(3_000))).status).toBe(401);
  expect((await knock(PASSPHRASE, { origin: 'https://evil.example' })).status).toBe(403);
  for (let tries = 0; tries < 3; tries++) await knock('wrong again');
  const waiting = await knock(PASSPHRASE);
  expect([waiting.status, waiting.headers['retry-after']]).toEqual([429, '60']);
  expect(waiting.body).toContain('Wait a minute');
});

test('a certificate names the addresses, is kept for its owner alone, and made anew when they change or it is damaged', async () => {
  const kept = JSON.parse(readFileSync(file, 'utf8')) as { key: string; cert: string };
  expect(await certificateFor(NAMES, file)).toEqual(kept);
  expect(statSync(file).mode & 0o777).toBe(0o600);
  const read = new X509Certificate(kept.cert);
  expect(read.checkIP('127.0.0.1')).toBe('127.0.0.1');
  expect(read.checkHost('stand.local')).toBe('stand.local');
  expect(read.fingerprint256.endsWith(fingerprintOf(kept))).toBe(true);
  const moved = await certificateFor(['10.0.0.9'], file);
  expect(new X509Certificate(moved.cert).checkIP('10.0.0.9')).toBe('10.0.0.9');
  const later = await certificateFor(['10.0.0.9'], file, Date.now() + 380 * 86_400_000);
  expect(later).not.toEqual(moved);
  writeFileSync(file, 'not json');
  expect((await certificateFor(NAMES, file)).cert).toContain('BEGIN CERTIFICATE');
  expect(ownNames().some((name) => name.endsWith('.local'))).toBe(true);
});

test('a passphrase that is made is long, and another each time; the page carries no script', () => {
  const made = new Set(Array.from({ length: 50 }, newPassphrase));
  expect(made.size).toBe(50);
  for (const words of made) expect(words).toMatch(/^[a-z2-9]{4}-[a-z2-9]{4}-[a-z2-9]{4}$/);
  expect(doorPage('ask')).not.toContain('<script');
});
