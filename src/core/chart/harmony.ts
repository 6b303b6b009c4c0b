import { modulo, elementAt, present } from '../shared';
import { isDominant, pitchClass, rootPc, sameKey, scaleOn, type Chord, type Key, type Scale } from '../music';
import { bracketsOf, type Bracket } from './brackets';
import type { Chart } from './chart';
import type { FormCharacter, HarmonicReadingContext } from './context';
import type { Override } from './override';
import { readingOf, type ChordReading } from './reading';
import { keyRegions, type Region } from './regions';
import type { ChordSpan, Timeline } from './timeline';

/** The form read as harmony. `readings[i]` belongs to stretch i; null where N.C. stands. */
export type Harmony = {
  readonly readings: readonly (ChordReading | null)[];
  readonly homeScales: readonly Scale[];
  readonly character: FormCharacter;
  readonly regions: readonly Region[];
  readonly brackets: readonly Bracket[];
};

/**
 * Reads every chord of the form in its key: degree and chord-scale, and the home scale that stands beside it.
 */
export function harmonyOf(chart: Chart, timeline: Timeline): Harmony {
  const { chordSpans: chordSpans } = timeline;
  const sections = chordSpans.map(({ bar }) => elementAt(timeline.bars, bar).section);
  const regions = keyRegions(chordSpans, sections);
  const keys = regions.flatMap(({ key, from, to }) => Array<Key>(to - from).fill(key));
  const character = characterOf(
    chart,
    chordSpans,
    chart.key ?? keys[0] ?? { tonic: { letter: 'C', alter: 0 }, minor: false },
  );
  const readings = chordSpans.map((span, index) => {
    if (!span.chord) return null;
    const key = elementAt(keys, index);
    const context: HarmonicReadingContext = {
      chord: span.chord,
      key,
      next: nextRoot(chordSpans, index),
      character,
      region: chordsIn(chordSpans, keys, key),
    };
    return readingOf(context, overrideAt(chart.overrides, chordSpans, index));
  });
  return {
    readings,
    homeScales: keys.map((key) => homeScaleOf(key, character)),
    character,
    regions,
    brackets: bracketsOf(chordSpans, readings, sections),
  };
}

function overrideAt(
  overrides: readonly Override[],
  chordSpans: readonly ChordSpan[],
  index: number,
): Override | null {
  if (overrides.length === 0) return null;
  const { bar } = elementAt(chordSpans, index);
  const nth = index - chordSpans.findIndex((one) => one.bar === bar) + 1;
  return overrides.findLast((one) => one.bar === bar + 1 && one.nth === nth) ?? null;
}

function nextRoot(chordSpans: readonly ChordSpan[], index: number): Chord {
  const own = present(elementAt(chordSpans, index).chord);
  for (let step = 1; step < chordSpans.length; step++) {
    const chord = elementAt(chordSpans, (index + step) % chordSpans.length).chord;
    if (chord && rootPc(chord) !== rootPc(own)) return chord;
  }
  return own;
}

const chordsIn = (chordSpans: readonly ChordSpan[], keys: readonly Key[], key: Key): Chord[] =>
  chordSpans.flatMap(({ chord }, index) => (chord && sameKey(elementAt(keys, index), key) ? [chord] : []));

function characterOf(chart: Chart, chordSpans: readonly ChordSpan[], key: Key): FormCharacter {
  const chords = chordSpans.flatMap(({ chord }) => (chord ? [chord] : []));
  const on = (semitones: number) =>
    chords.filter((chord) => rootPc(chord) === modulo(pitchClass(key.tonic) + semitones, 12));
  const vamp = new Set(chords.map(rootPc)).size === 1;
  const dominantVamp = vamp && chords.every(isDominant);
  const [ones, fours] = [on(0), on(5)];
  const dominantThroughout = (all: Chord[]) =>
    all.length > 0 && all.every((chord) => chord.quality === 'dominant');
  const byFeel = /\bblues\b/.test(chart.feel ?? '');
  const blues = byFeel || (!key.minor && dominantThroughout(ones) && dominantThroughout(fours));
  return { blues, minorBlues: byFeel && key.minor, dominantVamp, vamp };
}

/** The default home scale of a region (T3.1). */
export function homeScaleOf(key: Key, character: FormCharacter): Scale {
  if (character.blues || character.dominantVamp) return scaleOn(key.tonic, 'blues');
  return scaleOn(key.tonic, key.minor ? 'natural minor' : 'major');
}
