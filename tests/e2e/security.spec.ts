import http from 'node:http';
import {
  NOTES_SCHEMA,
  packTake,
  TAKE_SCHEMA,
  readWav,
  unpackTake,
  writeWav,
  type TakeDocument,
} from '@/core/formats';
import { unwrap } from '@/core/shared';
import { expect, SHORT_CHART, test } from '../support/browser';

/** A request with any Host and Origin, as a page elsewhere could make a browser send it. */
function send(
  base: string,
  method: string,
  path: string,
  headers: Record<string, string>,
  body = '',
): Promise<number> {
  const { hostname, port } = new URL(base);
  return new Promise((resolve, reject) => {
    const request = http.request(
      {
        hostname,
        port,
        method,
        path,
        headers: { ...headers, 'content-length': String(Buffer.byteLength(body)) },
      },
      (response) => {
        response.resume();
        resolve(response.statusCode ?? 0);
      },
    );
    request.on('error', reject);
    request.end(body);
  });
}

test('a foreign Host is turned away before any routing', async ({ baseURL }) => {
  for (const path of ['/', '/charts', '/api/charts', '/nowhere', '/worklets/capture.js', '/icon.svg'])
    for (const host of ['evil.example', 'evil.example:3217', '192.168.1.5', '127.0.0.1.evil.example'])
      expect([path, host, await send(baseURL!, 'GET', path, { host })]).toEqual([path, host, 403]);
  expect(await send(baseURL!, 'GET', '/api/charts', { host: new URL(baseURL!).host })).toBe(200);
  expect(await send(baseURL!, 'GET', '/api/charts', { host: `localhost:${new URL(baseURL!).port}` })).toBe(
    200,
  );
});

test('a state-changing request needs its own Origin', async ({ baseURL }) => {
  const { host } = new URL(baseURL!);
  const json = { host, 'content-type': 'application/json' };
  const body = JSON.stringify({ text: '| C |' });
  expect(await send(baseURL!, 'POST', '/api/charts', json, body)).toBe(403);
  expect(await send(baseURL!, 'POST', '/api/charts', { ...json, origin: 'http://evil.example' }, body)).toBe(
    403,
  );
  expect(await send(baseURL!, 'POST', '/api/charts', { ...json, origin: 'null' }, body)).toBe(403);
  expect(await send(baseURL!, 'DELETE', '/api/takes/anything', { host, origin: 'http://127.0.0.1:1' })).toBe(
    403,
  );
  expect(await send(baseURL!, 'POST', '/api/charts', { ...json, origin: `http://${host}` }, body)).toBe(201);
});

test('uploads are limited before they are read', async ({ baseURL }) => {
  const { host } = new URL(baseURL!);
  const own = { host, origin: `http://${host}` };
  expect(await send(baseURL!, 'POST', '/api/charts', own, `{"text":"${'x'.repeat(300_000)}"}`)).toBe(413);
  expect(
    await send(
      baseURL!,
      'PUT',
      '/api/takes/none/chunks/0',
      { ...own, 'x-checksum': '0'.repeat(64) },
      'x'.repeat(1024 * 1024 + 2),
    ),
  ).toBe(413);
  expect(await send(baseURL!, 'POST', '/api/charts', own, '{"text": 5}')).toBe(422);
  expect(await send(baseURL!, 'POST', '/api/charts', own, 'not json')).toBe(400);
});

test('a strict policy stands on every page, and an id that does not exist has a way out', async ({
  page,
  request,
  allowConsole,
}) => {
  allowConsole(/404/);
  const response = await page.goto('/takes/doesnotexist');
  expect(response!.status()).toBe(404);
  await expect(page.getByRole('heading', { name: 'There is nothing at this address.' })).toBeVisible();
  const policy = response!.headers()['content-security-policy']!;
  expect(policy).toContain("default-src 'none'");
  expect(policy).not.toMatch(/script-src[^;]*unsafe-inline/);
  expect(policy).not.toMatch(/style-src [^;]*unsafe-inline/);
  await page.getByRole('link', { name: 'Open the charts' }).click();
  await expect(page).toHaveURL(/\/charts$/);
  expect((await page.goto('/study/doesnotexist'))!.status()).toBe(404);
  for (const path of [
    '/api/charts/nope',
    '/api/takes/nope',
    '/api/takes/nope/audio',
    '/api/takes/..%2F..%2Fetc',
  ]) {
    const answer = await request.get(path);
    expect([path, answer.status()]).toEqual([path, 404]);
  }
  for (const place of ['drills', 'takes', 'charts', 'phrases', 'study'])
    for (const id of ['%00', "'x", '..%2f', 'a'.repeat(3_000)])
      expect([place, id.slice(0, 8), (await request.get(`/${place}/${id}`)).status()]).toEqual([
        place,
        id.slice(0, 8),
        404,
      ]);
});

test('answers of the API are kept by nobody, read from nowhere else, and are no pages', async ({
  request,
}) => {
  for (const path of ['/api/charts', '/api/charts/nope', '/api/nothing']) {
    const headers = (await request.get(path)).headers();
    expect([path, headers['cache-control']]).toEqual([path, expect.stringContaining('no-store')]);
    expect([path, headers['cross-origin-resource-policy']]).toEqual([path, 'same-origin']);
    expect([path, headers['content-security-policy']]).toEqual([
      path,
      expect.stringContaining("default-src 'none'"),
    ]);
  }
});

test('an archive of more than ten megabytes comes back sample for sample', async ({ request, baseURL }) => {
  const rate = 44_100;
  const samples = Float32Array.from(
    { length: rate * 150 },
    (_, n) => Math.round(Math.sin(n / 30) * 2 ** 13 + ((n * 7919) % 256)) / 2 ** 15,
  );
  const sound = writeWav([samples], rate);
  const take: TakeDocument = {
    schema: TAKE_SCHEMA,
    title: 'Long Archive',
    chartText: SHORT_CHART,
    tempo: 120,
    choruses: 12,
    plan: { id: 'outline' },
    pace: null,
    offsetSec: 0,
    source: 'file',
    device: null,
    latencySec: null,
    createdAt: 1.7e12,
    heard: { schema: NOTES_SCHEMA, notes: [{ onsetSec: 1, offsetSec: 2, midi: 60, confidence: 1 }] },
    edits: [],
    words: { stars: 0, tags: [], remarks: [] },
  };
  const data = Buffer.from(packTake(take, sound));
  expect(data.length).toBeGreaterThan(10 * 1024 * 1024);
  const headers = { origin: baseURL!, 'content-type': 'application/zip' };
  const sent = await request.post('/api/takes/import', { headers, data });
  expect(sent.status()).toBe(200);
  const { id } = (await sent.json()) as { id: string };
  const archive = await (await request.get(`/api/takes/${id}/export?format=archive`)).body();
  const back = unwrap(unpackTake(archive));
  const [heard] = unwrap(readWav(back.sound!)).channels;
  const [sent16] = unwrap(readWav(sound)).channels;
  expect(Buffer.from(heard!.buffer).equals(Buffer.from(sent16!.buffer))).toBe(true);
  await request.delete(`/api/takes/${id}?permanently=1`, { headers: { origin: baseURL! } });
});
