import type Fraction from 'fraction.js';
import type { BeatsPerMinute } from '../shared';
import type { Chord, Key, Scale } from '../music';
import type { Override } from './override';

/** How the time is felt: decides the band's parts and, for `blues`, the home scale. */
export type Feel = string;

/** Beats a bar and what a beat is. 6/8 holds two dotted beats. */
export type Meter = { readonly upper: number; readonly lower: number };

/** A chord, or none (`N.C.`), over an exact stretch of its bar; beats from the bar's start. */
export type Cell = {
  readonly chord: Chord | null;
  readonly start: Fraction;
  readonly beats: Fraction;
  /** 1-based place in the text. */
  readonly line: number;
  readonly column: number;
};

/** One bar of the form as it is played, repeats written out. */
export type Bar = {
  readonly cells: readonly Cell[];
  readonly meter: Meter;
  readonly section: string | null;
  /** The region's key where the chart says so. */
  readonly key: Key | null;
  /** The home scale of its part, where the chart or its section names one. */
  readonly home: Scale | null;
  /** Written as `%`. */
  readonly repeats: boolean;
  readonly line: number;
  readonly column: number;
};

/** A bar as written, with the repeat signs around it. */
export type WrittenBar = Bar & {
  readonly opens: boolean;
  readonly closes: boolean;
  readonly ending: number | null;
};

/** A chart: the form that is played round and round, exactly as written. */
export type Chart = {
  readonly title: string;
  readonly key: Key | null;
  /** The player's home scale in place of the key's default. */
  readonly home: Scale | null;
  readonly meter: Meter;
  readonly tempo: BeatsPerMinute | null;
  readonly feel: Feel | null;
  /** Beats before bar 1 that the line is expected to begin. */
  readonly pickup: number;
  /** Bars as they are played, repeats written out. */
  readonly bars: readonly Bar[];
  /** Bars as they stand on the page, with the repeat signs around them. */
  readonly written: readonly WrittenBar[];
  /** The player's own readings of single chords. */
  readonly overrides: readonly Override[];
  readonly text: string;
};

/** T1.1: a beat is the meter's denominator unit, the dotted unit in 6/8, 9/8 and 12/8. */
/** A meter that can be written and counted. */
export const isMeter = ({ upper, lower }: Meter): boolean =>
  Number.isInteger(upper) && upper >= 1 && upper <= 99 && [1, 2, 4, 8, 16].includes(lower);

export const isCompound = (meter: Meter): boolean => meter.lower === 8 && [6, 9, 12].includes(meter.upper);

export const beatsPerBar = (meter: Meter): number => (isCompound(meter) ? meter.upper / 3 : meter.upper);

/** Strong beats by meter, counted from 0 (T1.2). */
export const strongBeats = ({ upper, lower }: Meter): readonly number[] =>
  STRONG_BEATS.find((meter) => meter.upper === upper && meter.lower === lower)?.beats ?? ONLY_THE_FIRST;

const ONLY_THE_FIRST = [0];
const STRONG_BEATS = [
  { upper: 4, lower: 4, beats: [0, 2] },
  { upper: 5, lower: 4, beats: [0, 3] },
  { upper: 12, lower: 8, beats: [0, 2] },
] as const;
