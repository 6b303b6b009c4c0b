import type { Dates } from '@/presentation';
import type { TakeListEntry } from '@/server/judgedTakes';
import { takeMoment } from '@/presentation';
import type { TakeRow } from './takesList';

/** One line of the list for a take. */
export function takeRow({ take, line, stars, trouble }: TakeListEntry, dates?: Dates): TakeRow {
  const { id, number, title, createdAt, plan, tempo } = take;
  return {
    id,
    number,
    title,
    when: takeMoment(createdAt, dates),
    planId: plan.id,
    tempo: Math.round(tempo),
    stars,
    trouble,
    line,
  };
}
