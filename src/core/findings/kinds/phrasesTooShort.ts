import { median } from '../../shared';
import { defineKind } from '../measure';
import { share } from '../words';

const SHORT_BEATS = 4;

/** Phrases that break off within four beats. */
export const phrasesTooShort = defineKind<Record<string, never>>({
  id: 'phrases-too-short',
  name: 'short phrases',
  hides: ['never-crosses-changes'],
  contradicts: ['no-space'],
  drill: 'long-phrases',
  detect: ({ report: { phrases } }) => {
    const lengths = phrases.map(({ startBeat, endBeat }) => endBeat - startBeat);
    return [
      {
        where: { bars: [] },
        met: lengths.filter((length) => length >= SHORT_BEATS).length,
        of: lengths.length,
        limit: 0.5,
        worth: 0.5,
        ...((median(lengths) ?? 0) >= SHORT_BEATS ? { raised: false } : {}),
        facts: {},
      },
    ];
  },
  say: ({ missed, of }) => ({
    title: 'Longer phrases',
    sentence: `You stopped ${share(missed, of, 'phrase')} within four beats.`,
    advice: 'Make the next phrase two bars long.',
  }),
  example: {},
});
