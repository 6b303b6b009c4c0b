import { writeChart } from '../chart';
import { elementAt, modulo, type Beats } from '../shared';
import { NEAR } from './formula';
import { sceneOf, unplaced, type KeptPhrase, type PhraseNote } from './phrase';
import { nearestOf, pitchAtStep, scaleAt, stepOf } from './scaleSteps';

/** What can be made of one phrase; the names are said in `presentation`. */
export const VARIATIONS = [
  'reversed',
  'inverted',
  'other-rhythm',
  'beat-later',
  'eighth-later',
  'halved',
  'doubled',
  'other-ending',
  'extended',
] as const;
export type Variation = (typeof VARIATIONS)[number];

type Make = (phrase: KeptPhrase) => readonly PhraseNote[] | null;

const MAKES: Record<Variation, Make> = {
  reversed: ({ notes }) =>
    notes.map((note, index) => ({ ...note, midi: elementAt(notes, notes.length - 1 - index).midi })),
  inverted: (phrase) => {
    const scene = sceneOf(phrase);
    const first = elementAt(phrase.notes, 0);
    return phrase.notes.map((note) => {
      const scale = scaleAt(scene, note.onsetBeat);
      const [axis, own] = [stepOf(first.midi, scale), stepOf(note.midi, scale)];
      return {
        ...note,
        midi: note === first ? note.midi : pitchAtStep(2 * axis.step - own.step, scale) - own.alter,
      };
    });
  },
  // the lengths from the last note to the first: long notes come where short ones were
  'other-rhythm': ({ notes }) => {
    const { start, end } = rangeOf(notes);
    const mirrored = [...notes].reverse().map(({ onsetBeat, durationBeats }) => ({
      onsetBeat: start + end - onsetBeat - durationBeats,
      durationBeats,
    }));
    return notes.map(({ midi }, index) => ({ ...elementAt(mirrored, index), midi }));
  },
  'beat-later': ({ notes }) => later(notes, 1),
  'eighth-later': ({ notes }) => later(notes, 0.5),
  halved: ({ notes }) => stretchedBy(notes, 0.5),
  doubled: ({ notes }) => stretchedBy(notes, 2),
  'other-ending': (phrase) => {
    const { notes } = phrase;
    const last = elementAt(notes, notes.length - 1);
    const { tones } = scaleAt(sceneOf(phrase), last.onsetBeat);
    const others = tones.filter((pc) => pc !== modulo(last.midi, 12));
    if (others.length === 0) return null;
    return [...notes.slice(0, -1), { ...last, midi: nearestOf(others, last.midi) }];
  },
  extended: (phrase) => {
    const { notes } = phrase;
    const scene = sceneOf(phrase);
    const tail = notes.slice(-Math.min(4, Math.max(2, notes.length - 1)));
    const { start } = rangeOf(tail);
    const shift = Math.max(0.5, Math.ceil(2 * (rangeOf(notes).end - start)) / 2);
    const moved = tail.map((note, index) => {
      const scale = scaleAt(scene, note.onsetBeat);
      const { step } = stepOf(note.midi, scale);
      const midi = pitchAtStep(step - 1, scale);
      const isLast = index === tail.length - 1 && scale.tones.length > 0;
      return {
        ...note,
        onsetBeat: note.onsetBeat + shift,
        midi: isLast ? nearestOf(scale.tones, midi) : midi,
      };
    });
    return [...notes, ...moved];
  },
};

/** A variation of a phrase as a phrase of its own; null where it would be the phrase itself. */
export function varied(phrase: KeptPhrase, variation: Variation): KeptPhrase | null {
  const notes = MAKES[variation](phrase);
  if (!notes || isSame(notes, phrase.notes)) return null;
  return withRoom({ ...phrase, notes: notes.map(unplaced) });
}

/**
 * Two phrases as one: the second begins with the bar after the first, in the octave where its first note lies
 * nearest to the last one before it.
 */
export function joinedPhrases(first: KeptPhrase, second: KeptPhrase): KeptPhrase {
  const [a, b] = [sceneOf(first), sceneOf(second)];
  const last = elementAt(first.notes, first.notes.length - 1);
  const start = elementAt(second.notes, 0);
  const octaves = 12 * Math.round((last.midi - start.midi) / 12);
  return {
    ...first,
    chartText: writeChart({ ...a.chart, bars: [...a.chart.bars, ...b.chart.bars] }),
    notes: [
      ...first.notes,
      ...second.notes.map((note) => ({
        ...(octaves === 0 ? note : unplaced(note)),
        onsetBeat: note.onsetBeat + a.timeline.formBeats,
        midi: note.midi + octaves,
      })),
    ],
  };
}

/** As many bars as the notes need: where they run over, the last bar's chord goes on. */
function withRoom(phrase: KeptPhrase): KeptPhrase {
  const { chart, timeline } = sceneOf(phrase);
  const last = elementAt(chart.bars, chart.bars.length - 1);
  const lastSpan = elementAt(timeline.bars, timeline.bars.length - 1);
  const missing = rangeOf(phrase.notes).end - timeline.formBeats - NEAR;
  const more = Math.max(0, Math.ceil(missing / (lastSpan.end - lastSpan.start)));
  if (more === 0) return phrase;
  const { start } = elementAt(last.cells, 0);
  const whole = last.cells
    .slice(1)
    .reduce((sum, { beats }) => sum.add(beats), elementAt(last.cells, 0).beats);
  const held = { ...last, cells: last.cells.slice(-1).map((cell) => ({ ...cell, start, beats: whole })) };
  return {
    ...phrase,
    chartText: writeChart({ ...chart, bars: [...chart.bars, ...Array<typeof last>(more).fill(held)] }),
  };
}

const later = (notes: readonly PhraseNote[], by: Beats): PhraseNote[] =>
  notes.map((note) => ({ ...note, onsetBeat: note.onsetBeat + by }));

function stretchedBy(notes: readonly PhraseNote[], factor: number): PhraseNote[] {
  const { start } = rangeOf(notes);
  return notes.map(({ onsetBeat, durationBeats, midi }) => ({
    onsetBeat: start + (onsetBeat - start) * factor,
    durationBeats: durationBeats * factor,
    midi,
  }));
}

/** From the first onset to where the last sounding note ends. */
export function rangeOf(notes: readonly PhraseNote[]): { readonly start: Beats; readonly end: Beats } {
  return {
    start: Math.min(...notes.map(({ onsetBeat }) => onsetBeat)),
    end: Math.max(...notes.map(({ onsetBeat, durationBeats }) => onsetBeat + durationBeats)),
  };
}

const near = (a: number, b: number): boolean => Math.abs(a - b) < 1e-3;
const isSame = (a: readonly PhraseNote[], b: readonly PhraseNote[]): boolean =>
  a.length === b.length &&
  a.every(({ onsetBeat, durationBeats, midi }, index) => {
    const other = elementAt(b, index);
    return (
      midi === other.midi && near(onsetBeat, other.onsetBeat) && near(durationBeats, other.durationBeats)
    );
  });
