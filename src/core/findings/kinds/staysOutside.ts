import { heightIntent } from '../../plan';
import { defineKind } from '../measure';
import { share } from '../words';
import { tensionBeats } from './tensionBeats';

/** Too much of the take outside the chords and their scales. */
export const staysOutside = defineKind<Record<string, never>>({
  id: 'stays-outside',
  name: 'stays outside',
  hides: ['tone-never-played', 'approach-unresolved', 'clash'],
  contradicts: ['stays-on-ground'],
  drill: 'on-the-ground',
  detect: (context) => {
    if (heightIntent(context.plan, 0) === 'high') return [];
    const { low, all } = tensionBeats(context);
    return [{ where: { bars: [] }, met: low, of: all, limit: 0.76, worth: 2.2, facts: {} }];
  },
  say: ({ missed, of }) => ({
    title: 'Coming home',
    sentence: `You were outside the chords and their scales for ${share(missed, of, 'beat')}.`,
    advice: 'Come home to a chord tone at the end of every bar.',
  }),
  example: {},
});
