import { analyse, type Report } from '../analyse';
import { formPositionOf, timelineOf, type Chart, type Timeline } from '../chart';
import { overlayOf, type PlanChoice } from '../plan';
import { elementAt } from '../shared';

/** A bar over which other changes were laid, and which of the two the line followed. */
export type FollowedBar = {
  /** From 1, through all choruses. */
  readonly bar: number;
  readonly written: readonly string[];
  readonly laid: readonly string[];
  readonly follows: 'written' | 'laid' | 'both' | 'neither' | 'rest';
};

type Request = {
  readonly chart: Chart;
  /** The superimposed changes as chart text. */
  readonly overlay: string;
  readonly tempo: number;
  readonly plan: PlanChoice;
  /** The take held against the written chords. */
  readonly report: Report;
};

/** A line whose tones lie on average this far above a chord has left it. */
const AWAY = 1.5;
/** A note struck so much before a bar line belongs to the bar it begins, in beats. */
const EARLY = 0.15;
/** Heights nearer to each other than this tell nothing. */
const NEAR = 0.4;

/**
 * Bar by bar, whether the line followed the written chords or those laid over them (T14.4): the same notes are held
 * against both, and the lower tension level, weighed by beats, is the chord that was meant.
 * @returns one entry for each bar whose chords differ; none where the overlay cannot be read
 */
export function followedBars({ overlay, report, chart, ...request }: Request): FollowedBar[] {
  const laid = overlayOf(chart, overlay);
  if (!laid.ok) return [];
  const { choruses } = report.summary;
  const notes = report.notes.map(({ onsetBeat, durationBeats, midi }) => ({
    onsetBeat,
    durationBeats,
    midi,
  }));
  const over = analyse({ ...request, chart: laid.value, notes, choruses });
  const timeline = timelineOf(chart, request.tempo);
  const count = timeline.bars.length;
  const symbols = (one: Chart, bar: number) =>
    elementAt(one.bars, bar).cells.map(({ chord }) => chord?.symbol ?? 'N.C.');
  const [own, others] = [heightsByBar(report, timeline), heightsByBar(over, timeline)];
  return Array.from({ length: count * choruses }, (_, through): FollowedBar => {
    const bar = through % count;
    return {
      bar: through + 1,
      written: symbols(chart, bar),
      laid: symbols(laid.value, bar),
      follows: followedBy(own.get(through), others.get(through)),
    };
  }).filter((one) => one.written.join(' ') !== one.laid.join(' '));
}

/** The mean tension level of each bar through all choruses, from 0, weighed by beats. */
function heightsByBar({ notes }: Report, timeline: Timeline): ReadonlyMap<number, number> {
  const sums = new Map<number, { height: number; beats: number }>();
  for (const note of notes) {
    if (note.function === 'grace') continue;
    const { chorus, bar } = formPositionOf(timeline, Math.max(0, note.onsetBeat + EARLY));
    const through = chorus * timeline.bars.length + bar;
    const sum = sums.get(through) ?? { height: 0, beats: 0 };
    sum.height += note.height * note.durationBeats;
    sum.beats += note.durationBeats;
    sums.set(through, sum);
  }
  return new Map([...sums].map(([bar, { height, beats }]) => [bar, height / beats]));
}

function followedBy(written: number | undefined, laid: number | undefined): FollowedBar['follows'] {
  if (written === undefined || laid === undefined) return 'rest';
  if (Math.min(written, laid) > AWAY) return 'neither';
  if (Math.abs(written - laid) < NEAR) return 'both';
  return laid < written ? 'laid' : 'written';
}
