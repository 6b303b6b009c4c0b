import type { PlayedNote, Report } from '../analyse';
import { beatAt, steady, type Pace } from '../chart';
import type { BeatsPerMinute, Seconds } from '../vocabulary';
import type { CorrectedNote, NoteId } from './edits';

/** What sounds longer than this before bar 1 is tuning up, not a pickup. */
const EARLIEST = -8;

/** Corrected notes as the analysis takes them, in beats: ghosts and what lies before the count-in are no part of the line. */
export function playedFrom(notes: readonly CorrectedNote[], pace: BeatsPerMinute | Pace, offsetSec: Seconds): (PlayedNote & { readonly id: NoteId })[] {
  const walk = typeof pace === 'number' ? steady(pace) : pace;
  return notes.flatMap(({ onsetSec, offsetSec: end, ghost, edited: _edited, ...rest }) => {
    const onsetBeat = beatAt(walk, onsetSec - offsetSec);
    return ghost || onsetBeat < EARLIEST ? [] : [{ ...rest, onsetBeat, durationBeats: beatAt(walk, end - offsetSec) - onsetBeat }];
  });
}

/**
 * Which note each note of a report is, by its place in the report: one note heard may be two to the analysis, a slide between held
 * pitches, and one before the form none.
 */
export function reportPlaces(report: Report, played: readonly (PlayedNote & { readonly id: NoteId })[]): NoteId[] {
  const sorted = [...played].sort((a, b) => a.onsetBeat - b.onsetBeat);
  let from = 0;
  return report.notes.map((note) => {
    while (from < sorted.length && sorted[from]!.onsetBeat + sorted[from]!.durationBeats < note.onsetBeat - 8) from++;
    let [best, least] = [sorted[from]!, Infinity];
    for (let index = from; index < sorted.length && sorted[index]!.onsetBeat <= note.onsetBeat + 1e-6; index++) {
      const one = sorted[index]!;
      const inside = note.onsetBeat < one.onsetBeat + one.durationBeats - 1e-9;
      const away = Math.abs(one.midi - note.midi) + (note.onsetBeat - one.onsetBeat) * 4 + (inside ? 0 : 1000);
      if (away < least) [best, least] = [one, away];
    }
    return best.id;
  });
}
