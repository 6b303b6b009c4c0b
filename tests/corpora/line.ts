/** How a note is set sounding. */
export type Attack = 'pick' | 'hammer' | 'pull' | 'slide' | 'ghost';

/** A note to be rendered, on one string. Times in seconds from the start of the take; `midi` is where it is fretted. */
export type StringNote = {
  readonly at: number;
  /** Where the string is stopped or damped. */
  readonly until: number;
  readonly midi: number;
  readonly gain: number;
  readonly attack: Attack;
  /** [seconds from `at`, cents over `midi`], straight between points, held after the last: bends, slides, vibrato. */
  readonly curve?: readonly (readonly [number, number])[];
};

/** The truth about a note that is heard as one: what a careful ear would write down. */
export type TrueNote = {
  readonly onset: number;
  readonly offset: number;
  /** MIDI number with its fraction: where it settles. */
  readonly pitch: number;
  readonly bend?: { readonly cents: number };
  readonly slide?: { readonly fromMidi: number };
  readonly vibrato?: { readonly hz: number; readonly cents: number };
  readonly attack?: Attack;
};

/** What is rendered, and what is true of it. Ghost strokes are rendered and are no notes. */
export type Line = {
  readonly strings: readonly StringNote[];
  readonly truth: readonly TrueNote[];
  readonly seconds: number;
  readonly ghosts: readonly number[];
};

/** A take with its labels. */
export type LabelledTake = Line & {
  readonly detune?: number;
  readonly samples: Float32Array;
  readonly rate: number;
  readonly backing?: Float32Array;
};

/** Where a curve stands, in cents. */
export function centsAt(curve: StringNote['curve'], seconds: number): number {
  if (!curve || curve.length === 0) return 0;
  let index = 0;
  while (index < curve.length && curve[index]![0] <= seconds) index++;
  if (index === 0) return curve[0]![1];
  if (index === curve.length) return curve[index - 1]![1];
  const [[t0, c0], [t1, c1]] = [curve[index - 1]!, curve[index]!];
  return c0 + ((c1 - c0) * (seconds - t0)) / (t1 - t0);
}
