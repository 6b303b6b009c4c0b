import { modulo, present, defined } from '../shared';
import {
  hasTone,
  isDominant,
  isMinorish,
  pitchClass,
  rootPc,
  sameKey,
  scaleOn,
  toneByRole,
  type Chord,
  type Key,
  type Scale,
} from '../music';
import { bracketsOf, type Bracket } from './brackets';
import type { Chart } from './chart';
import type { FormCharacter, HarmonicReadingContext } from './context';
import type { Override } from './override';
import { readChart } from './readChart';
import { readingOf, type ChordReading } from './reading';
import { keyRegions, type Region } from './regions';
import { timelineOf, type ChordSpan, type Timeline } from './timeline';

/** The form read as harmony. `readings[i]` belongs to stretch i; null where N.C. stands. */
export type Harmony = {
  readonly readings: readonly (ChordReading | null)[];
  readonly homeScales: readonly Scale[];
  readonly character: FormCharacter;
  readonly regions: readonly Region[];
  readonly brackets: readonly Bracket[];
};

/** What a player's plan says of the harmony, beside the chart. */
export type HarmonyChoice = {
  /** The home scale in place of the chart's and the key's. */
  readonly home?: Scale | undefined;
  /** The tonic is meant as Lydian. */
  readonly isLydian?: boolean;
};

/**
 * Reads every chord of the form in its key: degree and chord-scale, and the home scale that stands beside it:
 * the player's, else the section's or chart's, else the key's default.
 */
export function harmonyOf(chart: Chart, timeline: Timeline, choice: HarmonyChoice = {}): Harmony {
  const { chordSpans } = timeline;
  const { sections, regions, keys, character, chordsInKey } = keysOf(chart, timeline);
  const lydianKeys = new Set(
    chordSpans.flatMap(({ chord }, index) => {
      const key = defined(keys[index]);
      const said = overrideAt(chart.overrides, chordSpans, index);
      return chord && rootPc(chord) === pitchClass(key.tonic) && said?.scale === 'lydian' ? [key] : [];
    }),
  );
  const readings = chordSpans.map((span, index) => {
    if (!span.chord) return null;
    const key = defined(keys[index]);
    const context: HarmonicReadingContext = {
      chord: span.chord,
      key,
      next: neighbour(chordSpans, index, 1),
      before: neighbour(chordSpans, index, -1),
      character,
      region: present(chordsInKey.get(key)),
      isLydian: choice.isLydian === true || meansLydian(choice.home ?? span.home, key) || lydianKeys.has(key),
    };
    return readingOf(context, overrideAt(chart.overrides, chordSpans, index));
  });
  const homes = new Map(regions.map(({ key }) => [key, homeScaleOf(key, character, chordsInKey.get(key))]));
  return {
    readings,
    homeScales: keys.map(
      (key, index) => choice.home ?? defined(chordSpans[index]).home ?? present(homes.get(key)),
    ),
    character,
    regions,
    brackets: bracketsOf(chordSpans, readings, sections),
  };
}

type FormKeys = ReturnType<typeof findKeys>;
const keysFound = new WeakMap<Timeline, FormKeys>();

/** What no choice of a home scale changes is kept with the form. */
function keysOf(chart: Chart, timeline: Timeline): FormKeys {
  let found = keysFound.get(timeline);
  if (!found) keysFound.set(timeline, (found = findKeys(chart, timeline)));
  return found;
}

function findKeys(chart: Chart, { bars, chordSpans }: Timeline) {
  const sections = chordSpans.map(({ bar }) => defined(bars[bar]).section);
  const regions = keyRegions(chordSpans, sections);
  const keys = regions.flatMap(({ key, from, to }) => Array<Key>(to - from).fill(key));
  const character = characterOf(
    chart,
    chordSpans,
    chart.key ?? keys[0] ?? { tonic: { letter: 'C', alter: 0 }, minor: false },
  );
  const chordsInKey = new Map(regions.map(({ key }) => [key, chordsIn(chordSpans, keys, key)]));
  return { sections, regions, keys, character, chordsInKey };
}

function overrideAt(
  overrides: readonly Override[],
  chordSpans: readonly ChordSpan[],
  index: number,
): Override | null {
  if (overrides.length === 0) return null;
  const { bar } = defined(chordSpans[index]);
  const nth = index - chordSpans.findIndex((one) => one.bar === bar) + 1;
  return overrides.findLast((one) => one.bar === bar + 1 && one.nth === nth) ?? null;
}

/** The nearest chord with another root, forwards or back; N.C. skipped, the form a loop. */
function neighbour(chordSpans: readonly ChordSpan[], index: number, way: 1 | -1): Chord {
  const own = present(defined(chordSpans[index]).chord);
  for (let step = 1; step < chordSpans.length; step++) {
    const { chord } = defined(chordSpans[modulo(index + way * step, chordSpans.length)]);
    if (chord && rootPc(chord) !== rootPc(own)) return chord;
  }
  return own;
}

const meansLydian = (home: Scale | null, key: Key): boolean =>
  home?.kind === 'lydian' && pitchClass(home.root) === pitchClass(key.tonic);

const chordsIn = (chordSpans: readonly ChordSpan[], keys: readonly Key[], key: Key): Chord[] =>
  chordSpans.flatMap(({ chord }, index) => (chord && sameKey(defined(keys[index]), key) ? [chord] : []));

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
  const minorTwelve = key.minor && isTwelveBar(chart, key, isMinorish);
  const triadTwelve = !key.minor && isTwelveBar(chart, key, isPlainMajor) && standsOnThree(chords, key);
  const sevenths = !key.minor && dominantThroughout(ones) && dominantThroughout(fours);
  const blues = key.mode === undefined && (byFeel || sevenths || minorTwelve || triadTwelve);
  return { blues, minorBlues: blues && key.minor, dominantVamp, vamp };
}

const isPlainMajor = (chord: Chord): boolean => chord.quality === 'major' && !toneByRole(chord, 'seventh');

/** Twelve bars that begin on the tonic and go to the fourth degree in the fifth bar, of one kind (T3.11). */
function isTwelveBar({ bars }: Chart, key: Key, isKind: (chord: Chord) => boolean): boolean {
  const first = bars[0]?.cells[0]?.chord;
  const fifth = bars[4]?.cells[0]?.chord;
  if (bars.length !== 12 || !first || !fifth) return false;
  const onStep = (chord: Chord, step: number) => rootPc(chord) === modulo(pitchClass(key.tonic) + step, 12);
  return onStep(first, 0) && onStep(fifth, 5) && isKind(first) && isKind(fifth);
}

/** Only I, IV and V, each a triad or a dominant seventh. */
const standsOnThree = (chords: readonly Chord[], key: Key): boolean =>
  chords.every(
    (chord) =>
      [0, 5, 7].includes(modulo(rootPc(chord) - pitchClass(key.tonic), 12)) &&
      (isPlainMajor(chord) || chord.quality === 'dominant'),
  );

/** The home scale a chart begins in: its own, else its key's; none where its text cannot be read. */
export function homeNameOf(chartText: string): string {
  const read = readChart(chartText);
  return read.ok ? homeOf(read.value).name : '';
}

/** The home scale a chart begins in: its own, else its key's. */
export const homeOf = (chart: Chart): Scale =>
  defined(harmonyOf(chart, timelineOf(chart, 120)).homeScales[0]);

/** The default home scale of a region (T3.1, T3.11). */
export function homeScaleOf(key: Key, character: FormCharacter, region: readonly Chord[] = []): Scale {
  if (key.mode !== undefined) return scaleOn(key.tonic, key.mode);
  if (character.blues || character.dominantVamp) return scaleOn(key.tonic, 'blues');
  const steps = new Set(region.map((chord) => modulo(rootPc(chord) - pitchClass(key.tonic), 12)));
  const hasMajorThirds = region.every((chord) => toneByRole(chord, 'third')?.semitones === 4);
  const isMixolydian =
    hasMajorThirds && steps.has(0) && steps.has(10) && [...steps].every((step) => [0, 5, 10].includes(step));
  if (!key.minor) return scaleOn(key.tonic, isMixolydian ? 'mixolydian' : 'major');
  return scaleOn(key.tonic, isDorian(region, key) ? 'dorian' : 'natural minor');
}

/** A minor key with a major chord on its fourth degree, and none that holds the lowered sixth. */
function isDorian(region: readonly Chord[], key: Key): boolean {
  const tonic = pitchClass(key.tonic);
  const majorFour = region.some(
    (chord) => rootPc(chord) === modulo(tonic + 5, 12) && toneByRole(chord, 'third')?.semitones === 4,
  );
  return majorFour && !region.some((chord) => hasTone(chord, modulo(tonic + 8, 12)));
}
