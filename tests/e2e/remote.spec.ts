import { rmSync } from 'node:fs';
import { expect, test } from '@playwright/test';
import { LibsqlServer } from '../support/libsqlServer';
import { OwnServer } from '../support/ownServer';

const FILE = '.tmp/e2e-remote.db';
const TOKEN = 'two-servers';
const SIDES = ['before', 'after'] as const;
const CHART = 'title: Shared\n| Dm7 | G7 | Cmaj7 | % |\n';

test('two servers on one database, over connections that break: every write is kept once', async () => {
  test.setTimeout(120_000);
  for (const suffix of ['', '-wal', '-shm']) rmSync(`${FILE}${suffix}`, { force: true });
  const remote = new LibsqlServer(FILE, TOKEN, { delayMs: 30 });
  const kept = { url: await remote.start(), token: TOKEN };
  const servers = [new OwnServer(3231, kept), new OwnServer(3232, kept)] as const;
  try {
    await Promise.all(servers.map((server) => server.start()));
    remote.weather = {
      delayMs: 30,
      breaks: (request) => (request % 11 === 10 ? (SIDES[request % 2] ?? null) : null),
    };
    const post = async (url: string, path: string, data: object) => {
      const answer = await fetch(`${url}${path}`, {
        method: 'POST',
        headers: { origin: url, 'content-type': 'application/json' },
        body: JSON.stringify(data),
      });
      expect(answer.status).toBeLessThan(300);
      return (await answer.json()) as { id: string; number?: number };
    };
    const charts = await Promise.all(
      servers.flatMap(({ url }) =>
        Array.from({ length: 12 }, () => post(url, '/api/charts', { text: CHART })),
      ),
    );
    const takes = await Promise.all(
      servers.flatMap(({ url }) =>
        charts.slice(0, 8).map(({ id }) =>
          post(url, '/api/takes', {
            chartId: id,
            tempo: 120,
            choruses: 1,
            plan: { id: 'outline' },
            rate: 48_000,
            source: 'microphone',
          }),
        ),
      ),
    );
    remote.weather = {};
    for (const { url } of servers) {
      const listed = (await (await fetch(`${url}/api/charts`)).json()) as readonly { id: string }[];
      expect(listed.map(({ id }) => id).sort()).toEqual(charts.map(({ id }) => id).sort());
    }
    // no two takes of both servers have one number
    expect(takes.map(({ number }) => number).sort((a, b) => Number(a) - Number(b))).toEqual(
      takes.map((_, index) => index + 1),
    );
  } finally {
    for (const server of servers) server.kill();
    await remote.stop();
  }
});
