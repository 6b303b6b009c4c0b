import { spawnSync } from 'node:child_process';
import { readFileSync } from 'node:fs';
import type { Page } from '@playwright/test';
import type { Report } from '@/core/analyse';
import { readMidi } from '@/core/formats';
import { unwrap } from '@/core/shared';
import { choose, expect, test } from '../support/browser';
import { makeTake } from '../support/takes';

type Review = {
  report: Report;
  heard: { onsetSec: number; offsetSec: number; midi: number }[];
  edits: unknown[];
};
const reviewOf = async (page: Page, id: string): Promise<Review> =>
  (await (await page.request.get(`/api/takes/${id}`)).json()) as Review;
const selected = (page: Page) => page.getByRole('region', { name: 'Selected' });

async function open(page: Page, id: string, query = ''): Promise<void> {
  await page.goto(`/takes/${id}${query}`);
  await expect(page.locator('footer').getByRole('button', { name: /Play the take/ })).toBeVisible();
}

test('the whole screen by keys alone: every selection has an address, and the address leads back to it', async ({
  page,
  request,
  baseURL,
}) => {
  const id = await makeTake(request, baseURL!);
  const { report } = await reviewOf(page, id);
  await open(page, id);
  const at = () => new URL(page.url()).searchParams.get('at');
  for (const [key, kind] of [
    ['ArrowRight', 'note'],
    ['c', 'change'],
    ['p', 'phrase'],
    ['r', 'chorus'],
    ...(report.figures.length > 0 ? [['f', 'figure']] : []),
  ] as const) {
    await page.keyboard.press(key!);
    await expect(selected(page)).toBeVisible();
    await expect.poll(at).toMatch(new RegExp(`^${kind}-\\d+$`));
  }
  await page.keyboard.press('Escape');
  await page.keyboard.press('c');
  await page.keyboard.press('c');
  await expect.poll(at).toBe('change-2');
  const words = await selected(page).textContent();
  await page.keyboard.press('ArrowDown');
  const placeOfSelected = () => {
    const { chorus, bar } = report.changes[Number(at()!.split('-')[1]) - 1]!;
    return [chorus, bar];
  };
  await expect.poll(placeOfSelected).toEqual([2, report.changes[1]!.bar]);
  await page.goto(`/takes/${id}?at=change-2`);
  await expect(selected(page)).toHaveText(words!);
  // drawn by pitch, then four bars wide, and back
  const lanes = () =>
    page
      .locator('[data-testid="form"] svg')
      .first()
      .evaluate((svg) => Number(svg.getAttribute('viewBox')!.split(' ')[3]));
  await expect(page.locator('[data-lane]')).toHaveCount(0);
  await page.keyboard.press('d');
  await expect(page.locator('[data-lane="0"]').first()).toBeAttached();
  await page.keyboard.press('z');
  await expect.poll(lanes).toBeGreaterThan(300);
  await page.keyboard.press('Escape');
  for (const view of ['page', 'boards', 'correct', 'compare', 'words']) {
    await page.keyboard.press('v');
    await expect.poll(() => new URL(page.url()).searchParams.get('view')).toBe(view);
    await expect(page.getByRole('heading', { level: 1 })).toBeVisible();
  }
  await page.keyboard.press('v');
  await page.keyboard.press('b');
  await expect(page.getByTestId('stand-back')).toBeVisible();
});

test('two metres away: the pedal goes from change to change with sound, holds back, and loops', async ({
  page,
  request,
  baseURL,
}) => {
  const id = await makeTake(request, baseURL!);
  const { report } = await reviewOf(page, id);
  await page.goto(`/takes/${id}?view=far`, { waitUntil: 'networkidle' });
  const heading = page.getByRole('heading', { level: 1 });
  const changes = report.changes.filter(({ chorus }) => chorus === 2);
  await expect(heading).toContainText('Into');
  await page.keyboard.press('PageDown');
  await expect(heading).toContainText(`at bar ${changes[1]!.bar}`);
  await expect(page.getByText('sounding').first()).toBeVisible({ timeout: 10_000 });
  await page.keyboard.press('PageUp');
  await page.keyboard.press('l');
  await expect(page.getByText('sounding').first()).toBeVisible();
  await page.keyboard.press('Backspace');
  await expect(page.locator('footer').getByRole('button', { name: /Play the take/ })).toBeVisible();
});

test('a correction is judged at once, kept by itself, and undone; what was heard stays', async ({
  page,
  request,
  baseURL,
}) => {
  const id = await makeTake(request, baseURL!, (one) => ({
    ...one,
    notes: one.notes.map((note, index) => (index === 5 ? { ...note, confidence: 0.5 } : note)),
  }));
  const before = await reviewOf(page, id);
  await open(page, id, '?view=correct&at=note-3');
  await page.keyboard.press('ArrowRight');
  await page.keyboard.press('ArrowLeft');
  const status = page.getByText(/edits? in this take/);
  await page.keyboard.press('Delete');
  await expect(status).toContainText('1 edit in this take, saved');
  expect((await reviewOf(page, id)).report.summary.notes).toBe(before.report.summary.notes - 1);
  await page.keyboard.press('Control+z');
  await expect(status).toContainText('0 edits in this take, saved');
  await page.keyboard.press('Control+y');
  await page.keyboard.press('ArrowUp');
  for (const key of ['s', 'm', 'g', 'a', ']', '{', '<']) await page.keyboard.press(key);
  await expect(status).toContainText('9 edits in this take, saved');
  // what is in doubt is asked: one key takes the likelier reading
  await page.keyboard.press('n');
  await expect(page.getByRole('region', { name: 'Readings' })).toContainText('two readings');
  await page.keyboard.press('Enter');
  await expect(page.getByRole('region', { name: 'Readings' })).toBeHidden();
  await expect(status).toContainText('10 edits in this take, saved');
  const after = await reviewOf(page, id);
  expect([after.edits.length, after.heard]).toEqual([10, before.heard]);
  await page.reload();
  await expect(status).toContainText('10 edits in this take, saved');
});

test('where phrases begin is the player’s to say: split and joined by keys, kept, undone', async ({
  page,
  request,
  baseURL,
}) => {
  const id = await makeTake(request, baseURL!);
  const phrases = async () => (await reviewOf(page, id)).report.phrases.length;
  const before = await phrases();
  await open(page, id, '?at=phrase-2');
  await page.keyboard.press('m');
  await expect.poll(phrases).toBe(before - 1);
  await page.keyboard.press('Control+z');
  await expect.poll(phrases).toBe(before);
  await page.keyboard.press('ArrowRight');
  await page.keyboard.press('ArrowRight');
  await page.getByRole('button', { name: /Begin a phrase here/ }).click();
  await expect.poll(phrases).toBe(before + 1);
});

/** Notes what the page hands to its sound card: samples, when and from where. */
const LISTEN = `window.handed = []; { const start = AudioBufferSourceNode.prototype.start; AudioBufferSourceNode.prototype.start = function (when, offset, length) { window.handed.push({ when, rate: this.buffer.sampleRate, samples: this.buffer.getChannelData(0).slice() }); return start.call(this, when, offset, length); }; }`;

/** Pitch of the loudest stretch, by autocorrelation, in hertz; and seconds of the first attack. */
const measured = (page: Page, from: number, to: number) =>
  page.evaluate(
    ([a, b]) => {
      const { samples, rate } = (
        window as unknown as { handed: { samples: Float32Array; rate: number }[] }
      ).handed.at(-1)!;
      const [first, last] = [Math.round(a! * rate), Math.round(b! * rate)];
      const part = samples.subarray(first, last);
      let best = { lag: 0, sum: -Infinity };
      const n = Math.min(part.length, 8192) - 700;
      for (let lag = Math.round(rate / 1200); lag < Math.min(700, Math.round(rate / 70)); lag++) {
        let [sum, energy] = [0, 0];
        for (let at = 0; at < n; at++) {
          sum += part[at]! * part[at + lag]!;
          energy += part[at + lag]! ** 2;
        }
        const score = sum / Math.sqrt(energy + 1e-9);
        if (score > best.sum * 1.02) best = { lag, sum: score };
      }
      const loud = samples.reduce((most, value) => Math.max(most, Math.abs(value)), 0);
      return {
        hz: rate / best.lag,
        attack: samples.findIndex((value) => Math.abs(value) > 0.25 * loud) / rate,
        length: samples.length / rate,
      };
    },
    [from, to] as const,
  );

test('half speed: twice as long at the same pitch; the fix moves one note and nothing else; the cursor is where the sound is', async ({
  page,
  request,
  baseURL,
}) => {
  // its first note is long enough for its pitch to be measured, and a target was missed
  const id = await makeTake(request, baseURL!, undefined, 5);
  const { heard, report } = await reviewOf(page, id);
  await page.addInitScript(LISTEN);
  await open(page, id);
  const handed = () => page.evaluate(() => (window as unknown as { handed: unknown[] }).handed.length);
  await page.keyboard.press('Space');
  await expect.poll(handed).toBe(1);
  // the sound as it is: the first note's attack where it was heard
  const plain = await measured(page, heard[0]!.onsetSec + 0.02, heard[0]!.offsetSec);
  expect(Math.abs(plain.attack - heard[0]!.onsetSec)).toBeLessThan(0.03);
  // the cursor against the clock that plays the sound, over two seconds
  const drift = await page.evaluate(async () => {
    const context = performance.now();
    const line = document.querySelector('[data-cursor="0"]')!;
    const place = () => Number(/translate\(([\d.]+)/.exec(line.getAttribute('transform') ?? '')?.[1] ?? NaN);
    await new Promise((done) => setTimeout(done, 300));
    const marks: [number, number][] = [];
    while (performance.now() - context < 2300) {
      await new Promise((done) => requestAnimationFrame(done));
      if (line.getAttribute('visibility') === 'visible') marks.push([performance.now(), place()]);
    }
    return marks;
  });
  const beatWidth = (872 - 20) / 17;
  const [start] = drift;
  const ahead = drift.map(
    ([time, x]) => ((x - start![1]) / beatWidth) * (60 / 180) - (time - start![0]) / 1000,
  );
  // against the middle of all frames: on a busy machine some of them are late, and the middle ones tell
  const middleOf = (values: readonly number[]) => [...values].sort((x, y) => x - y)[values.length >> 1]!;
  const off = ahead.map((one) => Math.abs(one - middleOf(ahead)));
  const quarter = ahead.length >> 2;
  const gained = middleOf(ahead.slice(-quarter)) - middleOf(ahead.slice(0, quarter));
  console.log(
    `cursor against the clock: ${(middleOf(off) * 1000).toFixed(0)} ms over ${drift.length} frames`,
  );
  expect(drift.length).toBeGreaterThan(20);
  expect(middleOf(off)).toBeLessThan(0.03);
  expect(Math.abs(gained)).toBeLessThan(0.03);
  await page.keyboard.press('Space');
  await page.keyboard.press('Escape');
  await choose(page.locator('footer').getByRole('combobox', { name: 'Speed' }), '50 %');
  await page.getByRole('heading', { level: 1 }).click();
  const at = heard[0]!.onsetSec;
  await page.evaluate(() => {
    (window as unknown as { handed: unknown[] }).handed.length = 0;
  });
  await page.goto(`/takes/${id}?at=note-1`);
  await expect(selected(page)).toBeVisible();
  await choose(page.locator('footer').getByRole('combobox', { name: 'Speed' }), '50 %');
  await page.getByRole('heading', { level: 1 }).click();
  await page.keyboard.press('Enter');
  await expect.poll(handed, { timeout: 15_000 }).toBeGreaterThan(0);
  const first = report.notes[0]!;
  const slow = await page.evaluate(() => {
    const one = (window as unknown as { handed: { samples: Float32Array; rate: number }[] }).handed[0]!;
    return one.samples.length / one.rate;
  });
  expect(slow).toBeCloseTo(10.02, 1); // five seconds of the take
  const halved = await measured(page, 0.05, Math.max(0.3, (heard[0]!.offsetSec - at) * 2 - 0.05));
  expect(Math.abs(12 * Math.log2(halved.hz / plain.hz)) % 12).toBeLessThan(0.35);
  expect(first.onsetBeat).toBeLessThan(3);
  await page.keyboard.press('Space');
  await choose(page.locator('footer').getByRole('combobox', { name: 'Speed' }), '100 %');
  const missed = report.changes.findIndex(({ fix }) => fix !== null);
  expect(missed).toBeGreaterThanOrEqual(0);
  await page.goto(`/takes/${id}?at=change-${missed + 1}`);
  await expect(selected(page)).toContainText('One-note fix');
  await page.keyboard.press('x');
  await expect.poll(handed, { timeout: 15_000 }).toBeGreaterThan(0);
  const patched = await page.evaluate(() => {
    const one = (window as unknown as { handed: { samples: Float32Array; rate: number }[] }).handed[0]!;
    return [...one.samples.filter((_, n) => n % 4 === 0)];
  });
  await page.evaluate(() => {
    (window as unknown as { handed: unknown[] }).handed.length = 0;
  });
  // the same bars as they were played differ in that note alone
  const fix = report.changes[missed]!.fix!;
  const note = report.notes[fix.noteIndex]!;
  const from = Math.max(-4, note.onsetBeat - 4);
  const own = await page.evaluate(
    async ({ take, start, count }) => {
      const context = new AudioContext();
      const buffer = await context.decodeAudioData(
        await (await fetch(`/api/takes/${take}/audio`)).arrayBuffer(),
      );
      const first = Math.max(0, Math.round(start * context.sampleRate));
      return [
        ...buffer
          .getChannelData(0)
          .slice(first, first + count * 4)
          .filter((_, n) => n % 4 === 0),
      ];
    },
    { take: id, start: (from * 60) / 180, count: patched.length },
  );
  // it is played louder or softer than it was recorded, all of it alike
  const louder = middleOf(patched.flatMap((value, n) => (Math.abs(own[n]!) > 0.01 ? [value / own[n]!] : [])));
  const differs = patched.flatMap((value, n) => (Math.abs(value - louder * own[n]!) > 1e-4 ? [n] : []));
  const step = 4 / 44_100;
  const begins = ((note.onsetBeat - from) * 60) / 180 - (from < 0 ? 0 : 0);
  expect(differs.length).toBeGreaterThan(1000);
  expect(Math.abs(differs[0]! * step - begins)).toBeLessThan(0.06);
  expect(differs[differs.length - 1]! * step).toBeLessThan(begins + (note.durationBeats * 60) / 180 + 0.25);
});

/** The picture as librsvg draws it, where it is installed, is the browser's own but for the letters. */
async function expectAlikeInLibrsvg(page: Page, svg: Buffer, png: Buffer): Promise<void> {
  if (spawnSync('rsvg-convert', ['--version']).status !== 0) return;
  const { status, stdout, stderr } = spawnSync('rsvg-convert', ['--unlimited', '--zoom', '2'], {
    input: svg,
    maxBuffer: 64 * 1024 * 1024,
  });
  expect([status, stderr.toString()]).toEqual([0, '']);
  const blank = await page.context().newPage();
  const { sizes, differs } = await blank.evaluate(
    async (sources) => {
      const images = await Promise.all(
        sources.map(async (source) => {
          const image = new Image();
          image.src = `data:image/png;base64,${source}`;
          await image.decode();
          return image;
        }),
      );
      const [width, height] = [160, 100];
      const [one, other] = images.map((image) => {
        const context = Object.assign(document.createElement('canvas'), { width, height }).getContext('2d')!;
        context.imageSmoothingQuality = 'high';
        context.drawImage(image, 0, 0, width, height);
        return context.getImageData(0, 0, width, height).data;
      });
      const away = one!.reduce((sum, value, index) => sum + Math.abs(value - other![index]!), 0);
      return {
        sizes: images.map((image) => [image.width, image.height]),
        differs: away / one!.length,
      };
    },
    [png, stdout].map((bytes) => bytes.toString('base64')),
  );
  await blank.close();
  expect(sizes[1]).toEqual(sizes[0]);
  // of 255 a colour channel, on the mean of all pixels: letters are in another typeface there
  console.log(`librsvg against the browser: ${differs.toFixed(2)} of 255`);
  expect(differs).toBeLessThan(2);
}

test('words are kept, a take is found by them, saved as MIDI and as a picture, and held beside another', async ({
  page,
  request,
  baseURL,
}) => {
  const [other, id] = [await makeTake(request, baseURL!, undefined, 8), await makeTake(request, baseURL!)];
  await open(page, id, '?view=words&at=change-2');
  await page.getByRole('button', { name: '4 stars' }).click();
  await page.getByLabel('A tag').fill('moonlit');
  await page.getByLabel('A tag').press('Enter');
  await page.getByLabel(/A remark on chorus/).fill('Late again: count it');
  await page.getByRole('button', { name: 'Keep it' }).click();
  await expect(page.getByText('All of it is saved.')).toBeVisible();
  const midi = page.waitForEvent('download');
  await page.getByRole('link', { name: 'MIDI', exact: true }).click();
  const heard = (await reviewOf(page, id)).heard.map((note) => note.midi);
  expect(
    unwrap(readMidi(new Uint8Array(readFileSync(await (await midi).path()))))
      .map((note) => note.midi)
      .sort(),
  ).toEqual([...heard].sort());
  const pictures: Buffer[] = [];
  for (const [name, begins] of [
    ['Picture as SVG', '<svg'],
    ['as PNG', '\u0089PNG'],
  ] as const) {
    const picture = page.waitForEvent('download');
    await page.getByRole('button', { name }).click();
    const bytes = readFileSync(await (await picture).path());
    expect(bytes.toString('latin1', 0, 4)).toBe(begins);
    expect(bytes.length).toBeGreaterThan(20_000);
    if (begins === '<svg') expect(bytes.toString()).not.toContain('var(--');
    pictures.push(bytes);
  }
  await expectAlikeInLibrsvg(page, pictures[0]!, pictures[1]!);
  await page.goto('/takes?text=moonlit');
  await expect(page.getByRole('heading', { level: 1 })).toContainText('1 take matches');
  await page.getByRole('searchbox').fill('sunlit');
  await expect(page.getByRole('heading', { level: 1 })).toContainText('No take matches');
  await open(page, id, '?view=compare');
  await expect(page.getByRole('heading', { level: 1 })).toContainText('you met a target in', {
    timeout: 10_000,
  });
  await expect(page.getByRole('region', { name: 'What differs' }).getByRole('row')).toHaveCount(8);
  await choose(
    page.getByRole('region', { name: 'Judge it otherwise' }).getByRole('combobox', { name: 'Plan' }),
    'Outline',
  );
  await expect(page.getByText('otherwise').first()).toBeVisible();
  expect(other).not.toBe(id);
});

test('a line from elsewhere is brought in and reviewed without sound; a broken file says what is wrong', async ({
  page,
  request,
  baseURL,
  allowConsole,
}) => {
  allowConsole(/422/); // the browser notes the refusal itself
  const id = await makeTake(request, baseURL!);
  const midi = await (await request.get(`/api/takes/${id}/export?format=midi`)).body();
  await page.goto('/takes');
  await page
    .locator('input[type="file"]')
    .setInputFiles({ name: 'Borrowed line.mid', mimeType: 'audio/midi', buffer: midi });
  await expect(page.getByRole('dialog')).toContainText('Hold it against a chart');
  await page.getByRole('dialog').getByLabel('Tempo').fill('180');
  await page.getByRole('button', { name: 'Bring it in' }).click();
  await page.waitForURL(/\/takes\/[\w-]+$/);
  await expect(page.getByText('Borrowed line')).toBeVisible();
  await expect(page.getByText('its sound is gone: notes are plucked')).toBeVisible();
  await page.goto('/takes');
  await page.locator('input[type="file"]').setInputFiles({
    name: 'broken.zip',
    mimeType: 'application/zip',
    buffer: Buffer.from('PK nothing at all'),
  });
  await expect(page.getByText('This is not an archive of a take.')).toBeVisible();
});
