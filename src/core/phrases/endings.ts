import { analyse, type PhraseEnd } from '../analyse';
import { harmonyOf, readChart, timelineOf, writeChart, type Chart, type ChordSpan } from '../chart';
import type { IntervalName } from '../music';
import { elementAt, unwrap, type Midi } from '../shared';
import { NEAR } from './formula';
import { sceneOf, type KeptPhrase } from './phrase';

/** What the last note of a phrase would be over one chord of a form. */
export type EndingOver = {
  readonly symbol: string;
  readonly numeral: string;
  /** Bar of the form where the chord first stands, from 1. */
  readonly bar: number;
  readonly interval: IntervalName | null;
  readonly end: PhraseEnd;
  /** The nearest last note that comes home there, in semitones from the phrase's own; null where none is near. */
  readonly homeBy: number | null;
};

/** A phrase that ends on one chord of a form: its last note where it comes home, over a bar of that chord. */
export function withEnding(phrase: KeptPhrase, { symbol, homeBy }: EndingOver): KeptPhrase {
  const { chart, timeline } = sceneOf(phrase);
  const last = elementAt(phrase.notes, phrase.notes.length - 1);
  const bar = timeline.bars.findLastIndex(({ start }) => start <= last.onsetBeat + NEAR);
  const chord = elementAt(unwrap(readChart(`| ${symbol} |`)).bars, 0);
  const under = elementAt(timeline.bars, Math.max(0, bar));
  const starts = last.onsetBeat - under.start < NEAR;
  const bars = [
    ...chart.bars.slice(0, bar + (starts ? 0 : 1)),
    { ...chord, meter: elementAt(chart.bars, 0).meter },
  ];
  const onsetBeat = starts ? last.onsetBeat : under.end;
  const ending = {
    onsetBeat,
    durationBeats: Math.max(1, last.durationBeats),
    midi: last.midi + (homeBy ?? 0),
  };
  return {
    ...phrase,
    chartText: writeChart({ ...chart, bars }),
    notes: [...phrase.notes.slice(0, -1), ending],
  };
}

/** A last note is led no further than this to come home. */
const REACH = 4;

/**
 * What the last note of a phrase is over each chord of a form, whether it comes home there, and where it would have
 * to go to (T10.6): judged as a take is, so that both say the same.
 */
export function endingsOf(phrase: KeptPhrase, chart: Chart): EndingOver[] {
  const timeline = timelineOf(chart, phrase.tempo);
  const { readings } = harmonyOf(chart, timeline);
  const last = elementAt(phrase.notes, phrase.notes.length - 1);
  const spans = new Map<string, ChordSpan>();
  for (const span of timeline.chordSpans)
    if (span.chord && !spans.has(span.chord.symbol)) spans.set(span.chord.symbol, span);
  const endAt = (span: ChordSpan, midi: Midi) => {
    const durationBeats = Math.min(2, span.end - span.start) - 0.1;
    const notes = [{ onsetBeat: span.start, durationBeats, midi }];
    const [one] = analyse({ chart, tempo: phrase.tempo, notes, plan: { id: 'outline' }, leanMs: 0 }).phrases;
    return one;
  };
  return [...spans].map(([symbol, span]): EndingOver => {
    const own = endAt(span, last.midi);
    const moves = Array.from({ length: 2 * REACH + 1 }, (_, index) => index - REACH);
    const homeBy = moves
      .sort((a, b) => Math.abs(a) - Math.abs(b) || a - b)
      .find((by) => endAt(span, last.midi + by)?.end === 'home');
    return {
      symbol,
      numeral: readings[span.index]?.degree ?? '',
      bar: span.bar + 1,
      interval: own?.endInterval ?? null,
      end: own?.end ?? 'asks',
      homeBy: homeBy ?? null,
    };
  });
}
