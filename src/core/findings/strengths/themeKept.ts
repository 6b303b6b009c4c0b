import { elementAt } from '../../shared';
import { barAt } from '../bars';
import { defineStrength } from '../strength';
import { times } from '../../music';

type Facts = { readonly again: number; readonly bar: number; readonly fitted: boolean };

const ENOUGH_AGAIN = 1;

/** An idea came back, fitted to its chord. */
export const themeKept = defineStrength<Facts>({
  id: 'theme-kept',
  detect: (context) => {
    const { phrases } = context.report;
    const themes = new Map<number, number[]>();
    phrases.forEach(({ theme }, index) => {
      if (theme !== undefined) themes.set(theme, [...(themes.get(theme) ?? []), index]);
    });
    // an idea that never rests from coming back is a habit, not a theme
    const [best] = [...themes.values()]
      .filter((places) => places.length * 2 <= phrases.length + 1)
      .sort((a, b) => b.length - a.length);
    if (!best || best.length - 1 < ENOUGH_AGAIN) return null;
    const fitted = best.some((place) =>
      elementAt(phrases, place).changed?.some(({ toChordTone }) => toChordTone),
    );
    const bar = barAt(context, elementAt(phrases, elementAt(best, 0)).startBeat);
    const again = best.length - 1;
    return {
      bar: barAt(context, elementAt(phrases, elementAt(best, 1)).startBeat),
      score: (fitted ? 0.72 : 0.55) + Math.min(0.15, 0.05 * again),
      facts: { again, bar, fitted },
    };
  },
  say: ({ again, bar, fitted }) =>
    `You brought the idea of bar ${bar} back ${times(again)}${fitted ? ' and fitted it to the chord' : ''}.`,
  examples: [
    { again: 3, bar: 1, fitted: true },
    { again: 1, bar: 9, fitted: false },
    { again: 2, bar: 5, fitted: true },
  ],
});
