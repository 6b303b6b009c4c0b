import { defineKind } from '../measure';
import { rangeInWords } from '../../music';
import { ENOUGH_NOTES, lineOf, rangeOf } from './reach';

type Facts = { readonly semitones: number };

/** Two octaves are a wide range. */
const WIDE = 24;

/** The whole line within an octave. */
export const narrowRange = defineKind<Facts>({
  id: 'narrow-range',
  name: 'a narrow range',
  drill: 'low-and-high',
  isNoProgress: true,
  detect: (context) => {
    const pitches = lineOf(context);
    if (pitches.length < ENOUGH_NOTES) return [];
    const semitones = Math.round(rangeOf(pitches));
    return [
      {
        where: { bars: [] },
        met: Math.min(semitones, WIDE),
        of: WIDE,
        limit: 0.5,
        raised: semitones <= 12,
        weight: 0.55,
        tempo: context.tempo,
        facts: { semitones },
      },
    ];
  },
  say: ({ facts: { semitones } }) => ({
    title: 'A wider range',
    sentence: `The whole take lay within ${rangeInWords(semitones)}.`,
    advice: 'Play every other phrase an octave higher.',
  }),
  example: { semitones: 9 },
});
