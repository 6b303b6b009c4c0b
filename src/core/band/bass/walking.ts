import { pick, pitchClassOf, type Beats, type Midi, type Random } from '../../shared';
import type { Chord } from '../../music';
import type { WalkStop } from '../walk';
import { bassOf, fifthOf, inRange, nearest, neighbour, tonesOf, type BassNote } from './bassNote';

/** A skip before the beat, here and there: the same tone struck short on the off-beat. */
const SKIP = 0.12;

/**
 * Four (or three, or five) in a bar: root on the change, chord tones on strong beats, scale between, and
 * into the next root by a half
 * step or its fifth. The last chord of the form walks home to bar 1.
 * @param strong is this beat one of the bar's strong ones?
 */
export function walking(
  { chord, next, start, end, scale }: WalkStop,
  hand: Midi,
  random: Random,
  strong: (beat: Beats) => boolean,
  late: number,
): BassNote[] {
  const count = Math.max(1, Math.round(end - start));
  const notes: BassNote[] = [];
  let at = nearest(bassOf(chord), hand);
  const goal = next ? nearest(bassOf(next), at) : at;
  for (let step = 0; step < count; step++) {
    const beat = start + step;
    if (step > 0 && step === count - 1 && !strong(beat)) at = approachTo(goal, at, chord, random);
    else if (step > 0) at = between(at, goal, strong(beat) ? tonesOf(chord) : scale, random);
    const skips = step < count - 1 && random() < SKIP;
    notes.push({
      beat,
      beats: Math.min(skips ? late - 0.06 : 0.94, end - beat),
      midi: at,
      loudness: step % 2 ? 0.78 : 0.86,
    });
    if (skips) notes.push({ beat: beat + late, beats: 0.24, midi: at, loudness: 0.5 });
  }
  return notes;
}

/** Half notes: root and fifth, with an approach before the next root now and then. For ballads. */
export function twoFeel(
  { chord, next, start, end }: WalkStop,
  hand: Midi,
  random: Random,
  strong: (beat: Beats) => boolean,
  late: number,
): BassNote[] {
  const notes: BassNote[] = [];
  const root = nearest(bassOf(chord), hand);
  let at = root;
  for (let beat = start; beat < end - 1e-6; beat += 2) {
    if (beat > start)
      at = neighbour(
        at,
        random() < 0.5 ? at + 7 : at - 5,
        strong(beat) ? [fifthOf(chord), bassOf(chord)] : tonesOf(chord),
      );
    const length = Math.min(1.9, end - beat);
    const leads = next !== null && beat + 2 >= end - 1e-6 && end - beat > 1.5 && random() < 0.5;
    notes.push({ beat, beats: leads ? end - beat - 1 + late - 0.1 : length, midi: at, loudness: 0.76 });
    if (leads)
      notes.push({
        beat: end - 1 + late,
        beats: 1 - late,
        midi: approachTo(nearest(bassOf(next), at), at, chord, random),
        loudness: 0.6,
      });
  }
  return notes;
}

/** A half step from the goal, or the fifth of the chord it leaves. */
export function approachTo(goal: Midi, from: Midi, chord: Chord, random: Random): Midi {
  const choices = [goal - 1, goal + 1, nearest(fifthOf(chord), from), from > goal ? goal + 2 : goal - 2];
  const fit = choices.filter(
    (midi) => inRange(midi) && midi !== from && pitchClassOf(midi) !== pitchClassOf(goal),
  );
  return fit.length > 0 ? pick(random, fit.slice(0, 3)) : from;
}

/** A tone of the material a step or skip on, leaning towards the goal. */
function between(from: Midi, goal: Midi, material: readonly number[], random: Random): Midi {
  const towards = Math.sign(goal - from) || (random() < 0.5 ? 1 : -1);
  for (const way of [towards, -towards])
    for (let distance = 2 + Math.floor(random() * 2); distance <= 5; distance++) {
      const midi = from + way * distance;
      if (inRange(midi) && material.includes(pitchClassOf(midi))) return midi;
    }
  return neighbour(from, goal, material);
}
