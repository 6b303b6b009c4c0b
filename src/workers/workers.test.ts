import { expect, test } from '@jest/globals';
import { writeWav } from '@/core/formats';
import { transcribe } from '@/core/transcribe';
import type { ListenReply } from './listenProtocol';
import { Listening } from './listening';
import { playStudio, TAIL_SECONDS } from './studio';

const CHART = 'key: C\n| Dm7 | G7 | Cmaj7 | % |';
const RATE = 22_050;
const solo = () => playStudio({ type: 'solo', chartText: CHART, tempo: 200, choruses: 1, rate: RATE, seed: 4, plan: { id: 'outline' }, leadSeconds: 0.2 });

async function replies(run: (listening: Listening) => Promise<void>): Promise<ListenReply[]> {
  const all: ListenReply[] = [];
  await run(new Listening((reply) => void all.push(reply)));
  return all;
}

test('a take in blocks gives the notes of the whole', async () => {
  const samples = solo();
  const all = await replies(async (listening) => {
    await listening.handle({ type: 'begin', rate: RATE });
    for (let at = 0; at < samples.length; at += 2048) await listening.handle({ type: 'block', samples: samples.subarray(at, at + 2048) });
    await listening.handle({ type: 'finish' });
  });
  const transcription = transcribe(samples, RATE);
  expect(all.at(-1)).toEqual({ type: 'notes', transcription });
  // the live line said most of them while they sounded
  const said = all.flatMap((reply) => (reply.type === 'live' ? reply.notes : []));
  const found = transcription.notes.filter((note) => said.some((live) => live.midi === note.midi && Math.abs(live.onsetSec - note.onsetSec) < 0.08));
  expect(found.length / transcription.notes.length).toBeGreaterThan(0.85);
});

test('a band that was given is taken out: its loudspeaker changes no note', async () => {
  const samples = solo();
  const band = playStudio({ type: 'band', chartText: CHART, tempo: 200, choruses: 3, countInBars: 1, rate: RATE, seed: 4 });
  const level = (signal: Float32Array) => Math.sqrt(signal.reduce((sum, value) => sum + value * value, 0) / signal.length);
  const gain = (level(samples) / level(band)) * 10 ** (-15 / 20);
  const heard = samples.map((value, n) => value + gain * ((band[n - 900] ?? 0) - 0.4 * (band[n - 1500] ?? 0)));
  const [removed, plain] = await Promise.all([{ samples: band, rate: RATE }, undefined].map(async (backing) => (await replies(async (listening) => {
    await listening.handle(backing ? { type: 'begin', rate: RATE, backing } : { type: 'begin', rate: RATE });
    for (let at = 0; at < heard.length; at += 2048) await listening.handle({ type: 'block', samples: (backing ? heard : samples).slice(at, at + 2048) });
    await listening.handle({ type: 'finish' });
  })).at(-1)));
  const pitches = (reply: ListenReply | undefined) => (reply?.type === 'notes' ? reply.transcription.notes.map(({ midi, onsetSec }) => [midi, onsetSec] as const) : []);
  const clean = pitches(plain);
  const kept = clean.filter(([midi, onset]) => pitches(removed).some(([other, at]) => other === midi && Math.abs(at - onset) < 0.05)).length;
  expect(clean.length).toBeGreaterThan(8);
  expect([kept / clean.length > 0.95, Math.abs(pitches(removed).length - clean.length) <= 1]).toEqual([true, true]);
});

test('a file gives progress that only rises, then notes and samples', async () => {
  const samples = solo();
  const all = await replies((listening) => listening.handle({ type: 'file', bytes: writeWav([samples], RATE).buffer as ArrayBuffer }));
  const shares = all.flatMap((reply) => (reply.type === 'progress' ? [reply.share] : []));
  expect(shares).toEqual([...shares].sort((a, b) => a - b));
  expect(shares[shares.length - 1]).toBe(1);
  const last = all[all.length - 1]!;
  expect(last.type === 'file-notes' && [last.rate, last.samples.length]).toEqual([RATE, samples.length]);
});

test('a file that is none is refused with its reason', async () => {
  const [reply] = await replies((listening) => listening.handle({ type: 'file', bytes: new ArrayBuffer(10) }));
  expect(reply).toMatchObject({ type: 'refused', problem: { code: 'wav.unknown' } });
});

test('finish without begin says nothing', async () => expect(await replies((listening) => listening.handle({ type: 'finish' }))).toEqual([]));

test('the studio renders the band with its count-in, and the same band twice', () => {
  const band = () => playStudio({ type: 'band', chartText: CHART, tempo: 200, choruses: 2, rate: RATE, seed: 1, countInBars: 1 });
  const samples = band();
  expect(samples.length).toBe(Math.ceil((1.2 + 2 * 4.8 + TAIL_SECONDS) * RATE));
  expect(band()).toEqual(samples);
  expect(Math.max(...samples.subarray(0, 2000))).toBeGreaterThan(0.05); // the first click
});
