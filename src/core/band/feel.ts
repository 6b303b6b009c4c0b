import { beatsPerBar, type Chart } from '../chart';

/** The ways this band can play time. */
export type BandFeel = 'swing' | 'straight' | 'shuffle';

/** Where the off-beat eighth falls in its beat: 0.5 is even, 2/3 a triplet. Swing evens out as it gets faster (common practice, no source). */
export function offBeat(feel: BandFeel, tempo: number): number {
  if (feel === 'straight') return 0.5;
  if (feel === 'shuffle') return 0.664;
  return Math.max(0.54, Math.min(0.66, 0.72 - tempo * 0.0008));
}

/** The band's feel for what the chart names; blues shuffles unless it says swing, everything unknown is straight. */
export function bandFeel(chart: Chart): BandFeel {
  const feel = chart.feel ?? '';
  if (/shuffle/.test(feel) || (/blues/.test(feel) && !/swing/.test(feel))) return 'shuffle';
  if (/swing|jazz|waltz|ballad/.test(feel)) return 'swing';
  if (feel === '') return beatsPerBar(chart.meter) === 4 ? 'swing' : 'straight';
  return 'straight';
}
