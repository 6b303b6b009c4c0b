import type { Report } from '../analyse';
import { pathOf, placesSounding, STANDARD_INSTRUMENT, type Instrument, type Touch } from '../neck';
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

/**
 * Where every note of a take probably lay: each phrase by its most probable fingering, the hand free to
 * move in the rests.
 * @param frettedAt where a note is fretted, if not at the pitch it is judged by: a bent string lies lower
 * @returns a place for each note of the report; null where no string reaches it, or it is in no phrase
 */
export function fingeredTake(
  report: Report,
  instrument: Instrument = STANDARD_INSTRUMENT,
  frettedAt: (index: number) => Midi = (index) => Math.round(elementAt(report.notes, index).midi),
): { readonly touches: readonly (Touch | null)[]; readonly shifts: number } {
  const touches: (Touch | null)[] = report.notes.map(() => null);
  let shifts = 0;
  for (const { noteIndices } of report.phrases) {
    const within = noteIndices.filter((index) => placesSounding(frettedAt(index), instrument).length > 0);
    for (let from = 0; from < within.length; from += AHEAD) {
      const part = within.slice(from, from + AHEAD);
      const found = pathOf(
        part.map((index) => {
          const { onsetBeat, durationBeats } = elementAt(report.notes, index);
          return { onsetBeat, durationBeats, midi: frettedAt(index) };
        }),
        { instrument },
      );
      if (!found.ok) continue;
      shifts += found.value.shifts;
      found.value.path.forEach((touch, place) => {
        touches[elementAt(part, place)] = touch;
      });
    }
  }
  return { touches, shifts };
}

/**
 * Strings and positions of a take.
 * Rule T9.3: range; strings and positions. A transcription has no strings: each phrase is laid by the most
 * probable fingering, the hand free to move in the rests.
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
