import { present } from '../shared';

/** Divisions of a quarter note: every written place and length is a whole number of them. */
export const DIVISIONS = 48;

export type HeadType = 'whole' | 'half' | 'quarter' | 'eighth' | '16th' | '32nd' | '64th' | '128th';

/** A length that one note head can say. */
export type Head = {
  /** In divisions. */
  readonly size: number;
  readonly type: HeadType;
  readonly dots: number;
  /** Three stand where two would. */
  readonly triplet: boolean;
};

const head = (size: number, type: HeadType, dots: number, triplet: boolean): Head => ({
  size,
  type,
  dots,
  triplet,
});

/** From the longest down. */
export const HEADS: readonly Head[] = [
  head(192, 'whole', 0, false),
  head(144, 'half', 1, false),
  head(96, 'half', 0, false),
  head(72, 'quarter', 1, false),
  head(48, 'quarter', 0, false),
  head(36, 'eighth', 1, false),
  head(32, 'quarter', 0, true),
  head(24, 'eighth', 0, false),
  head(18, '16th', 1, false),
  head(16, 'eighth', 0, true),
  head(12, '16th', 0, false),
  head(8, '16th', 0, true),
  head(6, '32nd', 0, false),
  head(4, '32nd', 0, true),
  head(3, '64th', 0, false),
  head(2, '64th', 0, true),
  head(1, '128th', 0, true),
];

/** How a bar is counted: lengths of its beat and of itself, in divisions. */
export type Counting = { readonly beat: number; readonly bar: number };

/**
 * A length as the heads a reader expects: none hides a beat, but for a note on a beat, and for one on the offbeat
 * that sounds a beat long. Common practice (Gould, Behind Bars, “Grouping within the bar”), from memory.
 * @param from place in the bar, in divisions; @param length in divisions
 */
export function headsFor(from: number, length: number, { beat, bar }: Counting, isRest: boolean): Head[] {
  const heads: Head[] = [];
  for (let [at, left] = [from, length]; left > 0;) {
    const most = Math.min(left, roomAt(at, { beat, bar }, isRest, left));
    const next = present(HEADS.find((one) => one.size <= most && fits(one, at, beat, isRest)));
    heads.push(next);
    at += next.size;
    left -= next.size;
  }
  return heads;
}

/** How far a head at this place may reach. */
function roomAt(at: number, { beat, bar }: Counting, isRest: boolean, wanted: number): number {
  const [inBeat, middle] = [at % beat, bar % (2 * beat) === 0 ? bar / 2 : 0];
  const toMiddle = middle > 0 && at < middle ? middle - at : bar - at;
  if (inBeat === 0) {
    if (at === 0) return bar;
    return isRest ? Math.max(beat, at % (2 * beat) === 0 ? 2 * beat : beat) : Math.max(toMiddle, beat);
  }
  const toBeat = beat - inBeat;
  const isOffbeat = inBeat * 2 === beat && toMiddle > toBeat && wanted >= beat;
  return isOffbeat && !isRest ? beat : toBeat;
}

/** Dots belong to what begins on a beat or ends on one; a rest has none. */
function fits(one: Head, at: number, beat: number, isRest: boolean): boolean {
  if (one.dots === 0) return true;
  // in compound time the beat itself is dotted
  if (beat === 72) return one.size % beat === 0 && at % beat === 0;
  return !isRest && (at % beat === 0 || (at + one.size) % beat === 0);
}
