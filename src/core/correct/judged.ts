import type { PlayedNote, Report } from '../analyse';
import { beatAt, steady, type Pace } from '../chart';
import type { CorrectedNote, NoteId } from './edits';
import { elementAt, type BeatsPerMinute, type Seconds } from '../shared';

/** A note in beats with its name. */
export type NamedNote = PlayedNote & { readonly id: NoteId };

/** What sounds longer than this before bar 1 is tuning up, not a pickup. */
const EARLIEST = -8;

/**
 * Corrected notes as the analysis takes them, in beats: ghosts and what lies before the count-in are no part
 * of the line.
 */
export function playedFrom(
  notes: readonly CorrectedNote[],
  pace: BeatsPerMinute | Pace,
  offsetSec: Seconds,
): NamedNote[] {
  const walk = typeof pace === 'number' ? steady(pace) : pace;
  const key = `${walk.passBeats} ${walk.tempi.join(' ')} ${offsetSec}`;
  const played: NamedNote[] = [];
  for (const note of notes) {
    if (note.ghost) continue;
    const one = inBeats(note, walk, offsetSec, key);
    if (one.onsetBeat >= EARLIEST) played.push(one);
  }
  return played;
}

const known = new WeakMap<CorrectedNote, { readonly key: string; readonly note: NamedNote }>();

/** A note in beats; one that was not touched since is not made again. */
function inBeats(note: CorrectedNote, walk: Pace, offset: Seconds, key: string): NamedNote {
  const before = known.get(note);
  if (before?.key === key) return before.note;
  const { onsetSec, offsetSec, edited: _edited, ghost: _ghost, sure: _sure, ...rest } = note;
  const onsetBeat = beatAt(walk, onsetSec - offset);
  const made: NamedNote = { ...rest, onsetBeat, durationBeats: beatAt(walk, offsetSec - offset) - onsetBeat };
  known.set(note, { key, note: made });
  return made;
}

const byOnset = (a: NamedNote, b: NamedNote): number => a.onsetBeat - b.onsetBeat || a.midi - b.midi;

/** Notes by onset, then by pitch; what lies so already is not sorted anew. */
const inOrder = (played: readonly NamedNote[]): readonly NamedNote[] =>
  played.every((note, index) => index === 0 || byOnset(elementAt(played, index - 1), note) <= 0)
    ? played
    : [...played].sort(byOnset);

/**
 * Which note each note of a report is, by its place in the report: one note heard may be two to the
 * analysis, a slide between held
 * pitches, and one before the form none.
 */
export function reportPlaces(report: Report, played: readonly NamedNote[]): NoteId[] {
  const sorted = inOrder(played);
  let [from, next] = [0, 0];
  return report.notes.map((note) => {
    // nearly all are in the same order
    const same = sorted[next];
    const onset = note.playedBeat ?? note.onsetBeat;
    if (same && Math.abs(same.onsetBeat - onset) < 1e-9 && Math.round(same.midi) === Math.round(note.midi))
      return elementAt(sorted, next++).id;
    while (
      from < sorted.length &&
      elementAt(sorted, from).onsetBeat + elementAt(sorted, from).durationBeats < onset - 8
    )
      from++;
    let [best, least] = [elementAt(sorted, from), Infinity];
    for (
      let index = from;
      index < sorted.length && elementAt(sorted, index).onsetBeat <= onset + 1e-6;
      index++
    ) {
      const one = elementAt(sorted, index);
      const inside = onset < one.onsetBeat + one.durationBeats - 1e-9;
      const away = Math.abs(one.midi - note.midi) + (onset - one.onsetBeat) * 4 + (inside ? 0 : 1000);
      if (away < least) {
        [best, least] = [one, away];
        next = index + 1;
      }
    }
    return best.id;
  });
}
