import { LIMITS } from '@/core/contracts';
import { setImmediate as othersFirst } from 'node:timers/promises';
import { and, asc, eq, gt, isNull, lte, max, sql, sum } from 'drizzle-orm';
import { checksumOf } from './checksum';
import { database, write } from './db/client';
import { audioChunks, takes } from './db/schema';
import { Failure, notFound } from './failure';
import { decodeFlac, encodeFlac } from './flac';
import { noteDamage } from './soundDamage';

/**
 * Keeps one chunk of a take. Chunks come in order from 0; one that is already there with the same checksum
 * is acknowledged again,
 * so a sender that did not hear the answer may repeat itself. What is kept is FLAC; the checksum is that of
 * the sound itself.
 * @param pcm little-endian frames of the take's own bits
 */
export async function storeChunk(
  takeId: string,
  sequence: number,
  pcm: Uint8Array,
  checksum: string,
): Promise<{ sequence: number }> {
  const [known] = await database()
    .select({ rate: takes.rate, bits: takes.bits })
    .from(takes)
    .where(eq(takes.id, takeId));
  if (!known) throw notFound('take');
  const width = known.bits / 8;
  if (pcm.length === 0 || pcm.length % width !== 0)
    throw new Failure(422, {
      code: 'chunk.size',
      message: `A chunk holds whole ${known.bits}-bit frames, at least one.`,
    });
  if (sequence >= LIMITS.request.chunks)
    throw new Failure(413, {
      code: 'take.long',
      message: 'A take cannot be longer than this.',
      suggestion: 'Finish it and start another.',
    });
  if (checksumOf(pcm) !== checksum)
    throw new Failure(422, {
      code: 'chunk.checksum',
      message: 'This chunk was damaged on its way.',
      suggestion: 'Send it again.',
    });
  // coded before the write begins: inside it nothing but the database is awaited
  const sound = await encodeFlac(pcm, known.rate, known.bits);
  return write(async (tx) => {
    const [take] = await tx.select({ state: takes.state }).from(takes).where(eq(takes.id, takeId));
    if (!take) throw notFound('take');
    const [same] = await tx
      .select({ checksum: audioChunks.checksum })
      .from(audioChunks)
      .where(and(eq(audioChunks.takeId, takeId), eq(audioChunks.sequence, sequence)));
    if (same?.checksum === checksum) return { sequence };
    if (same || take.state !== 'recording')
      throw new Failure(409, {
        code: 'chunk.twice',
        message: `Chunk ${sequence} is already there with other sound.`,
      });
    const [before] = await tx
      .select({ last: max(audioChunks.sequence), frames: sum(audioChunks.frames) })
      .from(audioChunks)
      .where(eq(audioChunks.takeId, takeId));
    const expected = before?.last === null || before?.last === undefined ? 0 : before.last + 1;
    if (sequence !== expected)
      throw new Failure(409, {
        code: 'chunk.order',
        message: `Chunk ${expected} comes next, not ${sequence}.`,
      });
    const frames = pcm.length / width;
    await tx.insert(audioChunks).values({
      takeId,
      sequence,
      frames,
      firstFrame: Number(before?.frames ?? 0),
      checksum,
      codec: 'flac',
      pcm: sound,
    });
    return { sequence };
  });
}

/** What of a take has arrived: frames, and the chunk that comes next. */
export async function soundStored(takeId: string): Promise<{ frames: number; next: number }> {
  const [stored] = await database()
    .select({ frames: sum(audioChunks.frames), last: max(audioChunks.sequence) })
    .from(audioChunks)
    .where(eq(audioChunks.takeId, takeId));
  return {
    frames: Number(stored?.frames ?? 0),
    next: stored?.last === null || stored?.last === undefined ? 0 : stored.last + 1,
  };
}

/**
 * PCM bytes `from` to `to` (half-open) of a take, chunk by chunk: a take is never held whole, and between two chunks
 * the server does whatever else is asked. A chunk that is not what was sent is silence, and is told by `damageOf`.
 */
export async function* pcmRange(
  { id: takeId, bits }: { id: string; bits: number },
  from: number,
  to: number,
): AsyncGenerator<Buffer> {
  const width = bits / 8;
  const [firstFrame, lastFrame] = [Math.floor(from / width), Math.ceil(to / width)];
  const wanted = await database()
    .select({
      sequence: audioChunks.sequence,
      firstFrame: audioChunks.firstFrame,
      frames: audioChunks.frames,
    })
    .from(audioChunks)
    .where(
      and(
        eq(audioChunks.takeId, takeId),
        lte(audioChunks.firstFrame, lastFrame),
        gt(sql`${audioChunks.firstFrame} + ${audioChunks.frames}`, firstFrame),
      ),
    )
    .orderBy(asc(audioChunks.sequence));
  for (const { sequence, firstFrame: first, frames } of wanted) {
    const [row] = await database()
      .select({ pcm: audioChunks.pcm, codec: audioChunks.codec, checksum: audioChunks.checksum })
      .from(audioChunks)
      .where(and(eq(audioChunks.takeId, takeId), eq(audioChunks.sequence, sequence)));
    if (!row) return;
    const whole = await intact(row, bits);
    if (!whole) noteDamage(takeId, { from: first, to: first + frames });
    const pcm = whole ?? Buffer.alloc(frames * width);
    const start = first * width;
    const piece = pcm.subarray(Math.max(0, from - start), Math.max(0, to - start));
    if (piece.length > 0) yield piece;
    await othersFirst();
  }
}

/** The sound of a chunk; null where it is not what was sent. */
async function intact(
  { pcm, codec, checksum }: Pick<typeof audioChunks.$inferSelect, 'pcm' | 'codec' | 'checksum'>,
  bits: number,
): Promise<Buffer | null> {
  const sound = codec === 'flac' ? await decodeFlac(pcm, bits).catch(() => null) : pcm;
  return sound && checksumOf(sound) === checksum ? sound : null;
}

export type Space = {
  /** Bytes that sound takes in the database, and takes that have sound. */ readonly soundBytes: number;
  readonly takes: number;
  /** Seconds of sound. */ readonly seconds: number;
};

/** What the kept sound weighs. */
export async function spaceUsed(): Promise<Space> {
  const [row] = await database()
    .select({
      soundBytes: sql<number>`coalesce(sum(length(${audioChunks.pcm})), 0)`,
      takes: sql<number>`count(distinct ${audioChunks.takeId})`,
      seconds: sql<number>`coalesce(sum(1.0 * ${audioChunks.frames} / ${takes.rate}), 0)`,
    })
    .from(audioChunks)
    .innerJoin(takes, eq(takes.id, audioChunks.takeId))
    .where(and(isNull(takes.soundGoneAt), isNull(takes.removedAt)));
  return {
    soundBytes: Number(row?.soundBytes ?? 0),
    takes: Number(row?.takes ?? 0),
    seconds: Number(row?.seconds ?? 0),
  };
}
