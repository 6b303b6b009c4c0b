import { defineKind } from '../measure';
import { counted } from '../words';

const ENOUGH_PHRASES = 10;

/** No idea comes back. Said only beside other findings (T13.7). */
export const noMotif = defineKind<Record<string, never>>({
  id: 'no-motif',
  name: 'no motif',
  drill: 'same-motif',
  isNoProgress: true,
  detect: ({ report: { phrases }, tempo }) => {
    if (phrases.length < ENOUGH_PHRASES) return [];
    const met = phrases.filter(({ motif, theme }) => motif !== undefined || theme !== undefined).length;
    return [
      {
        where: { bars: [] },
        met,
        of: phrases.length,
        limit: 0.1,
        raised: met === 0,
        weight: 0.02,
        tempo,
        facts: {},
      },
    ];
  },
  say: ({ met, of }) => ({
    title: 'Say it again',
    sentence:
      met === 0
        ? `No idea came back in ${counted(of, 'phrase')}.`
        : `An idea came back in ${counted(met, 'phrase')} of ${of}.`,
    advice: 'Play your last phrase again over the next chord.',
  }),
  example: {},
});
