import { barStart, passage, secondsAt, tempoAt, writeChart } from '../chart';
import type { Chart, Pace, Timeline } from '../chart';
import { beatsToSeconds, elementAt, type Beats, type BeatsPerMinute, type Seconds } from '../shared';
import type { Edit, NoteId, SecondsNote } from './edits';

/** A bar of a take to be played again: the passage it is met in, and where it lies in the take. */
export type BarAgain = {
  /** The bar, after the one before it: nobody comes into a bar out of nothing. */
  readonly chartText: string;
  readonly tempo: BeatsPerMinute;
  /** Beats of the bar before, and of the bar. */
  readonly lead: Beats;
  readonly beats: Beats;
  /** Where the bar begins in the take. */
  readonly at: Beats;
};

/** A note so little before the bar line was meant for the bar: common practice, no source. */
const EARLY: Beats = 0.2;

/** @param throughBar the bar, counted from 1 through all choruses */
export function barAgain(chart: Chart, timeline: Timeline, pace: Pace, throughBar: number): BarAgain {
  const number = ((throughBar - 1) % timeline.bars.length) + 1;
  const at = barStart(timeline, throughBar);
  const hasLead = number > 1;
  return {
    chartText: writeChart(passage(chart, hasLead ? number - 1 : number, number)),
    tempo: tempoAt(pace, at),
    lead: hasLead ? at - barStart(timeline, throughBar - 1) : 0,
    beats: barStart(timeline, throughBar + 1) - at,
    at,
  };
}

type Take = { readonly pace: Pace; readonly offsetSec: Seconds };

/** What was played in the bar, as a correction of the take. @param offsetSec beat 0 of the passage in what was heard */
export function playedAgain(
  bar: BarAgain,
  heard: readonly SecondsNote[],
  offsetSec: Seconds,
  take: Take,
  newId: () => NoteId,
): Extract<Edit, { kind: 'again' }> {
  const { tempo, lead, beats, at } = bar;
  const inTake = (beat: Beats) => take.offsetSec + secondsAt(take.pace, beat);
  const begins = offsetSec + beatsToSeconds(lead, tempo);
  const from = begins - beatsToSeconds(EARLY, tempo);
  const to = from + beatsToSeconds(beats, tempo);
  const later = inTake(at) - begins;
  const inside = heard.filter(({ onsetSec }) => onsetSec >= from && onsetSec < to);
  const notes = inside.map((note) => ({
    ...note,
    id: newId(),
    onsetSec: note.onsetSec + later,
    offsetSec: note.offsetSec + later,
  }));
  const id = notes.length > 0 ? elementAt(notes, 0).id : newId();
  return { kind: 'again', id, fromSec: inTake(at - EARLY), toSec: inTake(at + beats - EARLY), notes };
}
