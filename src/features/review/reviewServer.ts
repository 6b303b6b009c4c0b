import { changing } from '@/audio/keep/serverTakes';
import type { Edit, TakeWords } from '@/core/correct';

const put = (body: unknown): RequestInit => ({ method: 'PUT', headers: { 'content-type': 'application/json' }, body: JSON.stringify(body) });

export const keepEdits = (id: string, edits: readonly Edit[], leaving = false): Promise<unknown> => changing(id, `/api/takes/${id}/edits`, { ...put({ edits }), keepalive: leaving });
export const keepWords = (id: string, words: TakeWords): Promise<unknown> => changing(id, `/api/takes/${id}/words`, put({ words }));
