import { formPositionOf, type Timeline } from '@/core/chart';
import type { NoteId } from '@/core/correct';
import type { Judgement } from '@/core/review';
import { elementAt } from '@/core/shared';
import { nameOver } from './noteNames';

/** The chord over a beat of the form, as it is written. */
export const chordAt = (timeline: Timeline, beat: number): string | null => {
  const at = Math.max(0, beat);
  const inForm = at - formPositionOf(timeline, at).chorus * timeline.formBeats;
  return timeline.chordSpans.findLast(({ start }) => start <= inForm + 1e-6)?.chord?.symbol ?? null;
};
/** A reading of a note in doubt, with its octave. */
export const readingName = (midi: number | null, timeline: Timeline, beat: number): string =>
  midi === null ? 'No note' : `${nameOver(chordAt(timeline, beat), midi)}${Math.floor(midi / 12) - 1}`;

/** Where a note begins in beats, whether or not the analysis took it. */
export function beatOfNote({ report, places, notes }: Judgement, id: NoteId | null): number {
  const place = id === null ? -1 : places.indexOf(id);
  if (place >= 0) return elementAt(report.notes, place).onsetBeat;
  const index = notes.findIndex((note) => note.id === id);
  for (let away = 1; away < notes.length && index >= 0; away++)
    for (const other of [index - away, index + away]) {
      const at = notes[other] ? places.indexOf(elementAt(notes, other).id) : -1;
      if (at >= 0) return elementAt(report.notes, at).onsetBeat;
    }
  return 0;
}
