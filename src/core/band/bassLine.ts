import { modulo, pick, pitchClassOf, type Midi, type Random } from '../vocabulary';
import { pitchClass, toneByRole, type Chord } from '../music';
import type { BandEvent } from './events';
import { offBeat, type BandFeel } from './feel';
import { stopsOf, type Stop, type Tune } from './walk';

/** Open E to the octave over the open A: where a bass line lives. */
const LOWEST: Midi = 28;
const HIGHEST: Midi = 50;

/** A bass line: walking where the band swings, roots and fifths where it plays straight, a boogie figure in a shuffle. */
export function bassLine(tune: Tune, feel: BandFeel, random: Random): BandEvent[] {
  let hand: Midi = 36;
  return stopsOf(tune).flatMap((stop) => {
    const bar = feel === 'straight' ? rootsAndFifths(stop, hand) : feel === 'shuffle' ? boogie(stop, hand, random) : walking(stop, hand, random);
    hand = bar[bar.length - 1]?.midi ?? hand;
    return bar.map((note) => ({ part: 'bass' as const, ...note }));
  });
}

type BassNote = { beat: number; beats: number; midi: Midi; loudness: number };

/** The pitch class nearest a pitch, inside the bass's range. */
function nearest(pc: number, to: Midi): Midi {
  const below = to - modulo(to - pc, 12);
  const best = to - below <= 6 ? below : below + 12;
  return best < LOWEST ? best + 12 : best > HIGHEST ? best - 12 : best;
}

const third = (chord: Chord) => toneByRole(chord, 'third', 'sus')?.pc ?? modulo(pitchClass(chord.root) + 7, 12);
const fifth = (chord: Chord) => toneByRole(chord, 'fifth')?.pc ?? modulo(pitchClass(chord.root) + 7, 12);

/** Root on the change, chord and scale tones between, a half step or fifth into the next root. */
function walking({ chord, next, start, end, scale }: Stop, hand: Midi, random: Random): BassNote[] {
  const count = Math.max(1, Math.round(end - start));
  const notes: BassNote[] = [];
  let at = nearest(pitchClass(chord.bass), hand);
  const goal = next ? nearest(pitchClass(next.bass), at) : at;
  for (let step = 0; step < count; step++) {
    const last = step === count - 1 && step > 0;
    if (last) at = approachTo(goal, at, chord, random);
    else if (step > 0) at = between(at, goal, step % 2 === 0 ? [...chord.tones.map((tone) => tone.pc)] : scale, random);
    notes.push({ beat: start + step, beats: Math.min(0.94, end - start - step), midi: at, loudness: step % 2 ? 0.78 : 0.86 });
  }
  return notes;
}

function approachTo(goal: Midi, from: Midi, chord: Chord, random: Random): Midi {
  const choices = [goal - 1, goal + 1, nearest(fifth(chord), from), from > goal ? goal + 2 : goal - 2];
  const fit = choices.filter((midi) => midi >= LOWEST && midi <= HIGHEST && midi !== from && midi !== goal);
  return fit.length > 0 ? pick(random, fit.slice(0, 3)) : from;
}

/** A tone from the material a step or skip on, leaning towards the goal. */
function between(from: Midi, goal: Midi, material: readonly number[], random: Random): Midi {
  const towards = Math.sign(goal - from) || (random() < 0.5 ? 1 : -1);
  for (const way of [towards, -towards])
    for (let distance = 2 + Math.floor(random() * 2); distance <= 5; distance++) {
      const midi = from + way * distance;
      if (midi >= LOWEST && midi <= HIGHEST && material.includes(pitchClassOf(midi))) return midi;
    }
  return from;
}

function rootsAndFifths({ chord, start, end }: Stop, hand: Midi): BassNote[] {
  const root = nearest(pitchClass(chord.bass), hand);
  const up = nearest(fifth(chord), root);
  const notes: BassNote[] = [];
  for (let beat = start; beat < end - 1e-6; beat += 2) {
    const first = Math.abs((beat - start) % 4) < 1e-6;
    notes.push({ beat, beats: Math.min(1.4, end - beat), midi: first ? root : up, loudness: 0.85 });
    if (beat + 1.5 < end - 1e-6) notes.push({ beat: beat + 1.5, beats: 0.45, midi: first ? root : up, loudness: 0.66 });
  }
  return notes;
}

/** Root, third, fifth, sixth and back in shuffled eighths now and then: the left hand of a blues (common practice, no source). */
function boogie({ chord, start, end }: Stop, hand: Midi, random: Random): BassNote[] {
  const root = nearest(pitchClass(chord.bass), hand);
  const climb = [0, modulo(third(chord) - root, 12), modulo(fifth(chord) - root, 12), 9];
  const late = offBeat('shuffle', 120);
  const notes: BassNote[] = [];
  const beats = Math.max(1, Math.round(end - start));
  const down = random() < 0.35;
  for (let step = 0; step < beats; step++) {
    const place = down && step > 0 ? climb.length - step : step;
    const midi = root + climb[modulo(place, 4)]!;
    notes.push({ beat: start + step, beats: 0.6, midi: midi > HIGHEST ? midi - 12 : midi, loudness: 0.84 });
    if (random() < 0.3) notes.push({ beat: start + step + late, beats: 0.25, midi: midi > HIGHEST ? midi - 12 : midi, loudness: 0.55 });
  }
  return notes;
}
