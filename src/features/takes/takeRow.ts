import type { StoredTake } from '@/server/takes';
import type { TakeLine } from '@/server/takeLines';
import { takeMoment } from './moment';
import type { TakeRow } from './TakesScreen';

/** One line of the list for a take. */
export const takeRow = (take: StoredTake, line: TakeLine, stars = 0): TakeRow => ({ id: take.id, number: take.number, title: take.title, when: takeMoment(take.createdAt), planId: take.plan.id, tempo: Math.round(take.tempo), ...line, stars });
