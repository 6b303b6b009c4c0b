import { LIMITS } from '../contracts';
import type { Report } from '../analyse';
import { formPositionOf, harmonyOf, passage, readChart, timelineOf, writeChart, type Chart } from '../chart';
import { elementAt, present, unwrap, type Beats, type BeatsPerMinute, type Midi } from '../shared';
import type { FormScene } from './formula';

/** A note of a phrase, in beats from the first bar line of its bars. */
export type PhraseNote = {
  readonly onsetBeat: Beats;
  readonly durationBeats: Beats;
  readonly midi: Midi;
  /** The lowest fret of the hand, where the player has said it. */
  readonly position?: number | undefined;
};

/** The note without its place on the neck: what is made of a phrase lies where it is likeliest. */
export const unplaced = ({ onsetBeat, durationBeats, midi }: PhraseNote): PhraseNote => ({
  onsetBeat,
  durationBeats,
  midi,
});

/** A phrase as it is kept: its notes over the bars it was played over, which are a chart of their own. */
export type KeptPhrase = {
  readonly chartText: string;
  readonly tempo: BeatsPerMinute;
  readonly notes: readonly PhraseNote[];
};

/** The bars a phrase stands over, read: its chart, and what formulas need of it. */
export function sceneOf({ chartText, tempo }: Pick<KeptPhrase, 'chartText' | 'tempo'>): FormScene & {
  readonly chart: Chart;
} {
  const chart = unwrap(readChart(chartText));
  const timeline = timelineOf(chart, tempo);
  return { chart, timeline, harmony: harmonyOf(chart, timeline) };
}

/** A note that ends so little after a bar line needs no bar of its own. */
const OVER: Beats = 0.25;

/**
 * A phrase of a take as what can be kept of it: its line notes, over the bars from the one it begins in to the one
 * its last note ends in.
 * @param at its place among the report's phrases
 */
export function phraseOfTake(report: Report, at: number, chart: Chart, tempo: BeatsPerMinute): KeptPhrase {
  const timeline = timelineOf(chart, tempo);
  const { noteIndices } = elementAt(report.phrases, at);
  const line = noteIndices
    .map((index) => elementAt(report.notes, index))
    .filter(({ top, function: role }) => top && role !== 'grace');
  const start = Math.max(0, elementAt(line, 0).onsetBeat);
  const end = Math.max(...line.map(({ onsetBeat, durationBeats }) => onsetBeat + durationBeats)) - OVER;
  const [from, to] = [start, Math.max(start, end)].map((beat) => formPositionOf(timeline, beat + 1e-6));
  const first = present(from);
  const last = present(to);
  const count = timeline.bars.length;
  const span = (last.chorus - first.chorus) * count + last.bar - first.bar + 1;
  const twice = { ...chart, bars: [...chart.bars, ...chart.bars] };
  const bars = passage(
    first.bar + span > count ? twice : chart,
    first.bar + 1,
    first.bar + Math.min(span, LIMITS.phrase.bars, count),
  );
  const zero = first.chorus * timeline.formBeats + elementAt(timeline.bars, first.bar).start;
  return {
    chartText: writeChart({ ...bars, title: '' }),
    tempo: Math.round(tempo),
    notes: line.map(({ onsetBeat, durationBeats, midi, position }) => ({
      onsetBeat: rounded(onsetBeat - zero),
      durationBeats: rounded(durationBeats),
      midi: Math.round(midi),
      ...(position !== undefined && { position }),
    })),
  };
}

const rounded = (beats: Beats): Beats => Math.round(beats * 1000) / 1000;

/** Notes over a form as a phrase of its own: over the bars from their first to their last. */
export function phraseUnder(chart: Chart, tempo: BeatsPerMinute, notes: readonly PhraseNote[]): KeptPhrase {
  const timeline = timelineOf(chart, tempo);
  const start = Math.max(0, Math.min(...notes.map(({ onsetBeat }) => onsetBeat)));
  const end = Math.max(...notes.map(({ onsetBeat, durationBeats }) => onsetBeat + durationBeats)) - OVER;
  const first = formPositionOf(timeline, start + 1e-6).bar;
  const last = formPositionOf(timeline, Math.min(timeline.formBeats - 1e-3, Math.max(start, end))).bar;
  const zero = elementAt(timeline.bars, first).start;
  return {
    chartText: writeChart({ ...passage(chart, first + 1, last + 1), title: '' }),
    tempo: Math.round(tempo),
    notes: notes.map((note) => ({ ...note, onsetBeat: rounded(note.onsetBeat - zero) })),
  };
}

/** How long a phrase's bars are, in beats and in bars. */
export function sizeOf(phrase: KeptPhrase): { readonly beats: Beats; readonly bars: number } {
  const { timeline } = sceneOf(phrase);
  return { beats: timeline.formBeats, bars: timeline.bars.length };
}
