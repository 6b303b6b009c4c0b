import type { FindingContext } from '../finding';

/**
 * Sounding beats by tension level over the whole take; chord hits are judged by themselves, and what the plan
 * plays is never outside.
 */
export function tensionBeats({ report }: FindingContext): { low: number; ground: number; all: number } {
  let [ground, high, all] = [0, 0, 0];
  for (const note of report.notes)
    if (report.events[note.event]?.kind !== 'chord')
      for (const { height, beats } of note.spans) {
        all += beats;
        if (height === 0) ground += beats;
        if (height >= 3 && !note.inPlan) high += beats;
      }
  return { low: Math.round(all - high), ground: Math.round(ground), all: Math.round(all) };
}
