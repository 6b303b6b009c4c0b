import { expect, test } from '@jest/globals';
import { writeWav } from '@/core/formats';
import { levelled, loudnessOf, TARGET_LOUDNESS } from '@/core/sound';
import { transcribe } from '@/core/transcribe';
import type { ListenReply } from './listenProtocol';
import { Listening } from './listening';
import { bandInstruments } from '../../tests/corpora/band';
import { BandRenderer } from './bandRenderer';
import type { BandReply, Score } from './bandProtocol';
import { renderRequest } from './offlineRenderer';

const CHART = 'key: C\n| Dm7 | G7 | Cmaj7 | % |';
const RATE = 22_050;
const instrumentsAt = (rate: number) => bandInstruments(rate);
const solo = () =>
  renderRequest(
    {
      type: 'solo',
      chartText: CHART,
      tempo: 200,
      choruses: 1,
      rate: RATE,
      seed: 4,
      plan: { id: 'outline' },
      leadSeconds: 0.2,
    },
    instrumentsAt,
  );

async function replies(run: (listening: Listening) => Promise<void>): Promise<ListenReply[]> {
  const all: ListenReply[] = [];
  await run(new Listening((reply) => void all.push(reply)));
  return all;
}

test('a take in blocks gives the notes of the whole', async () => {
  const samples = await solo();
  const all = await replies(async (listening) => {
    await listening.handle({ type: 'begin', rate: RATE });
    for (let at = 0; at < samples.length; at += 2048)
      await listening.handle({ type: 'block', samples: samples.subarray(at, at + 2048) });
    await listening.handle({ type: 'finish' });
  });
  const transcription = transcribe(samples, RATE);
  expect(all.at(-1)).toEqual({ type: 'notes', transcription });
  // the live line said most of them while they sounded
  const said = all.flatMap((reply) => (reply.type === 'live' ? reply.notes : []));
  const found = transcription.notes.filter((note) =>
    said.some((live) => live.midi === note.midi && Math.abs(live.onsetSec - note.onsetSec) < 0.08),
  );
  expect(found.length / transcription.notes.length).toBeGreaterThan(0.85);
});

test('a band that was given is taken out: its loudspeaker changes no note', async () => {
  const samples = await solo();
  const band = await renderRequest(
    { type: 'band', chartText: CHART, tempo: 200, choruses: 3, countInBars: 1, rate: RATE, seed: 4 },
    instrumentsAt,
  );
  const level = (signal: Float32Array) =>
    Math.sqrt(signal.reduce((sum, value) => sum + value * value, 0) / signal.length);
  const gain = (level(samples) / level(band)) * 10 ** (-15 / 20);
  const heard = samples.map(
    (value, n) => value + gain * ((band[n - 900] ?? 0) - 0.4 * (band[n - 1500] ?? 0)),
  );
  const [removed, plain] = await Promise.all(
    [{ rate: RATE }, undefined].map(async (backing) =>
      (
        await replies(async (listening) => {
          await listening.handle(
            backing ? { type: 'begin', rate: RATE, backing } : { type: 'begin', rate: RATE },
          );
          // told piece by piece while it is played
          if (backing)
            for (let at = 0; at < band.length; at += 30_000)
              await listening.handle({ type: 'backing', samples: band.slice(at, at + 30_000) });
          for (let at = 0; at < heard.length; at += 2048)
            await listening.handle({
              type: 'block',
              samples: (backing ? heard : samples).slice(at, at + 2048),
            });
          await listening.handle({ type: 'finish' });
        })
      ).at(-1),
    ),
  );
  const pitches = (reply: ListenReply | undefined) =>
    reply?.type === 'notes'
      ? reply.transcription.notes.map(({ midi, onsetSec }) => [midi, onsetSec] as const)
      : [];
  const clean = pitches(plain);
  const kept = clean.filter(([midi, onset]) =>
    pitches(removed).some(([other, at]) => other === midi && Math.abs(at - onset) < 0.05),
  ).length;
  expect(clean.length).toBeGreaterThan(8);
  expect([kept / clean.length > 0.95, Math.abs(pitches(removed).length - clean.length) <= 1]).toEqual([
    true,
    true,
  ]);
});

test('a file gives progress that only rises, then notes and samples', async () => {
  const samples = await solo();
  const all = await replies((listening) =>
    listening.handle({ type: 'file', bytes: writeWav([samples], RATE).buffer as ArrayBuffer }),
  );
  const shares = all.flatMap((reply) => (reply.type === 'progress' ? [reply.share] : []));
  expect(shares).toEqual([...shares].sort((a, b) => a - b));
  expect(shares[shares.length - 1]).toBe(1);
  const last = all[all.length - 1]!;
  expect(last.type === 'file-notes' && [last.rate, last.samples.length]).toEqual([RATE, samples.length]);
});

test('a file that is none is refused with its reason', async () => {
  const [reply] = await replies((listening) =>
    listening.handle({ type: 'file', bytes: new ArrayBuffer(10) }),
  );
  expect(reply).toMatchObject({ type: 'refused', problem: { code: 'wav.unknown' } });
});

test('finish without begin says nothing', async () =>
  expect(await replies((listening) => listening.handle({ type: 'finish' }))).toEqual([]));

const SCORE: Score = {
  chartText: CHART,
  choruses: 2,
  pace: { passBeats: 16, tempi: [200, 240] },
  countInBars: 1,
  seed: 1,
  click: 'off',
  dropOut: {},
  chords: 'keys',
};

async function ask(...requests: Parameters<BandRenderer['handle']>[0][]): Promise<BandReply[]> {
  const all: BandReply[] = [];
  const stand = new BandRenderer(instrumentsAt, (reply) => void all.push(reply));
  for (const request of requests) await stand.handle(request);
  return all;
}

test('the band comes in windows, each part for itself, and they join without a seam', async () => {
  const open = { type: 'open', rate: RATE } as const;
  const score = { type: 'score', id: 1, score: SCORE } as const;
  const [arranged, whole] = await ask(open, score, { type: 'window', id: 1, from: 0, to: 200_000 });
  // a bar of count-in and a pass at 200, a pass and the last chord at 240
  expect(arranged).toEqual({
    type: 'arranged',
    lead: Math.round(1.2 * RATE),
    length: Math.ceil((1.2 + 4.8 + 4 + 1) * RATE),
  });
  const pieces = (
    await ask(
      open,
      score,
      ...[0, 70_000, 70_001, 150_000].map((from, index, all) => ({
        type: 'window' as const,
        id: 1,
        from,
        to: all[index + 1] ?? 200_000,
      })),
    )
  ).slice(1);
  if (whole?.type !== 'window') throw new Error('no window');
  for (const part of ['drums', 'bass', 'chords', 'click'] as const) {
    const joined = pieces.flatMap((piece) => (piece.type === 'window' ? [...piece.parts[part]] : []));
    expect([part, joined]).toEqual([part, [...whole.parts[part]]]);
  }
  expect(Math.max(...whole.parts.click.subarray(0, 2000))).toBeGreaterThan(0.05); // the first click
  expect(Math.max(...whole.parts.bass.subarray(0, Math.round(1.15 * RATE)))).toBe(0);
});

test('a band that cannot be made says why, and can be asked again', async () => {
  const all: BandReply[] = [];
  let broken = true;
  const stand = new BandRenderer(
    (rate) => (broken ? Promise.reject(new Error('no bank')) : bandInstruments(rate)),
    (reply) => void all.push(reply),
  );
  await stand.handle({ type: 'open', rate: RATE });
  expect(all).toEqual([{ type: 'refused', message: 'no bank' }]);
  broken = false;
  await stand.handle({ type: 'open', rate: RATE });
  await stand.handle({ type: 'score', id: 1, score: SCORE });
  await stand.handle({ type: 'window', id: 1, from: 0, to: 100 });
  expect(all.slice(1).map(({ type }) => type)).toEqual(['arranged', 'window']);
});

test('another score may be arranged while the first still plays: its windows stay its own', async () => {
  const open = { type: 'open', rate: RATE } as const;
  const first = { type: 'score', id: 1, score: SCORE } as const;
  const window = { type: 'window', id: 1, from: 30_000, to: 60_000 } as const;
  const alone = (await ask(open, first, window)).at(-1);
  const beside = (
    await ask(open, first, { type: 'score', id: 2, score: { ...SCORE, seed: 9, countInBars: 2 } }, window)
  ).at(-1);
  expect(beside).toEqual(alone);
  expect((await ask(open, first, { ...window, id: 7 })).at(-1)).toMatchObject({ type: 'refused' });
});

test('what is heard of a form is equally loud: a take, loud or 18 dB softer, the band, a line, within 2 LU', async () => {
  const asked = { chartText: CHART, tempo: 120, choruses: 2, rate: RATE, seed: 4 };
  const line = [60, 64, 67, 71, 69, 65, 62, 60].map((midi, beat) => ({
    onsetBeat: beat,
    durationBeats: 1,
    midi,
  }));
  const take = await renderRequest(
    { ...asked, type: 'solo', plan: { id: 'outline' }, leadSeconds: 0.5 },
    instrumentsAt,
  );
  const heard = [
    take,
    take.map((value) => value / 8),
    await renderRequest({ ...asked, type: 'band', countInBars: 0 }, instrumentsAt),
    await renderRequest({ ...asked, type: 'line', notes: line, leadSeconds: 0 }, instrumentsAt),
  ].map((samples) => loudnessOf([levelled(samples, RATE)], RATE));
  for (const loudness of heard) expect(Math.abs(loudness - TARGET_LOUDNESS)).toBeLessThan(1);
});
