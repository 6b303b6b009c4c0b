import { present } from '../shared';

/**
 * Where the hand lies and which finger serves which fret.
 * Rule T15.1: a location is five frets, six where its lowest fretted note is at fret 7 or above; open
 * strings belong to
 * every one; in it a lower fret never takes a higher finger, and one finger serves frets at most one apart.
 */
export type Location = {
  /** Lowest fret of the location. */
  readonly from: number;
  /** The frets each finger serves, index (1) to little (4): first and last, null where it serves none. */
  readonly fingers: readonly (readonly [number, number] | null)[];
};

/** Frets that a location covers from its lowest one. */
export const reachFrom = (lowest: number): number => (lowest >= 7 ? 6 : 5);

/** Does a finger (1–4; 0 is the open string) serve a fret here? */
export function serves({ fingers }: Location, fret: number, finger: number): boolean {
  if (fret === 0 || finger === 0) return fret === 0 && finger === 0;
  const span = fingers[finger - 1];
  return span != null && fret >= span[0] && fret <= span[1];
}

/** The lowest finger that serves a fret; 0 for an open string, null where none does. */
export function fingerAt(location: Location, fret: number): number | null {
  if (fret === 0) return 0;
  for (let finger = 1; finger <= 4; finger++) if (serves(location, fret, finger)) return finger;
  return null;
}

const laid = (from: number, offsets: readonly (readonly [number, number] | null)[]): Location => ({
  from,
  fingers: offsets.map((span) => (span ? ([from + span[0], from + span[1]] as const) : null)),
});

/**
 * A finger a fret, the fifth (and sixth) reached by the little finger or by the index: what a hand does
 * unasked.
 */
const EASY: Record<5 | 6, readonly (readonly (readonly [number, number])[])[]> = {
  5: [
    [
      [0, 0],
      [1, 1],
      [2, 2],
      [3, 4],
    ],
    [
      [0, 1],
      [2, 2],
      [3, 3],
      [4, 4],
    ],
  ],
  6: [
    [
      [0, 1],
      [2, 2],
      [3, 3],
      [4, 5],
    ],
    [
      [0, 0],
      [1, 1],
      [2, 2],
      [3, 4],
    ],
    [
      [0, 1],
      [2, 2],
      [3, 3],
      [4, 4],
    ],
  ],
};
/** Four frets, a finger each: the hand that would rather move than stretch. */
const CLOSE = [
  [
    [0, 0],
    [1, 1],
    [2, 2],
    [3, 3],
  ],
] as const;

/** Every location a line may need on a neck, each with the layouts a hand takes by itself. */
export function easyLocations(frets: number, stretch: boolean): Location[] {
  return fretsFrom(frets).flatMap((from) =>
    (stretch ? EASY[reachFrom(from) as 5 | 6] : CLOSE).map((offsets) => laid(from, offsets)),
  );
}

/** Every location with every layout of fingers the rule allows: for lines whose fingers are given. */
export function allLocations(frets: number): Location[] {
  return fretsFrom(frets).flatMap((from) => layouts(reachFrom(from)).map((offsets) => laid(from, offsets)));
}

const fretsFrom = (frets: number): number[] => Array.from({ length: frets }, (_, index) => index + 1);

type Layout = readonly (readonly [number, number] | null)[];
const made = new Map<number, readonly Layout[]>();

/** Layouts that no other contains: the spans of successive fingers may share a fret but never cross. */
function layouts(width: number): readonly Layout[] {
  const known = made.get(width);
  if (known) return known;
  const all: Layout[] = [];
  const extend = (layout: Layout, from: number): void => {
    if (layout.length === 4) return void all.push(layout);
    extend([...layout, null], from);
    for (let start = from; start < width; start++)
      for (const end of [start, start + 1]) if (end < width) extend([...layout, [start, end]], end);
  };
  extend([], 0);
  const inside = (small: Layout, large: Layout) =>
    small.every(
      (span, finger) =>
        span === null ||
        (large[finger] != null &&
          span[0] >= present(large[finger])[0] &&
          span[1] <= present(large[finger])[1]),
    );
  const widest = all.filter(
    (one) => !all.some((other) => other !== one && inside(one, other) && !inside(other, one)),
  );
  made.set(width, widest);
  return widest;
}
