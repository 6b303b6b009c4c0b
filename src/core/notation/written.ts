import type { PlayedNote } from '../analyse';
import { beatsPerBar, isCompound, type Timeline } from '../chart';
import { present, elementAt, type Beats, type Midi } from '../shared';

/**
 * A take's line as it is written out of it: notes in beats with what a page can say of how they were played.
 */
export type WrittenNote = PlayedNote & {
  readonly ghost?: true | undefined;
  /** Whether the pitch is shaken. */
  readonly isShaken?: boolean | undefined;
};

/** What sounds at one written place; ticks of the whole take, `TICKS` a beat. */
export type WrittenLine = {
  readonly at: number;
  readonly until: number;
  readonly notes: readonly WrittenNote[];
};

/**
 * The pitch a note is fretted at: where a bend is at its lowest, for a string can only be bent upwards. The note
 * itself says where it settled.
 */
export const frettedMidi = ({ midi, bend = [] }: Pick<WrittenNote, 'midi' | 'bend'>): Midi =>
  Math.round(midi + bend.reduce((least, [, cents]) => Math.min(least, cents), 0) / 100);

/** Ticks of a beat: sixteenths, triplets and their halves all fall on whole ones. */
export const TICKS = 12;
/** Finer than this within a beat is not written. */
const GRIDS: readonly (readonly number[])[] = [
  [0, 6, 12],
  [0, 4, 8, 12],
  [0, 3, 6, 9, 12],
  [0, 2, 4, 6, 8, 10, 12],
];
/** What a reader may choose to have a beat counted in; the places of its grids among all. */
const CHOSEN = { sixteenths: [0, 2], triplets: [1, 3] } as const;
export type GridChoice = keyof typeof CHOSEN;
/** The reader's choice for a beat of the take; null where the plainest grid is taken. */
export type GridAt = (beat: number) => GridChoice | null;

/** A finer grid must fit so much better, in ticks squared a note. */
const DEARER = [0, 0.6, 0.8, 2.2];
const TOGETHER: Beats = 0.06;
const LEAST = 1;
/** In ticks. */
const BREATH = 2;

/**
 * A performance as it would be written: each beat on the plainest grid its onsets fit, swung eighths as
 * eighths, durations to the next
 * place or as far as they sound. How it was played is not lost: see `attack` and `release` of the notes.
 * @param swing long eighth to short as the take has it; null for even
 * @param gridAt where the reader has chosen triplets or sixteenths
 */
export function writtenLine(
  notes: readonly WrittenNote[],
  swing: number | null,
  gridAt: GridAt = () => null,
): WrittenLine[] {
  const second = swing === null ? 0.5 : swing / (1 + swing);
  const groups = together([...notes].sort((a, b) => a.onsetBeat - b.onsetBeat || a.midi - b.midi));
  const { places, grids } = placesOf(
    groups.map(([first]) => present(first).onsetBeat),
    second,
    gridAt,
  );
  return groups.map((group, index) => {
    const at = elementAt(places, index);
    const next = places[index + 1] ?? Infinity;
    const end = Math.max(...group.map((note) => note.onsetBeat + note.durationBeats));
    const grid = grids.get(Math.floor(end + 1 / TICKS)) ?? 0;
    const letGo = Math.max(at + leastOf(at, grids), snapped(end, grid, second));
    // a short breath before the next note is not written
    const until = next - letGo <= BREATH ? next : Math.min(next, letGo);
    return { at, until, notes: group };
  });
}

function together(notes: readonly WrittenNote[]): WrittenNote[][] {
  const groups: WrittenNote[][] = [];
  for (const note of notes) {
    const group = groups[groups.length - 1];
    const joins =
      group &&
      note.onsetBeat - elementAt(group, 0).onsetBeat <= TOGETHER &&
      group.every((other) => other.midi !== note.midi);
    if (joins) group.push(note);
    else groups.push([note]);
  }
  return groups;
}

/** Triplets are written as they lie; halves and quarters of a beat are what may be swung. */
const isSwung = (grid: number): boolean => grid === 0 || grid === 2;

/** A swung beat laid straight: its second eighth is moved to the middle. */
const straight = (inBeat: number, second: number): number =>
  inBeat <= second ? (inBeat / second) * 0.5 : 0.5 + ((inBeat - second) / (1 - second)) * 0.5;

/** Where onsets are written, and the grid of each beat. */
function placesOf(
  onsets: readonly Beats[],
  second: number,
  gridAt: GridAt,
): { places: number[]; grids: Map<number, number> } {
  const places: number[] = [];
  const grids = new Map<number, number>();
  for (let from = 0; from < onsets.length;) {
    const beat = Math.floor(elementAt(onsets, from) + 1 / TICKS);
    let to = from + 1;
    while (to < onsets.length && Math.floor(elementAt(onsets, to) + 1 / TICKS) === beat) to++;
    const inside = onsets.slice(from, to).map((onset) => onset - beat);
    const choice = gridAt(beat);
    const laid = GRIDS.map((grid, index) => {
      // two notes of a beat that are swung are eighths; triplets and finer are written as they lie
      const ticks = inside.map(
        (at) => TICKS * (isSwung(index) ? straight(Math.max(0, at), second) : Math.max(0, at)),
      );
      const on = ticks.map((at) =>
        grid.reduce((best, line) => (Math.abs(line - at) < Math.abs(best - at) ? line : best)),
      );
      const distinct = new Set(on).size === on.length;
      return {
        on,
        cost:
          ticks.reduce((sum, at, n) => sum + (at - elementAt(on, n)) ** 2, 0) / ticks.length +
          elementAt(DEARER, index) +
          (distinct ? 0 : 1000) +
          (choice === null || (CHOSEN[choice] as readonly number[]).includes(index) ? 0 : 1e6),
      };
    });
    const best = laid.reduce((least, one) => (one.cost < least.cost ? one : least));
    grids.set(beat, laid.indexOf(best));
    for (const at of best.on)
      places.push(Math.max(beat * TICKS + at, (places[places.length - 1] ?? -Infinity) + LEAST));
    from = to;
  }
  return { places, grids };
}

/** The shortest length written at a place: what its beat is divided into. */
function leastOf(at: number, grids: ReadonlyMap<number, number>): number {
  const lines = elementAt(GRIDS, grids.get(Math.floor(at / TICKS)) ?? 0);
  return elementAt(lines, 1);
}

/** Where a note ends, on the grid of the beat it ends in: how long it rang on is not told by sixteenths. */
function snapped(beat: Beats, grid: number, second: number): number {
  const whole = Math.floor(beat + 1 / TICKS);
  const inBeat = Math.max(0, beat - whole);
  const at = TICKS * (isSwung(grid) ? straight(inBeat, second) : inBeat);
  const lines = elementAt(GRIDS, grid);
  return (
    whole * TICKS + lines.reduce((best, line) => (Math.abs(line - at) < Math.abs(best - at) ? line : best))
  );
}

/** Quarter notes in a beat of a meter. */
export const quartersOf = (meter: { upper: number; lower: number }): number =>
  (4 / meter.lower) * (isCompound(meter) ? 3 : 1);

/** Every bar of so many choruses in beats from bar 1, the meters and cells of the form. */
export function barsOf(
  timeline: Timeline,
  choruses: number,
): { readonly chorus: number; readonly index: number; readonly start: Beats; readonly beats: Beats }[] {
  return Array.from({ length: choruses }, (_, chorus) =>
    timeline.bars.map((bar) => ({
      chorus,
      index: bar.index,
      start: chorus * timeline.formBeats + bar.start,
      beats: beatsPerBar(bar.meter),
    })),
  ).flat();
}
