import type { PlayedNote } from '../analyse';
import { judgeDrill, type Drill } from './drill';
import { exampleOf } from './example';

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
  const missed = [...ways.map((way) => line.map(way)), ...plainLines(last, line)].flatMap((one) => {
    const { of, passed } = judgeDrill(drill, one, choruses);
    return passed ? [] : [{ one, of }];
  });
  // a line with something to count shows what was missed; one without does not pass either
  return (missed.find(({ of }) => of > 0) ?? missed[0])?.one ?? null;
}

/** Lines that say nothing, from those that only run on to those that hardly play. */
function plainLines(last: number, line: readonly PlayedNote[]): PlayedNote[][] {
  const every = (step: number, midiAt: (index: number) => number): PlayedNote[] =>
    Array.from({ length: Math.max(1, Math.floor(last / step)) }, (_, index) => ({
      onsetBeat: index * step,
      durationBeats: step * 0.94,
      midi: midiAt(index),
    }));
  const first = line[0]?.midi ?? 60;
  return [
    every(0.5, (index) => 58 + (index % 2)),
    // up and down the whole neck
    every(0.5, (index) => (index % 2 === 0 ? 45 : 76)),
    // one note on every beat, the same without end
    every(1, () => first),
    // a short note, and a long silence
    every(3, () => first).map((note) => ({ ...note, durationBeats: 0.4 })),
    // the same three notes in every bar
    every(4, () => first).flatMap((note) =>
      [0, 2, 4].map((above, place) => ({
        onsetBeat: note.onsetBeat + place / 2,
        durationBeats: 0.47,
        midi: first + above,
      })),
    ),
    // chords only, struck on the beat
    every(2, () => first).flatMap((note) => [0, 4, 7].map((above) => ({ ...note, midi: 52 + above }))),
  ];
}
