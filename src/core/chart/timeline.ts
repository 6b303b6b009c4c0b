import {
  beatsToSeconds,
  secondsToBeats,
  type Beats,
  type BeatsPerMinute,
  type Seconds,
  defined,
} from '../shared';
import { isChange, type Chord, type Key, type Scale } from '../music';
import { beatsPerBar, strongBeats, type Chart, type Meter } from './chart';

/** One written chord (or N.C.) laid on the form; beats from the start of the form, half-open. */
export type ChordSpan = {
  readonly index: number;
  readonly chord: Chord | null;
  readonly start: Beats;
  readonly end: Beats;
  /** 0-based bar of the form. */
  readonly bar: number;
  readonly key: Key | null;
  /** The home scale the chart names here. */
  readonly home: Scale | null;
};

/** One bar laid on the form. */
export type BarSpan = {
  readonly index: number;
  readonly start: Beats;
  readonly end: Beats;
  readonly meter: Meter;
  readonly section: string | null;
  readonly key: Key | null;
};

/** A stretch in a chorus: absolute beats from bar 1 of the first chorus. `chorus` counts from 0. */
export type SoundingChord = {
  readonly span: ChordSpan;
  readonly chorus: number;
  readonly start: Beats;
  readonly end: Beats;
};

/** The form laid out in beats, and the way between beats, bars, choruses and seconds. */
export type Timeline = {
  readonly tempo: BeatsPerMinute;
  readonly chordSpans: readonly ChordSpan[];
  readonly bars: readonly BarSpan[];
  /** Beats of one chorus. */
  readonly formBeats: Beats;
  readonly pickup: Beats;
};

const laidOut = new WeakMap<Chart, Timeline>();

/** The last answer for a chart is kept: a chart never changes, and is asked for again and again at one tempo. */
export function timelineOf(chart: Chart, tempo: BeatsPerMinute): Timeline {
  const before = laidOut.get(chart);
  if (before?.tempo === tempo) return before;
  const timeline = layOut(chart, tempo);
  laidOut.set(chart, timeline);
  return timeline;
}

function layOut(chart: Chart, tempo: BeatsPerMinute): Timeline {
  const stretches: ChordSpan[] = [];
  const bars: BarSpan[] = [];
  let start = 0;
  for (const [index, bar] of chart.bars.entries()) {
    const end = start + beatsPerBar(bar.meter);
    bars.push({ index, start, end, meter: bar.meter, section: bar.section, key: bar.key });
    for (const cell of bar.cells)
      stretches.push({
        index: stretches.length,
        chord: cell.chord,
        bar: index,
        key: bar.key,
        home: bar.home,
        start: start + cell.start.valueOf(),
        end: start + cell.start.add(cell.beats).valueOf(),
      });
    start = end;
  }
  return { tempo, chordSpans: stretches, bars, formBeats: start, pickup: chart.pickup };
}

/** Which chorus a beat lies in, from 0; count-in and pickup count as the first. */
export const chorusAt = ({ formBeats }: Pick<Timeline, 'formBeats'>, beat: Beats): number =>
  Math.max(0, Math.floor(beat / formBeats + 1e-9));

/** The beat of the form that a beat of the take lies on. */
export const beatInForm = (timeline: Pick<Timeline, 'formBeats'>, beat: Beats): Beats =>
  beat - chorusAt(timeline, beat) * timeline.formBeats;

/** The stretch that sounds at a beat; before beat 0 it is the first of the form. */
export const soundingAt = (timeline: Timeline, beat: Beats): SoundingChord =>
  sounding(timeline, spanIndexAt(timeline, beat), chorusAt(timeline, beat));

/** Which of the form's chord spans sounds at a beat; before beat 0 it is the first. */
export const spanIndexAt = (timeline: Timeline, beat: Beats): number =>
  lastStartingBy(timeline.chordSpans, Math.max(0, beatInForm(timeline, beat)));

const barUnder = ({ bars }: Timeline, inForm: Beats): BarSpan => defined(bars[lastStartingBy(bars, inForm)]);

/** Binary search: the last stretch or bar that starts at or before a beat of the form. */
function lastStartingBy(chordSpans: readonly { readonly start: Beats }[], beat: Beats): number {
  let low = 0;
  let high = chordSpans.length - 1;
  while (low < high) {
    const middle = (low + high + 1) >> 1;
    const span = chordSpans[middle];
    if (span && span.start <= beat + 1e-9) low = middle;
    else high = middle - 1;
  }
  return low;
}

function sounding(timeline: Timeline, index: number, chorus: number): SoundingChord {
  const stretch = defined(timeline.chordSpans[index]);
  const offset = chorus * timeline.formBeats;
  return { span: stretch, chorus, start: stretch.start + offset, end: stretch.end + offset };
}

/** The stretch after a sounding one; the form is a loop. */
export function soundingAfter(timeline: Timeline, now: SoundingChord): SoundingChord {
  const next = now.span.index + 1;
  return next < timeline.chordSpans.length
    ? sounding(timeline, next, now.chorus)
    : sounding(timeline, 0, now.chorus + 1);
}

/** A place in the form: chorus, bar and beat of the bar, all from 0. */
export type FormPosition = {
  readonly chorus: number;
  readonly bar: number;
  readonly beatInBar: Beats;
};

/**
 * A beat's place in the form.
 * @example
 * formPositionOf(timelineOf(unwrap(readChart('| C | F |')), 120), 13) // { chorus: 1, bar: 1, beatInBar: 1 }
 */
export function formPositionOf(timeline: Timeline, beat: Beats): FormPosition {
  const chorus = chorusAt(timeline, beat);
  const inForm = beatInForm(timeline, beat);
  const bar = barUnder(timeline, inForm);
  return { chorus, bar: bar.index, beatInBar: inForm - bar.start };
}

/** The beat a bar begins on; bars count from 1 through all choruses. */
export function barStart({ bars, formBeats }: Timeline, throughBar: number): Beats {
  const chorus = Math.floor((throughBar - 1) / bars.length);
  return chorus * formBeats + defined(bars[(throughBar - 1) % bars.length]).start;
}

/** Is this the middle of a strong beat's window? `window` in beats either way (T1.2). */
export function isOnStrongBeat(timeline: Timeline, beat: Beats, window: Beats): boolean {
  const nearest = Math.round(beat);
  if (Math.abs(beat - nearest) > window + 1e-9) return false;
  const inForm = nearest - Math.floor(nearest / timeline.formBeats) * timeline.formBeats;
  const bar = barUnder(timeline, inForm);
  return strongBeats(bar.meter).includes(Math.round(inForm - bar.start));
}

export const isOnBeat = (beat: Beats, window: Beats): boolean =>
  Math.abs(beat - Math.round(beat)) <= window + 1e-9;

/** A change of chord in the walk through the form; `until` is the next change or N.C. */
export type ChordChange = {
  readonly index: number;
  readonly chorus: number;
  /** 0-based bar of the form. */
  readonly bar: number;
  readonly at: Beats;
  readonly until: Beats;
  readonly from: Chord;
  readonly to: Chord;
  /** The stretch that begins here. */
  readonly span: ChordSpan;
};

/**
 * Every change over so many choruses.
 * Rule T2.7: a new root, or on the same root a tone set neither containing nor contained; none into or out
 * of N.C.
 */
export function changesOf(timeline: Timeline, choruses: number): ChordChange[] {
  const walk: SoundingChord[] = [];
  for (let chorus = 0; chorus < choruses; chorus++)
    for (const stretch of timeline.chordSpans) walk.push(sounding(timeline, stretch.index, chorus));
  const borders = walk.flatMap((now, place) =>
    place > 0 && isBorder(defined(walk[place - 1]).span.chord, now.span.chord)
      ? [{ now, before: defined(walk[place - 1]).span.chord }]
      : [],
  );
  const end = choruses * timeline.formBeats;
  const changes: ChordChange[] = [];
  borders.forEach(({ now, before }, place) => {
    const to = now.span.chord;
    if (!before || !to) return;
    changes.push({
      index: changes.length,
      chorus: now.chorus,
      bar: now.span.bar,
      at: now.start,
      until: borders[place + 1]?.now.start ?? end,
      from: before,
      to,
      span: now.span,
    });
  });
  return changes;
}

/** A change, or the edge of an N.C. */
const isBorder = (before: Chord | null, now: Chord | null): boolean =>
  before && now ? isChange(before, now) : before !== now;

export const beatToSeconds = (timeline: Timeline, beat: Beats): Seconds =>
  beatsToSeconds(beat, timeline.tempo);
export const secondsToBeat = (timeline: Timeline, seconds: Seconds): Beats =>
  secondsToBeats(seconds, timeline.tempo);
