import type { Transcription } from '@/core/transcribe';
import type { DropOut } from '@/core/band';
import type { PlanWords } from '@/core/plan';
import type { Pace } from '@/core/chart';
import { sha256, toPcm24 } from '../pcm';
import type { Ending, LocalChunk } from './localTakes';
import { present, type Problem } from '@/core/shared';

/** A take as the server is told to begin it. */
export type NewTake = {
  readonly chartId: string;
  readonly tempo: number;
  readonly choruses: number;
  readonly plan: PlanWords;
  readonly rate: number;
  readonly source: 'microphone' | 'file' | 'stand-in';
  readonly bits: 24;
  readonly chartText?: string;
  readonly title?: string;
  readonly pace?: Pace;
  readonly device?: string;
  readonly latencySec?: number;
  readonly createdAt?: number;
  readonly dropOut?: DropOut;
  readonly drillId?: string;
};

/** The server's sentence for the player. */
export class ServerRefusal extends Error {
  constructor(readonly problem: Problem) {
    super(problem.message);
  }
}
/** The server answered, and asking again would change nothing. */
export class Refused extends ServerRefusal {}

/** The server's takes as a recording speaks to them. Anything but `Refused` may be tried again. */
export interface TakeServer {
  begin(take: NewTake & { readonly id: string }): Promise<void>;
  amend(id: string, change: { offsetSec: number }): Promise<void>;
  put(id: string, sequence: number, chunk: LocalChunk): Promise<void>;
  finish(id: string, ending: Ending): Promise<void>;
  /**
   * Puts a take in the trash.
   * @param hasMore the server does not have all of it yet: what it has is put in the trash, however little
   * @returns whether it can be brought back: one in which nothing was played is deleted
   */
  discard(id: string, hasMore?: boolean): Promise<boolean>;
  /** Brings a take back out of the trash. */
  restore(id: string): Promise<unknown>;
  /** The chunk that comes next, or null where the take is finished or gone. */
  next(id: string): Promise<number | null>;
}

export async function ask<T>(path: string, init: RequestInit = {}): Promise<T> {
  const response = await fetch(path, init);
  if (response.ok) return (response.status === 204 ? undefined : await response.json()) as T;
  throw await refusalIn(response);
}

const UNEXPECTED: Problem = {
  code: 'server',
  message: 'The server did not answer as expected.',
  suggestion: 'Try again.',
};

async function refusalIn(response: Response): Promise<ServerRefusal> {
  const body = (await response.json().catch(() => null)) as { error?: Problem } | null;
  const problem = body?.error ?? UNEXPECTED;
  return response.status < 500 ? new Refused(problem) : new ServerRefusal(problem);
}

/**
 * Asks for what takes long: tells each step, which is a line with a `phase`, as the server reaches it.
 * @returns the line that is no step: what came of it
 */
export async function askInSteps<T extends object, Step extends { readonly phase: string }>(
  path: string,
  init: RequestInit,
  onStep: (step: Step) => void,
): Promise<T> {
  const headers = { ...(init.headers as Record<string, string> | undefined), accept: 'application/x-ndjson' };
  const response = await fetch(path, { ...init, headers });
  if (!response.ok || !response.body) throw await refusalIn(response);
  const reader = response.body.pipeThrough(new TextDecoderStream()).getReader();
  let left = '';
  for (;;) {
    const { done, value } = await reader.read();
    if (done) throw new ServerRefusal(UNEXPECTED);
    const lines = (left + value).split('\n');
    left = lines.pop() ?? '';
    for (const line of lines) {
      const said = JSON.parse(line) as Step | T | { readonly error: Problem };
      if ('error' in said) throw new Refused(said.error);
      if (!('phase' in said)) return said;
      onStep(said);
    }
  }
}

const json = (method: string, body: unknown): RequestInit => ({
  method,
  headers: { 'content-type': 'application/json' },
  body: JSON.stringify(body),
});

/** Puts a take in the trash. @returns whether it can be brought back */
export const discardTake = async (id: string, hasMore = false): Promise<boolean> => {
  const path = `/api/takes/${id}${hasMore ? '?more=1' : ''}`;
  return (await ask<{ recoverable: boolean }>(path, { method: 'DELETE', keepalive: true })).recoverable;
};
const deleteTake = (id: string): Promise<unknown> =>
  ask(`/api/takes/${id}?permanently=1`, { method: 'DELETE', keepalive: true });
/** Brings a take back out of the trash. */
export const restoreTake = async (id: string): Promise<{ id: string; state: string }> =>
  (await ask<{ take: { id: string; state: string } }>(`/api/takes/${id}/restore`, { method: 'POST' })).take;
export const amendTake = (id: string, change: { offsetSec?: number; plan?: PlanWords }): Promise<unknown> =>
  changing(id, `/api/takes/${id}`, json('PATCH', change));
export const finishTake = (
  id: string,
  frames: number,
  offsetSec: number,
  transcription: Transcription,
): Promise<unknown> => ask(`/api/takes/${id}/finish`, json('POST', { frames, offsetSec, transcription }));

const MOST_ANSWERS = 3;
const answers = new Map<string, Promise<unknown>>();

/** Asks for a take's review before its page is there: the page then only has to draw it. */
export function askAhead(id: string): void {
  if (answers.has(id)) return;
  const answer = ask(`/api/takes/${id}`);
  hold(id, answer);
  answer.catch(() => answers.delete(id));
}

function hold(id: string, answer: Promise<unknown>): void {
  answers.set(id, answer);
  if (answers.size > MOST_ANSWERS) answers.delete(present(answers.keys().next().value));
}

/** What changes a take makes the review that came with its end an old one. */
export function changing<T>(id: string, path: string, init: RequestInit): Promise<T> {
  answers.delete(id);
  return ask<T>(path, init);
}

/** A take's review: as it came with its end, or asked for. */
export const reviewAnswer = <T>(id: string): Promise<T> =>
  (answers.get(id) as Promise<T> | undefined) ?? ask<T>(`/api/takes/${id}`);

/** The application's own server. */
export const HTTP_SERVER: TakeServer = {
  begin: (take) => ask('/api/takes', json('POST', take)),
  amend: async (id, change) => void (await amendTake(id, change)),
  put: (id, sequence, { pcm, checksum }) =>
    ask(`/api/takes/${id}/chunks/${sequence}`, {
      method: 'PUT',
      headers: { 'x-checksum': checksum, 'content-type': 'application/octet-stream' },
      body: pcm,
    }),
  finish: async (id, { frames, offsetSec, transcription }) => {
    hold(id, Promise.resolve(await finishTake(id, frames, offsetSec, transcription)));
  },
  discard: discardTake,
  restore: restoreTake,
  next: async (id) => {
    try {
      const { take, next } = await ask<{ take: { state: string }; next?: number }>(`/api/takes/${id}`);
      return take.state === 'recording' ? (next ?? 0) : null;
    } catch (error) {
      if (error instanceof Refused) return null;
      throw error;
    }
  },
};

/** An id nobody else makes: 96 random bits in URL-safe letters. */
export const newTakeId = (): string =>
  btoa(String.fromCharCode(...crypto.getRandomValues(new Uint8Array(12))))
    .replaceAll('+', '-')
    .replaceAll('/', '_');

/** Keeps a whole signal as a finished take; nothing stays behind where it fails. */
export async function storeTake(
  take: NewTake,
  samples: Float32Array,
  offsetSec: number,
  transcription: Transcription,
): Promise<string> {
  const { id } = await ask<{ id: string }>('/api/takes', json('POST', take));
  try {
    for (let at = 0, sequence = 0; at < samples.length; at += take.rate, sequence++) {
      const pcm = toPcm24(samples.subarray(at, at + take.rate));
      await HTTP_SERVER.put(id, sequence, { pcm, checksum: await sha256(pcm) });
    }
    await finishTake(id, samples.length, offsetSec, transcription);
    return id;
  } catch (error) {
    await deleteTake(id).catch(() => undefined);
    throw error;
  }
}
