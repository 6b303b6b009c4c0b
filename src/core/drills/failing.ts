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
