import type { FindingName } from '@/server/validation';
import { ask, changing } from '@/audio/persistence/serverTakes';
import type { Edit, TakeWords } from '@/core/correct';
import type { Motif } from '@/core/drills';
import type { KeptPhrase } from '@/core/phrases';

const put = (body: unknown): RequestInit => ({
  method: 'PUT',
  headers: { 'content-type': 'application/json' },
  body: JSON.stringify(body),
});

export const keepEdits = (id: string, edits: readonly Edit[], leaving = false): Promise<unknown> =>
  changing(id, `/api/takes/${id}/edits`, { ...put({ edits }), keepalive: leaving });
export const keepWords = (id: string, words: TakeWords): Promise<unknown> =>
  changing(id, `/api/takes/${id}/words`, put({ words }));

/** Takes up the drill a finding asks for. @returns its id */
export const takeUpDrill = async (takeId: string, finding: FindingName): Promise<string> =>
  (await ask<{ id: string }>('/api/drills', { ...put({ takeId, finding }), method: 'POST' })).id;

/**
 * A phrase of the player's own as a drill: its rhythm and contour on every chord of the tune. @returns its id
 */
export const takeUpPhrase = async (chartId: string, phrase: Motif, tempo: number): Promise<string> =>
  (
    await ask<{ id: string }>('/api/drills', {
      ...put({ chartId, kind: 'own-phrase', phrase, tempo }),
      method: 'POST',
    })
  ).id;

/** Keeps a phrase of a take among the player's own. @returns its id */
export const keepPhraseOf = async (
  take: { readonly id: string; readonly beat: number },
  name: string,
  phrase: KeptPhrase,
): Promise<string> =>
  (
    await ask<{ id: string }>('/api/phrases', {
      ...put({ name, tags: [], phrase, source: 'take', take }),
      method: 'POST',
    })
  ).id;
