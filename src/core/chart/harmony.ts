import { modulo } from '../vocabulary';
import { isDominant, pitchClass, rootPc, scaleOn, type Chord, type Key, type Scale } from '../music';
import type { Chart } from './chart';
import { chordScale } from './chordScale';
import type { Character, Context } from './context';
import { findKey, type Weighed } from './findKey';
import { degreeOf } from './degree';
import type { Stretch, Timeline } from './timeline';

/** A written chord read in its key. */
export type Reading = {
  readonly chord: Chord;
  readonly key: Key;
  /** Roman numeral without quality: `ii`, `V/ii`, `subV`, `bVII`. */
  readonly degree: string;
  readonly scale: Scale;
};

/** The form read as harmony. `readings[i]` belongs to stretch i; null where N.C. stands. */
export type Harmony = {
  readonly readings: readonly (Reading | null)[];
  readonly homeScales: readonly Scale[];
  readonly character: Character;
};

/** Reads every chord of the form in its key: degree and chord-scale, and the home scale that stands beside it. */
export function harmonyOf(chart: Chart, timeline: Timeline): Harmony {
  const { stretches } = timeline;
  const found = findKey(weighed(stretches));
  const keys = stretches.map((stretch) => stretch.key ?? chart.key ?? found);
  const character = characterOf(chart, stretches, chart.key ?? found);
  const readings = stretches.map((stretch, index) => {
    if (!stretch.chord) return null;
    const key = keys[index]!;
    const context: Context = { chord: stretch.chord, key, next: nextRoot(stretches, index), character, region: regionOf(stretches, keys, key) };
    const degree = degreeOf(context);
    return { chord: stretch.chord, key, degree, scale: chordScale(context, degree) };
  });
  return { readings, homeScales: keys.map((key) => homeScaleOf(key, character)), character };
}

const weighed = (stretches: readonly Stretch[]): Weighed[] =>
  stretches.flatMap(({ chord, start, end }) => (chord ? [{ chord, beats: end - start }] : []));

function nextRoot(stretches: readonly Stretch[], index: number): Chord {
  const own = stretches[index]!.chord!;
  for (let step = 1; step < stretches.length; step++) {
    const chord = stretches[(index + step) % stretches.length]!.chord;
    if (chord && rootPc(chord) !== rootPc(own)) return chord;
  }
  return own;
}

const regionOf = (stretches: readonly Stretch[], keys: readonly Key[], key: Key): Chord[] =>
  stretches.flatMap(({ chord }, index) =>
    chord && pitchClass(keys[index]!.tonic) === pitchClass(key.tonic) && keys[index]!.minor === key.minor ? [chord] : []);

function characterOf(chart: Chart, stretches: readonly Stretch[], key: Key): Character {
  const chords = stretches.flatMap(({ chord }) => (chord ? [chord] : []));
  const on = (semitones: number) => chords.filter((chord) => rootPc(chord) === modulo(pitchClass(key.tonic) + semitones, 12));
  const vamp = new Set(chords.map(rootPc)).size === 1;
  const dominantVamp = vamp && chords.every(isDominant);
  const [ones, fours] = [on(0), on(5)];
  const dominantThroughout = (all: Chord[]) => all.length > 0 && all.every((chord) => chord.quality === 'dominant');
  const byFeel = /\bblues\b/.test(chart.feel ?? '');
  const blues = byFeel || (!key.minor && dominantThroughout(ones) && dominantThroughout(fours));
  return { blues, minorBlues: byFeel && key.minor, dominantVamp, vamp };
}

/** The default home scale of a region (2-theory, "Scales"). */
export function homeScaleOf(key: Key, character: Character): Scale {
  if (character.blues || character.dominantVamp) return scaleOn(key.tonic, 'blues');
  return scaleOn(key.tonic, key.minor ? 'natural minor' : 'major');
}

/** Tell-tale tones: the chord tones that a home scale lacks. */
export const tellTaleTones = (chord: Chord, home: Scale) => chord.tones.filter((tone) => !home.pcs.includes(tone.pc));

