import { modulo, type Midi, type Random, elementAt } from '../../shared';
import { pitchClass } from '../../music';
import type { WalkStop } from '../walk';
import { bassOf, fifthOf, folded, nearest, thirdOf, type BassNote } from './bassNote';
import { approachTo } from './walking';

/**
 * Beat in the chord, length, and which tone: root, fifth, octave, or the approach to what follows. Common
 * practice, no source.
 */
type PatternPlace = readonly [
  beat: number,
  beats: number,
  tone: 'root' | 'fifth' | 'octave' | 'lead',
  loudness: number,
];

const STRAIGHT: readonly PatternPlace[] = [
  [0, 1.4, 'root', 0.85],
  [1.5, 0.45, 'root', 0.66],
  [2, 1.4, 'fifth', 0.8],
  [3.5, 0.45, 'lead', 0.62],
];
const BOSSA: readonly PatternPlace[] = [
  [0, 1.4, 'root', 0.82],
  [1.5, 0.5, 'fifth', 0.64],
  [2, 1.4, 'fifth', 0.78],
  [3.5, 0.5, 'root', 0.6],
];
const FUNK: readonly (readonly PatternPlace[])[] = [
  [
    [0, 0.4, 'root', 0.92],
    [0.75, 0.2, 'root', 0.6],
    [1.5, 0.3, 'octave', 0.74],
    [2.25, 0.2, 'root', 0.62],
    [2.5, 0.4, 'fifth', 0.76],
    [3.5, 0.2, 'octave', 0.7],
    [3.75, 0.2, 'lead', 0.62],
  ],
  [
    [0, 0.7, 'root', 0.92],
    [1.25, 0.2, 'octave', 0.66],
    [1.75, 0.2, 'root', 0.62],
    [2.75, 0.2, 'fifth', 0.68],
    [3, 0.3, 'octave', 0.74],
    [3.5, 0.4, 'lead', 0.66],
  ],
  [
    [0, 0.4, 'root', 0.92],
    [0.5, 0.2, 'root', 0.58],
    [1.75, 0.6, 'fifth', 0.74],
    [2.5, 0.2, 'octave', 0.66],
    [3.25, 0.2, 'root', 0.6],
    [3.75, 0.2, 'lead', 0.64],
  ],
];

/** One pattern laid on a chord bar by bar; a chord shorter than the pattern has its beginning. */
function laid(
  { chord, next, start, end }: WalkStop,
  hand: Midi,
  random: Random,
  patternOf: () => readonly PatternPlace[],
): BassNote[] {
  const root = nearest(bassOf(chord), hand > 43 ? hand - 7 : hand);
  const fifth = folded(root + modulo(fifthOf(chord) - root, 12) - (random() < 0.4 ? 12 : 0));
  const goal = next ? nearest(bassOf(next), root) : root;
  const tones = { root, fifth, octave: folded(root + 12) };
  const notes: BassNote[] = [];
  for (let bar = start; bar < end - 1e-6; bar += 4)
    for (const [beat, beats, tone, loudness] of patternOf()) {
      const at = bar + beat;
      if (at >= end - 0.2) continue;
      const last = bar + 4 >= end - 1e-6 && end - at <= 0.55;
      let midi: number;
      if (tone === 'lead') {
        if (last && next) midi = approachTo(goal, root, chord, random);
        else midi = fifth;
      } else midi = tones[tone];
      notes.push({ beat: at, beats: Math.min(beats, end - at), midi, loudness });
    }
  return notes;
}

export const straightBass = (stop: WalkStop, hand: Midi, random: Random): BassNote[] =>
  laid(stop, hand, random, () => STRAIGHT);
export const bossaBass = (stop: WalkStop, hand: Midi, random: Random): BassNote[] =>
  laid(stop, hand, random, () => BOSSA);
export const funkBass = (stop: WalkStop, hand: Midi, random: Random): BassNote[] =>
  laid(stop, hand, random, () => elementAt(FUNK, Math.floor(random() * FUNK.length)));

/**
 * Root, third, fifth, sixth and back in shuffled eighths now and then: the left hand of a blues. The last beat
 * leads on. Common practice, no source.
 */
export function boogie(
  { chord, next, start, end, scale }: WalkStop,
  hand: Midi,
  random: Random,
  late: number,
): BassNote[] {
  const root = nearest(bassOf(chord), hand > 43 ? hand - 7 : hand);
  const sixth = [9, 8, 10].find((up) => scale.includes(modulo(pitchClass(chord.root) + up, 12))) ?? 7;
  const climb = [0, modulo(thirdOf(chord) - root, 12), modulo(fifthOf(chord) - root, 12), sixth];
  const beats = Math.max(1, Math.round(end - start));
  const down = random() < 0.35;
  const notes: BassNote[] = [];
  for (let step = 0; step < beats; step++) {
    const leads =
      step > 0 &&
      step === beats - 1 &&
      step % 2 === 1 &&
      next !== null &&
      bassOf(next) !== bassOf(chord) &&
      random() < 0.6;
    const place = down && step % 4 > 0 ? 4 - (step % 4) : step % 4;
    const midi = leads
      ? approachTo(nearest(bassOf(next), root), root, chord, random)
      : folded(root + elementAt(climb, place));
    notes.push({ beat: start + step, beats: 0.6, midi, loudness: 0.84 });
    if (random() < 0.3) notes.push({ beat: start + step + late, beats: 0.25, midi, loudness: 0.55 });
  }
  return notes;
}
