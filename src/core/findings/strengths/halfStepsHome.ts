import { barAt } from '../bars';
import { defineStrength } from '../strength';

type Facts = { readonly met: number; readonly of: number };

const ENOUGH_NOTES = 6;
const WELL = 0.8;

/** Outside notes that resolve. */
export const halfStepsHome = defineStrength<Facts>({
  id: 'half-steps-home',
  detect: (context) => {
    const all = context.report.notes.filter(
      (note) => note.top && note.chromatic && note.function !== 'grace' && !note.flags.includes('blue'),
    );
    const home = all.filter(
      ({ flags, targetIndex }) => flags.includes('resolved') || targetIndex !== undefined,
    );
    const [first] = home;
    if (!first || all.length < ENOUGH_NOTES || home.length < WELL * all.length) return null;
    return {
      bar: barAt(context, first.onsetBeat),
      score: 0.6 * (home.length / all.length),
      facts: { met: home.length, of: all.length },
    };
  },
  say: ({ met, of }) =>
    `${met === of ? `All ${of}` : `${met} of ${of}`} notes outside the scale moved on into a chord tone.`,
  examples: [
    { met: 18, of: 20 },
    { met: 7, of: 7 },
    { met: 30, of: 33 },
  ],
});
