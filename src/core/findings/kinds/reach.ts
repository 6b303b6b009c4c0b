import type { FindingContext } from '../finding';

/** Pitches of the line, without grace notes. */
export const lineOf = ({ report }: FindingContext): number[] =>
  report.notes.filter((note) => note.top && note.function !== 'grace').map(({ midi }) => midi);

/** From the lowest to the highest, in semitones. */
export const rangeOf = (pitches: readonly number[]): number =>
  pitches.reduce((most, pitch) => Math.max(most, pitch), -Infinity) -
  pitches.reduce((least, pitch) => Math.min(least, pitch), Infinity);

/** Fewer notes show no range. */
export const ENOUGH_NOTES = 40;
