import type { Transcription } from '@/core/transcribe';
import type { PlanWords } from '@/core/plan';
import type { Problem } from '@/core/vocabulary';
import { ChunkRefused, ChunkSender } from './chunkSender';

/** The server's takes as the browser speaks to them. */
export type NewTake = {
  readonly chartId: string; readonly tempo: number; readonly choruses: number; readonly plan: PlanWords;
  readonly rate: number; readonly source: 'microphone' | 'file' | 'stand-in';
};

/** The server's sentence for the player. */
export class ServerRefusal extends Error {
  constructor(readonly problem: Problem) {
    super(problem.message);
  }
}

export async function ask<T>(path: string, init: RequestInit = {}): Promise<T> {
  const response = await fetch(path, init);
  if (response.ok) return (response.status === 204 ? undefined : await response.json()) as T;
  const body = (await response.json().catch(() => null)) as { error?: Problem } | null;
  throw new ServerRefusal(body?.error ?? { code: 'server', message: 'The server did not answer as expected.', suggestion: 'Try again.' });
}

const json = (method: string, body: unknown): RequestInit => ({ method, headers: { 'content-type': 'application/json' }, body: JSON.stringify(body) });

export const beginTake = (take: NewTake): Promise<{ id: string; number: number }> => ask('/api/takes', json('POST', take));
export const discardTake = (id: string): Promise<void> => ask(`/api/takes/${id}`, { method: 'DELETE', keepalive: true });
export const amendTake = (id: string, change: { offsetSec?: number; plan?: PlanWords }): Promise<unknown> => ask(`/api/takes/${id}`, json('PATCH', change));

export const finishTake = (id: string, frames: number, offsetSec: number, transcription: Transcription): Promise<unknown> =>
  ask(`/api/takes/${id}/finish`, json('POST', { frames, offsetSec, transcription }));

/** Sends a take's sound in chunks of about a second. */
export function senderFor(id: string, rate: number): ChunkSender {
  return new ChunkSender(async (sequence, pcm, checksum) => {
    const response = await fetch(`/api/takes/${id}/chunks/${sequence}`, { method: 'PUT', headers: { 'x-checksum': checksum, 'content-type': 'application/octet-stream' }, body: pcm });
    if (response.ok) return;
    if (response.status < 500) throw new ChunkRefused(`chunk ${sequence}: ${response.status}`);
    throw new Error(`chunk ${sequence}: ${response.status}`);
  }, rate);
}

/** Keeps a whole signal as a finished take; nothing stays behind where it fails. */
export async function keepTake(take: NewTake, samples: Float32Array, offsetSec: number, transcription: Transcription): Promise<string> {
  const { id } = await beginTake(take);
  try {
    const sender = senderFor(id, take.rate);
    const size = take.rate;
    for (let at = 0; at < samples.length; at += size) sender.add(samples.subarray(at, at + size));
    await sender.flush();
    await finishTake(id, samples.length, offsetSec, transcription);
    return id;
  } catch (error) {
    await discardTake(id).catch(() => undefined);
    throw error;
  }
}
