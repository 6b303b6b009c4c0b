import type { Report } from '../analyse';
import {
  pathOf,
  placesSounding,
  STANDARD_INSTRUMENT,
  type Instrument,
  type NeckPath,
  type Touch,
} from '../neck';
import { elementAt, type Midi } from '../shared';

/**
 * Where a line probably lay. Notes by string (from the highest, 1) and by position (the fret under the index
 * finger; 0 is open).
 */
export type OnTheNeck = {
  readonly strings: readonly number[];
  readonly positions: Readonly<Record<number, number>>;
  readonly shifts: number;
  readonly outOfReach: number;
};

/** A hand does not plan farther than this: longer phrases are fingered piece by piece. */
const AHEAD = 64;

/** A take's fingering, found piece by piece as it is asked for: a long take is a second's work. */
export type Fingering = {
  /** The likeliest place of a note of the report; null where no string reaches it, or it is in no phrase. */
  readonly touchAt: (index: number) => Touch | null;
  /** How often the hand moves in the whole take. */
  readonly shifts: () => number;
};

/**
 * Where the notes of a take probably lay: each phrase by its most probable fingering, the hand free to move in the
 * rests; where the player has said a place, there, as far as it can be reached.
 * @param frettedAt where a note is fretted, if not at the pitch it is judged by: a bent string lies lower
 */
export function fingeringOf(
  report: Report,
  instrument: Instrument = STANDARD_INSTRUMENT,
  frettedAt: (index: number) => Midi = (index) => Math.round(elementAt(report.notes, index).midi),
): Fingering {
  const pieces = report.phrases.flatMap(({ noteIndices }) => {
    const reached = noteIndices.filter((index) => placesSounding(frettedAt(index), instrument).length > 0);
    return Array.from({ length: Math.ceil(reached.length / AHEAD) }, (_, piece) =>
      reached.slice(piece * AHEAD, (piece + 1) * AHEAD),
    );
  });
  const placeOf = new Map(
    pieces.flatMap((piece, at) => piece.map((index, within) => [index, [at, within] as const])),
  );
  const found = new Map<number, NeckPath | null>();
  const solved = (at: number): NeckPath | null => {
    const known = found.get(at);
    if (known !== undefined) return known;
    const path = pathOf(
      elementAt(pieces, at).map((index) => {
        const { onsetBeat, durationBeats, position, slur } = elementAt(report.notes, index);
        return { onsetBeat, durationBeats, midi: frettedAt(index), position, slurred: slur !== undefined };
      }),
      { instrument },
    );
    found.set(at, path.ok ? path.value : null);
    return path.ok ? path.value : null;
  };
  return {
    touchAt: (index) => {
      const place = placeOf.get(index);
      return place ? (solved(place[0])?.path[place[1]] ?? null) : null;
    },
    shifts: () => pieces.reduce((sum, _, at) => sum + (solved(at)?.shifts ?? 0), 0),
  };
}

/** How much of a take's places the player has said: all of them, some, or none. */
export function placesSaid({ notes }: Pick<Report, 'notes'>): 'all' | 'some' | 'none' {
  const said = notes.filter(({ position }) => position !== undefined).length;
  if (said === 0) return 'none';
  return said === notes.length ? 'all' : 'some';
}

/** The fingering of a whole take at once: a place for each note of the report, and how often the hand moves. */
export function fingeredTake(...given: Parameters<typeof fingeringOf>): {
  readonly touches: readonly (Touch | null)[];
  readonly shifts: number;
} {
  const { touchAt, shifts } = fingeringOf(...given);
  return { touches: given[0].notes.map((_, index) => touchAt(index)), shifts: shifts() };
}

/**
 * Strings and positions of a take.
 * Rule T9.3: range; strings and positions. A transcription has no strings: each phrase is laid by the most
 * probable fingering, the hand free to move in the rests, and where the player says it was played.
 */
export function onTheNeck(report: Report, instrument: Instrument = STANDARD_INSTRUMENT): OnTheNeck {
  const strings = instrument.tuning.map(() => 0);
  const positions: Record<number, number> = {};
  const { touches, shifts } = fingeredTake(report, instrument);
  let outOfReach = 0;
  for (const { noteIndices } of report.phrases)
    for (const index of noteIndices) {
      const touch = touches[index];
      if (!touch) {
        outOfReach++;
        continue;
      }
      strings[touch.string - 1]!++;
      const position = touch.fret === 0 ? 0 : Math.max(1, touch.fret - touch.finger + 1);
      positions[position] = (positions[position] ?? 0) + 1;
    }
  return { strings, positions, shifts, outOfReach };
}
