import { expect, test } from '@jest/globals';
import { writeWav } from '@/core/formats';
import { transcribe } from '@/core/transcribe';
import type { ListenReply } from './listenProtocol';
import { Listening } from './listening';
import { playStudio, TAIL_SECONDS } from './studio';

const CHART = 'key: C\n| Dm7 | G7 | Cmaj7 | % |';
const RATE = 22_050;
const solo = () => playStudio({ type: 'solo', chartText: CHART, tempo: 200, choruses: 1, rate: RATE, seed: 4, planId: 'outline', leadSeconds: 0.2 });

async function replies(run: (listening: Listening) => Promise<void>): Promise<ListenReply[]> {
  const all: ListenReply[] = [];
  await run(new Listening((reply) => void all.push(reply)));
  return all;
}

test('a take in blocks gives the notes of the whole', async () => {
  const samples = solo();
  const [reply] = await replies(async (listening) => {
    await listening.handle({ type: 'begin', rate: RATE });
    for (let at = 0; at < samples.length; at += 2048) await listening.handle({ type: 'block', samples: samples.subarray(at, at + 2048) });
    await listening.handle({ type: 'finish' });
  });
  expect(reply).toEqual({ type: 'notes', transcription: transcribe(samples, RATE) });
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
