import { formPositionOf, soundingAfter, soundingAt, type Timeline } from '@/core/chart';
import { isChange, type Chord } from '@/core/music';
import { cellAt, landOn, type LandOn, type Plan } from '@/core/plan';
import { elementAt, type Beats } from '@/core/shared';

/** What a player two metres away needs to know at a beat. */
export type NowPlaying = {
  readonly now: Chord | null;
  readonly next: Chord | null;
  /** The place of that chord in the form and its chorus, from 0. */
  readonly upcoming: { readonly index: number; readonly chorus: number };
  /** Whole beats until the next chord, counted as a player counts: 1 is the last. */
  readonly beatsUntil: number;
  readonly landOn: LandOn | null;
  readonly chorus: number;
  readonly bar: number;
  /** Beat of the bar, from 0, and how many it has. */
  readonly beat: number;
  readonly beats: number;
  readonly countIn: number | null;
};

/** @param beat from bar 1; negative in the count-in */
export function nowPlaying(timeline: Timeline, plan: Plan, beat: Beats): NowPlaying {
  const at = Math.max(0, beat);
  const now = soundingAt(timeline, at);
  let next = soundingAfter(timeline, now);
  for (let step = 0; step < timeline.chordSpans.length && !isNew(now.span.chord, next.span.chord); step++)
    next = soundingAfter(timeline, next);
  const place = formPositionOf(timeline, at);
  const bar = elementAt(timeline.bars, place.bar);
  const upcoming = beat < 0 ? now : next;
  return {
    now: now.span.chord,
    next: upcoming.span.chord,
    upcoming: { index: upcoming.span.index, chorus: upcoming.chorus },
    beatsUntil: Math.max(1, Math.ceil((beat < 0 ? 0 : next.start) - beat - 1e-6)),
    landOn:
      now.span.chord && next.span.chord
        ? landOn(now.span.chord, next.span.chord, cellAt(plan, next.span.index, next.chorus).targets)
        : null,
    chorus: place.chorus,
    bar: place.bar,
    beat: Math.floor(place.beatInBar + 1e-6),
    beats: Math.round(bar.end - bar.start),
    countIn: beat < 0 ? Math.ceil(-beat - 1e-6) : null,
  };
}

const isNew = (from: Chord | null, to: Chord | null): boolean =>
  from && to ? isChange(from, to) : from !== to;
