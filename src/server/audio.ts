import { createHash } from 'node:crypto';
import { and, asc, eq, gt, lte, max, sql, sum } from 'drizzle-orm';
import { database, write } from './db/client';
import { audioChunks, takes } from './db/schema';
import { Failure, notFound } from './failure';
import { LIMITS } from './limits';

const BYTES_A_FRAME = 2;

export const checksumOf = (pcm: Uint8Array): string => createHash('sha256').update(pcm).digest('hex');

/**
 * Keeps one chunk of a take. Chunks come in order from 0; one that is already there with the same checksum is acknowledged again,
 * so a sender that did not hear the answer may repeat itself.
 */
export async function storeChunk(takeId: string, sequence: number, pcm: Uint8Array, checksum: string): Promise<{ sequence: number }> {
  if (pcm.length === 0 || pcm.length % BYTES_A_FRAME !== 0) throw new Failure(422, { code: 'chunk.size', message: 'A chunk holds whole 16-bit frames, at least one.' });
  if (sequence >= LIMITS.chunks) throw new Failure(413, { code: 'take.long', message: 'A take cannot be longer than this.', suggestion: 'Finish it and start another.' });
  if (checksumOf(pcm) !== checksum) throw new Failure(422, { code: 'chunk.checksum', message: 'This chunk was damaged on its way.', suggestion: 'Send it again.' });
  return write(async (tx) => {
    const [take] = await tx.select({ state: takes.state }).from(takes).where(eq(takes.id, takeId));
    if (!take) throw notFound('take');
    const [same] = await tx.select({ checksum: audioChunks.checksum }).from(audioChunks).where(and(eq(audioChunks.takeId, takeId), eq(audioChunks.sequence, sequence)));
    if (same?.checksum === checksum) return { sequence };
    if (same || take.state !== 'recording') throw new Failure(409, { code: 'chunk.twice', message: `Chunk ${sequence} is already there with other sound.` });
    const [before] = await tx.select({ last: max(audioChunks.sequence), frames: sum(audioChunks.frames) }).from(audioChunks).where(eq(audioChunks.takeId, takeId));
    const expected = before?.last === null || before?.last === undefined ? 0 : before.last + 1;
    if (sequence !== expected) throw new Failure(409, { code: 'chunk.order', message: `Chunk ${expected} comes next, not ${sequence}.` });
    const frames = pcm.length / BYTES_A_FRAME;
    await tx.insert(audioChunks).values({ takeId, sequence, frames, firstFrame: Number(before?.frames ?? 0), checksum, pcm: Buffer.from(pcm) });
    return { sequence };
  });
}

export async function framesStored(takeId: string): Promise<number> {
  const [stored] = await database().select({ frames: sum(audioChunks.frames) }).from(audioChunks).where(eq(audioChunks.takeId, takeId));
  return Number(stored?.frames ?? 0);
}

/** PCM bytes `from` to `to` (half-open) of a take, chunk by chunk: a take is never held whole. */
export async function* pcmRange(takeId: string, from: number, to: number): AsyncGenerator<Buffer> {
  const [firstFrame, lastFrame] = [Math.floor(from / BYTES_A_FRAME), Math.ceil(to / BYTES_A_FRAME)];
  const wanted = await database().select({ sequence: audioChunks.sequence, firstFrame: audioChunks.firstFrame }).from(audioChunks)
    .where(and(eq(audioChunks.takeId, takeId), lte(audioChunks.firstFrame, lastFrame), gt(sql`${audioChunks.firstFrame} + ${audioChunks.frames}`, firstFrame)))
    .orderBy(asc(audioChunks.sequence));
  for (const { sequence, firstFrame: first } of wanted) {
    const [row] = await database().select({ pcm: audioChunks.pcm }).from(audioChunks).where(and(eq(audioChunks.takeId, takeId), eq(audioChunks.sequence, sequence)));
    if (!row) return;
    const start = first * BYTES_A_FRAME;
    const piece = row.pcm.subarray(Math.max(0, from - start), Math.max(0, to - start));
    if (piece.length > 0) yield piece;
  }
}
