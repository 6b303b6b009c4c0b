import type { PlayedNote } from '../analyse';
import { changesOf, readChart, timelineOf } from '../chart';
import { beatsToSeconds, unwrap } from '../shared';
import { judgeDrill, type Drill } from './drill';
import { exampleOf } from './example';

/** How often the bars go round in one attempt, how many places that gives, and how many of them pass. */
export type AttemptSize = {
  readonly passes: number;
  readonly places: number;
  readonly pass: number;
  readonly seconds: number;
};

/**
 * About a dozen places are enough to tell, and no attempt is longer than this: several of them fit into five
 * minutes.
 */
const PLACES = 12;
const LONGEST_SECONDS = 75;

export function attemptSize(drill: Drill, tempo = drill.tempo): AttemptSize {
  const chart = unwrap(readChart(drill.chartText));
  const timeline = timelineOf(chart, tempo);
  const each = ['land', 'figure', 'join'].includes(drill.rule.kind)
    ? changesOf(timeline, 2).length - changesOf(timeline, 1).length
    : chart.bars.length;
  const pass = beatsToSeconds(timeline.formBeats, tempo);
  const passes = Math.max(
    1,
    Math.min(Math.ceil(PLACES / Math.max(1, each)), Math.floor(LONGEST_SECONDS / pass)),
  );
  // nothing changes before the first chord of the first pass
  const places = ['land', 'figure', 'join'].includes(drill.rule.kind)
    ? changesOf(timeline, passes).length
    : each * passes;
  return { passes, places, pass: Math.ceil(drill.pass * places - 1e-9), seconds: pass * passes };
}

/**
 * A line over the same bars that the rule does not let pass: what the stand-in player plays to show a miss.
 * Null where every line passes.
 */
export function failingOf(drill: Drill, seed: number, choruses: number): PlayedNote[] | null {
  const line = exampleOf(drill, seed, choruses) ?? [];
  const ways: ((note: PlayedNote, index: number) => PlayedNote)[] = [
    (note) => ({ ...note, midi: note.midi + 1 }),
    (note) => ({ ...note, onsetBeat: note.onsetBeat + 1 }),
    (note) => ({ ...note, onsetBeat: note.onsetBeat + 0.12 }),
    (note, index) => ({ ...note, midi: note.midi + ((index * 7) % 11) - 5 }),
  ];
  const last = Math.max(0, ...line.map(({ onsetBeat }) => onsetBeat));
  const running = Array.from({ length: Math.floor(last * 2) }, (_, index): PlayedNote => ({
    onsetBeat: index / 2,
    durationBeats: 0.47,
    midi: 58 + (index % 2),
  }));
  return (
    [...ways.map((way) => line.map(way)), running].find((one) => {
      const { of, passed } = judgeDrill(drill, one, choruses);
      return of > 0 && !passed;
    }) ?? null
  );
}
