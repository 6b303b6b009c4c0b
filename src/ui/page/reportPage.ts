import type { Report } from '@/core/analyse';
import type { Timeline } from '@/core/chart';
import { fingeringOf } from '@/core/findings';
import { readChord, type Chord } from '@/core/music';
import type { Instrument } from '@/core/neck';
import { frettedMidi, scoreOf, type GridAt, type ScoreBar, type WrittenNote } from '@/core/notation';
import { elementAt, unwrap } from '@/core/shared';
import type { TakeOnForm } from '../form/takeOnForm';

/** What stands under a note: its degree, and how much it belongs. */
export type DegreeUnder = { readonly label: string; readonly tier: number };

/**
 * A judged line as bars of a page, fingered as it lies best.
 * @param gestureOf what the hand did to a note of the report
 * @param gridAt where the reader has chosen triplets or sixteenths
 */
export function pageOf(
  report: Report,
  timeline: Timeline,
  instrument: Instrument,
  gestureOf: (index: number) => Pick<WrittenNote, 'bend' | 'slide' | 'isShaken'> = () => ({}),
  gridAt: GridAt = () => null,
): readonly ScoreBar[] {
  const read = new Map<string, Chord>();
  const chordOf = (symbol: string | null): Chord | null => {
    if (symbol === null) return null;
    if (!read.has(symbol)) read.set(symbol, unwrap(readChord(symbol)));
    return read.get(symbol) ?? null;
  };
  const notes = report.notes.map(({ onsetBeat, durationBeats, midi, slur }, index): WrittenNote => ({
    onsetBeat,
    durationBeats,
    midi,
    attack: slur,
    ...gestureOf(index),
  }));
  return scoreOf({
    timeline,
    notes,
    choruses: report.summary.choruses,
    swing: report.time.swing,
    gridAt,
    touchAt: fingeringOf(report, instrument, (index) => frettedMidi(elementAt(notes, index))).touchAt,
    chords: report.notes.map(({ chord }) => chordOf(chord)),
  });
}

/** The degree of every note that is drawn, by its place in the report. */
export const degreesOf = ({ notes }: TakeOnForm): ReadonlyMap<number, DegreeUnder> =>
  new Map(
    notes.map(({ index, parts }) => {
      const { label, height } = elementAt(parts, 0);
      return [index, { label, tier: height }];
    }),
  );
