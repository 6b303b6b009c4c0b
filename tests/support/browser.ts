import {
  chromium,
  expect,
  test as base,
  type APIRequestContext,
  type Browser,
  type Locator,
  type Page,
} from '@playwright/test';
import { CHROMIUM } from '../../playwright.config';

/** Console messages a test has said it expects. */
type Quiet = { allowConsole: (pattern: RegExp) => void };

/** Every page of every test: a console error, warning or page error fails it. */
export const test = base.extend<Quiet>({
  allowConsole: [
    async ({ page }, use) => {
      const allowed: RegExp[] = [];
      const complaints = listen(page, allowed);
      await use((pattern) => void allowed.push(pattern));
      expect(complaints(), 'console').toEqual([]);
    },
    { auto: true },
  ],
});
export { expect };

export function listen(page: Page, allowed: RegExp[] = []): () => string[] {
  const heard: string[] = [];
  page.on('console', (message) => {
    if (['error', 'warning'].includes(message.type())) heard.push(message.text());
  });
  page.on('pageerror', (error) => heard.push(error.message));
  return () => heard.filter((text) => !allowed.some((pattern) => pattern.test(text)));
}

/** A browser whose microphone plays a WAV file (44.1 kHz, mono, 16 bit, with a silent tail), or refuses. */
export function browserWithMicrophone(file: string | null): Promise<Browser> {
  const fake =
    file === null
      ? ['--use-fake-device-for-media-stream', '--deny-permission-prompts']
      : [
          '--use-fake-ui-for-media-stream',
          '--use-fake-device-for-media-stream',
          `--use-file-for-fake-audio-capture=${file}%noloop`,
        ];
  return chromium.launch({
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
      ...fake,
    ],
  });
}

/** Preferences of this computer, as an init script: for tests that want the review at once, or the stand-in in the player's place. */
export const rigOf = (change: Record<string, unknown>): string =>
  `localStorage.getItem('idle-wander-rig') ?? localStorage.setItem('idle-wander-rig', ${JSON.stringify(JSON.stringify({ cautionsSeen: true, afterTake: 'review', ...change }))})`;

/**
 * Remembers the takes that a page begins. A test that fails in the middle of one would leave it to be decided on
 * by every later visit to Record: `drop` throws them away.
 */
export function takesBegunIn(page: Page): {
  drop: (request: APIRequestContext, baseURL: string) => Promise<void>;
} {
  const ids: Promise<string | null>[] = [];
  page.on('response', (response) => {
    const isBegun =
      response.request().method() === 'POST' && new URL(response.url()).pathname === '/api/takes';
    if (!isBegun || !response.ok()) return;
    ids.push(
      response.json().then(
        ({ id }: { id: string }) => id,
        () => null,
      ),
    );
  });
  return {
    drop: async (request, baseURL) => {
      for (const id of await Promise.all(ids))
        if (id) await request.delete(`/api/takes/${id}`, { headers: { origin: baseURL } });
    },
  };
}

/** The heading under which Record asks about a take that was cut off (the router's announcer repeats its words). */
export const cutOffIn = (page: Page): Locator =>
  page.getByRole('heading', { level: 1, name: /^Your last take was cut off\./ });

/** Makes a chart over the interface's own API. */
export async function makeChart(request: APIRequestContext, baseURL: string, text: string): Promise<string> {
  const response = await request.post('/api/charts', { data: { text }, headers: { origin: baseURL } });
  expect(response.status()).toBe(201);
  return ((await response.json()) as { id: string }).id;
}

/** Chooses an option of one of the application's lists by its words. */
export async function choose(list: Locator, words: string | RegExp): Promise<void> {
  await list.click();
  await list.page().getByRole('option', { name: words, exact: true }).click();
}

/** Waits until the page answers keys: before that the theme switch names neither theme. */
export const alive = (page: Page): Promise<void> =>
  expect(page.getByRole('button', { name: /^(?:Noon|Dusk) theme$/ })).toBeVisible();

export const SHORT_CHART =
  'title: Short Walk\nkey: Bb\ntempo: 180\nfeel: swing\n\n| Bb7 | Eb7 | Cm7 F7 | Bb7 |\n';
