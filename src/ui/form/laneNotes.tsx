import { elementAt, type Beats, type Midi } from '@/core/shared';
import type { LaneSpec } from './geometry';
import type { DrawnNote, DrawnPart, TakeOnForm } from './takeOnForm';

/** How heights or pitches become places in a lane. */
export type Slope = {
  readonly ground: number;
  readonly lowest: Midi;
  readonly highest: Midi;
  readonly perSemitone: number;
  readonly y: (midi: Midi) => number;
  readonly yOfHeight: (height: number) => number;
};
export type Placed = {
  readonly note: DrawnNote;
  readonly part: DrawnPart;
  readonly x: number;
  readonly width: number;
  /** Where a note that rings on under the line falls silent; null where it ends with its pill. */
  readonly ring: number | null;
  readonly y: number;
  readonly height: number;
  readonly lead: boolean;
  readonly byPitch: boolean;
};

const STEP = 5;
const TOP = 16;
const FOOT = 18;
/** A pitch lane shows at least this many semitones, so that a narrow line is not blown up. */
const LEAST_RANGE = 12;

export function slopeOf({ view, height }: LaneSpec, take: TakeOnForm | null, from: Beats, to: Beats): Slope {
  const ground = view === 'closed' ? height - 9 : height - 16;
  const step = view === 'closed' ? 3.4 : STEP;
  let [lowest, highest] = [Infinity, -Infinity];
  if (view === 'pitch' && take) {
    for (const { onset, end, midi } of notesWithin(take, from, to))
      if (end > from && onset < to) [lowest, highest] = [Math.min(lowest, midi), Math.max(highest, midi)];
  }
  if (lowest > highest) [lowest, highest] = [55, 67];
  const spare = Math.max(0, LEAST_RANGE - (highest - lowest)) / 2;
  [lowest, highest] = [lowest - spare, highest + spare];
  const perSemitone = (height - TOP - FOOT - 8) / (highest - lowest);
  const y = (midi: Midi) => height - FOOT - 4 - (midi - lowest) * perSemitone;
  return {
    ground,
    lowest: lowest - 1,
    highest: highest + 1,
    perSemitone,
    y,
    yOfHeight: (tier) => ground - tier * step,
  };
}

/**
 * Notes are in order of onset: only those that may reach into a stretch are looked at. Nothing sounds longer
 * than this many beats.
 */
const LONGEST: Beats = 64;

export function notesWithin({ notes }: TakeOnForm, from: Beats, to: Beats): readonly DrawnNote[] {
  let [low, high] = [0, notes.length];
  while (low < high) {
    const middle = (low + high) >> 1;
    if (elementAt(notes, middle).onset < from - LONGEST) low = middle + 1;
    else high = middle;
  }
  let last = low;
  while (last < notes.length && elementAt(notes, last).onset < to) last++;
  return notes.slice(low, last);
}

export function placeNotes(
  take: TakeOnForm,
  from: Beats,
  to: Beats,
  x: (beat: Beats) => number,
  lane: LaneSpec,
  slope: Slope,
): Placed[] {
  const within = notesWithin(take, from, to);
  return within.flatMap((note, index) =>
    note.end > from && note.onset < to
      ? placeNote(note, neighboursOf(within, index), { from, to, x, lane, slope })
      : [],
  );
}

/** Notes struck so near to each other sound together. */
const TOGETHER: Beats = 0.06;
type Neighbours = { readonly next: Beats; readonly isUnder: boolean };

/** When the line goes on after a note, and whether a higher note is struck with it. */
function neighboursOf(notes: readonly DrawnNote[], index: number): Neighbours {
  const { onset, midi } = elementAt(notes, index);
  let [next, isUnder] = [Infinity, false];
  for (let at = index + 1; at < notes.length && next === Infinity; at++) {
    const other = elementAt(notes, at);
    if (other.onset > onset + TOGETHER) next = other.onset;
    else isUnder ||= other.midi > midi;
  }
  for (let at = index - 1; at >= 0 && elementAt(notes, at).onset > onset - TOGETHER; at--)
    isUnder ||= elementAt(notes, at).midi > midi;
  return { next, isUnder };
}

type Stretch = {
  readonly from: Beats;
  readonly to: Beats;
  readonly x: (beat: Beats) => number;
  readonly lane: LaneSpec;
  readonly slope: Slope;
};

/** Least widths of a note, in drawing units: closed, open, and where the next one follows at once. */
const LEAST = { closed: 3, open: 11, crowded: 4 } as const;

function placeNote(note: DrawnNote, { next, isUnder }: Neighbours, stretch: Stretch): Placed[] {
  const { from, to, x, lane, slope } = stretch;
  const closed = lane.view === 'closed';
  const byPitch = lane.view === 'pitch';
  const lead = note.onset < from + 1 && note.end <= from + 1 + 1e-6;
  return note.parts
    .map((part) => ({ part, a: Math.max(part.from, from), b: Math.min(part.to, to) }))
    .filter(({ part, a, b }) => b > a && !isSliver(part.from, a, b, from))
    .map(({ part, a, b }) => {
      // where the line goes on while a note still rings, its label ends with the line and a thin line goes on
      const body = closed ? b : Math.max(a, Math.min(b, next));
      const left = x(a) + (part.held ? -1 : 1.5);
      // no wider than to what follows: the next note, or its own part over the next chord
      const follows = Math.min(next, part.to < note.end - 1e-6 ? part.to : Infinity);
      const room = follows === Infinity ? Infinity : x(follows) - left - 1;
      const least = closed ? LEAST.closed : Math.max(LEAST.crowded, Math.min(LEAST.open, room));
      const width = Math.max(least, x(body) - x(a) - (part.held ? 0.5 : 3));
      return {
        note,
        part: isUnder || body <= a ? { ...part, label: '' } : part,
        lead,
        byPitch,
        x: left,
        width,
        ring: body < b ? x(b) - 1.5 : null,
        y: byPitch ? slope.y(note.midi) : slope.yOfHeight(part.height),
        height: thicknessOf(lane, note.landing && !lead),
      };
    });
}

/** A sliver in the lead-in says nothing. */
const isSliver = (partFrom: Beats, a: Beats, b: Beats, from: Beats): boolean =>
  partFrom < from - 1e-6 && b <= from + 1 && b - a < 0.35;

/** From this height on a lane by pitch has room for thicker notes. */
const TALL_LANE = 200;

function thicknessOf({ view, height }: LaneSpec, isLanding: boolean): number {
  if (view === 'closed') return 4;
  if (view === 'pitch' && height > TALL_LANE) return isLanding ? 24 : 18;
  return isLanding ? 20 : 14;
}

/** Joins notes less than half a beat apart: the walker's path. */
export function contour(placed: readonly Placed[]): string {
  return placed
    .slice(1)
    .map((one, index) => {
      const before = elementAt(placed, index);
      return one.part.from - before.part.to <= 0.51
        ? `M${before.x + before.width} ${before.y}L${one.x} ${one.y}`
        : '';
    })
    .join('');
}

const HEIGHTS = [0, 1, 2, 3, 4];

/** A closed lane: one shape for all notes of a height, so that ten choruses draw as quickly as one. */
export function ClosedNotes({ placed }: { placed: readonly Placed[] }) {
  return (
    <g pointerEvents="none">
      {HEIGHTS.map((tier) => {
        const d = placed
          .filter(({ part, lead }) => part.height === tier && !lead)
          .map(
            ({ x, y, width }) =>
              `M${x.toFixed(1)} ${(y - 2).toFixed(1)}h${width.toFixed(1)}v4h-${width.toFixed(1)}z`,
          )
          .join('');
        return (
          d &&
          (tier < 3 ? (
            <path key={tier} d={d} fill={`var(--h${tier})`} />
          ) : (
            <path
              key={tier}
              d={d}
              fill="var(--row)"
              stroke={`var(--h${tier})`}
              strokeWidth={1.25}
              strokeDasharray={tier === 4 ? '3 2' : undefined}
            />
          ))
        );
      })}
    </g>
  );
}
