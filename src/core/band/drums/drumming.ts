import { pick, type Random } from '../../shared';
import type { BandEvent, Drum } from '../events';
import { lineupOf, offBeat, type BandFeel } from '../feel';
import { barsOf, type WalkForm } from '../walk';
import { GROOVES, type DrumHit } from './grooves';

/**
 * Time by the feel's groove, a small fill into each section, a larger one and a crash where the form begins
 * again.
 */
export function drumming(tune: WalkForm, feel: BandFeel, random: Random): BandEvent[] {
  const late = offBeat(feel, tune.timeline.tempo);
  const brushes = lineupOf(feel, tune.timeline.tempo).drums === 'brushes';
  const events: BandEvent[] = [];
  const hit: DrumHit = (drum, beat, loudness) =>
    events.push({ part: 'drums', drum, beat, loudness: loudness * (0.88 + 0.12 * random()) });
  for (const { start, end, section, last, chorus } of barsOf(tune)) {
    GROOVES[feel]({ start, beats: end - start, late, brushes, random }, hit);
    if (section)
      fill(
        end,
        end - start,
        last,
        brushes,
        feel === 'funk' || feel === 'straight' || feel === 'bossa' ? 0.5 : late,
        random,
        hit,
      );
    if (last && chorus < tune.choruses - 1) hit('crash', end, brushes ? 0.2 : 0.32);
  }
  return events;
}

/**
 * Beats before the bar line and drum; each stroke a little louder than the one before. Common practice, no
 * source.
 */
function fill(
  end: number,
  beats: number,
  large: boolean,
  brushes: boolean,
  late: number,
  random: Random,
  hit: DrumHit,
): void {
  const snare: Drum = brushes ? 'brush-tap' : 'snare';
  const small: readonly (readonly [number, Drum])[][] = [
    [
      [-1, snare],
      [late - 1, snare],
    ],
    [
      [late - 2, snare],
      [-1, snare],
      [late - 1, snare],
    ],
    [[late - 1, snare]],
  ];
  const big: readonly (readonly [number, Drum])[][] = [
    [
      [-2, snare],
      [late - 2, snare],
      [-1, 'tom-high'],
      [late - 1, 'tom-low'],
    ],
    [
      [late - 2, 'tom-high'],
      [-1, 'tom-high'],
      [late - 1, 'tom-low'],
    ],
    [
      [-2, snare],
      [late - 2, 'tom-high'],
      [-1, snare],
      [late - 1, 'tom-low'],
    ],
  ];
  pick(random, large && !brushes ? big : small).forEach(([at, drum], index) => {
    if (-at <= beats) hit(drum, end + at, 0.32 + 0.08 * index);
  });
}
