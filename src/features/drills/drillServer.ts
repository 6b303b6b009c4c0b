import { ask } from '@/audio/persistence/serverTakes';
import type { StoredDrill } from '@/server/drillRows';
import type { RunOutcome } from '@/server/drills';
import type { DrillChangeBody, NewDrillBody } from '@/server/validation';

const json = (method: string, body: unknown): RequestInit => ({
  method,
  headers: { 'content-type': 'application/json' },
  body: JSON.stringify(body),
});

export const takeUp = (body: NewDrillBody): Promise<StoredDrill> => ask('/api/drills', json('POST', body));
export const changeDrill = (id: string, change: DrillChangeBody): Promise<StoredDrill> =>
  ask(`/api/drills/${id}`, json('PATCH', change));
export const countRun = (id: string, takeId: string, sitting: string): Promise<RunOutcome> =>
  ask(`/api/drills/${id}/runs`, json('POST', { takeId, sitting }));
