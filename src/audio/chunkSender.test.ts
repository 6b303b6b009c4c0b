import { expect, test } from '@jest/globals';
import { ChunkRefused, ChunkSender } from './chunkSender';
import { sha256, toPcm16 } from './pcm';
import { checksumOf } from '@/server/audio';

const noWait = () => Promise.resolve();
const block = (...values: number[]) => Float32Array.from(values);

test('a recording goes out in chunks, in order, the rest with the flush', async () => {
  const sent: [number, number][] = [];
  const sender = new ChunkSender(async (sequence, pcm) => void sent.push([sequence, pcm.length / 2]), 3, noWait);
  for (let n = 0; n < 4; n++) sender.add(block(0.1, 0.2));
  await sender.flush();
  expect(sent).toEqual([[0, 4], [1, 4]]);
  sender.add(block(0.5));
  await sender.flush();
  expect([sent[2], sender.frames, sender.waiting]).toEqual([[2, 1], 9, 0]);
});

test('a chunk that was not acknowledged is sent again, later and later, and none after it overtakes', async () => {
  const waits: number[] = [];
  const sent: number[] = [];
  let down = 3;
  const sender = new ChunkSender(async (sequence) => {
    if (down-- > 0) throw new TypeError('no answer');
    sent.push(sequence);
  }, 1, async (ms) => void waits.push(ms));
  sender.add(block(0.1));
  sender.add(block(0.2));
  await sender.flush();
  expect(sent).toEqual([0, 1]);
  expect(waits).toEqual([250, 500, 1000]);
});

test('a refused chunk ends the sending with its reason', async () => {
  const sender = new ChunkSender(async () => { throw new ChunkRefused('gone'); }, 1, noWait);
  sender.add(block(0.1));
  await expect(sender.flush()).rejects.toThrow('gone');
  sender.add(block(0.2));
  await expect(sender.flush()).rejects.toThrow('gone');
});

test('stopping sends nothing more', async () => {
  let sent = 0;
  const sender = new ChunkSender(async () => void sent++, 1, noWait);
  sender.add(block(0.1));
  sender.stop();
  sender.add(block(0.2));
  await sender.flush();
  expect(sent).toBeLessThanOrEqual(1);
});

test('16-bit PCM is bit for bit what a 16-bit input gave; both sides agree on its checksum', async () => {
  const values = [-32_768, -1, 0, 1, 12_345, 32_767];
  const pcm = toPcm16(Float32Array.from(values, (value) => value / 32_768));
  expect(Array.from(new Int16Array(pcm.buffer))).toEqual(values);
  expect(Array.from(new Int16Array(toPcm16(block(1.5, -1.5)).buffer))).toEqual([32_767, -32_768]);
  expect(await sha256(pcm)).toBe(checksumOf(pcm));
});
