import type { Report } from '../analyse';
import { pathOf, placesSounding, STANDARD_INSTRUMENT, type Instrument } from '../neck';

/** Where a line probably lay. Notes by string (from the highest, 1) and by position (the fret under the index finger; 0 is open). */
export type OnTheNeck = { readonly strings: readonly number[]; readonly positions: Readonly<Record<number, number>>; readonly shifts: number; readonly outOfReach: number };

/** A hand does not plan farther than this: longer phrases are fingered piece by piece. */
const AHEAD = 64;

/**
 * Strings and positions of a take.
 * Rule: 2-theory, "Coverage": "range; strings and positions". A transcription has no strings: each phrase is laid by the most probable fingering, the hand free to move in the rests.
 */
export function onTheNeck(report: Report, instrument: Instrument = STANDARD_INSTRUMENT): OnTheNeck {
  const strings = instrument.tuning.map(() => 0);
  const positions: Record<number, number> = {};
  let [shifts, outOfReach] = [0, 0];
  for (const { noteIndices } of report.phrases) {
    const notes = noteIndices.map((index) => report.notes[index]!).map(({ onsetBeat, durationBeats, midi }) => ({ onsetBeat, durationBeats, midi: Math.round(midi) }));
    const within = notes.filter(({ midi }) => placesSounding(midi, instrument).length > 0);
    outOfReach += notes.length - within.length;
    for (let from = 0; from < within.length; from += AHEAD) {
      const found = pathOf(within.slice(from, from + AHEAD), { instrument });
      if (!found.ok) { outOfReach += Math.min(AHEAD, within.length - from); continue; }
      shifts += found.value.shifts;
      for (const { string, fret, finger } of found.value.path) {
        strings[string - 1]!++;
        const position = fret === 0 ? 0 : Math.max(1, fret - finger + 1);
        positions[position] = (positions[position] ?? 0) + 1;
      }
    }
  }
  return { strings, positions, shifts, outOfReach };
}
