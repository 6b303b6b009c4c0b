import { fitsOneLocation } from '../../neck';
import { defineKind } from '../measure';
import { ENOUGH_NOTES, lineOf, rangeOf } from './reach';

/** An octave is a narrow range, which is said by itself; a tenth fits under any hand. */
const OCTAVE = 12;
const TENTH = 16;
const FEWEST_CHORUSES = 2;

/** The hand never had to move, over two choruses and within a tenth (T13.7); a player who says it did is believed. */
export const onePosition = defineKind<Record<string, never>>({
  id: 'one-position',
  name: 'one position',
  drill: 'next-position',
  isNoProgress: true,
  detect: (context) => {
    const line = lineOf(context).filter((midi) => midi >= 40 && midi <= 86);
    const range = rangeOf(line);
    if (context.report.summary.choruses < FEWEST_CHORUSES || line.length < ENOUGH_NOTES) return [];
    const said = new Set(context.report.notes.flatMap(({ position }) => position ?? []));
    if (said.size > 1) return [];
    if (range <= OCTAVE || range > TENTH) return [];
    return [
      {
        where: { bars: [] },
        met: 0,
        of: line.length,
        limit: 1,
        raised: fitsOneLocation(line.map((midi) => Math.round(midi))),
        weight: 0.03,
        facts: {},
      },
    ];
  },
  say: () => ({
    title: 'Another position',
    sentence: 'Your hand never had to move along the neck.',
    advice: 'Play one chorus in the next position.',
  }),
  example: {},
});
