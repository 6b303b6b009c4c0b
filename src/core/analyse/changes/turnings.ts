import { median, type Beats } from '../../shared';
import type { ChangeReport } from './landings';

/**
 * Where the line turned for one kind of change: against the chord, in beats, positive late; `spreadBeats` is
 * the median distance from that median.
 */
export type Turning = {
  readonly change: string;
  readonly count: number;
  readonly medianBeats: Beats;
  readonly spreadBeats: Beats;
};

/** Rule T8.6: early or late, spread per change kind. Changes at rest are left out. */
export function turningsOf(changes: readonly ChangeReport[]): Turning[] {
  const kinds = new Map<string, Beats[]>();
  for (const { from, to, beat, turnedAtBeat, landing } of changes)
    if (turnedAtBeat !== undefined && !landing.rest)
      kinds.set(`${from}→${to}`, [...(kinds.get(`${from}→${to}`) ?? []), turnedAtBeat - beat]);
  return [...kinds].map(([change, offs]) => {
    const middle = median(offs)!;
    return {
      change,
      count: offs.length,
      medianBeats: middle,
      spreadBeats: median(offs.map((off) => Math.abs(off - middle)))!,
    };
  });
}
