import { ask } from '@/audio/persistence/serverTakes';
import type { Motif } from '@/core/drills';
import type { FoundInTake } from '@/server/phrases';
import type { PhraseBody, PhraseChangeBody } from '@/server/validation';

const json = (method: string, body: unknown): RequestInit => ({
  method,
  headers: { 'content-type': 'application/json' },
  body: JSON.stringify(body),
});

export const keepPhrase = (body: PhraseBody): Promise<{ id: string }> =>
  ask('/api/phrases', json('POST', body));
export const changePhrase = (id: string, change: PhraseChangeBody): Promise<{ id: string }> =>
  ask(`/api/phrases/${id}`, json('PATCH', change));
export const foundAgain = async (id: string): Promise<readonly FoundInTake[]> =>
  (await ask<{ takes: FoundInTake[] }>(`/api/phrases/${id}/found`)).takes;
/** A phrase as a drill over a whole tune. @returns the drill's id */
export const drillPhrase = (chartId: string, phrase: Motif, tempo: number): Promise<{ id: string }> =>
  ask('/api/drills', json('POST', { chartId, kind: 'own-phrase', phrase, tempo }));
