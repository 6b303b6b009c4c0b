import { defineKind } from '../measure';
import { share } from '../words';
import { ENOUGH_ONSETS, onsetsOf } from './timing';

/** Hardly a note off the beat. */
export const noUpbeats = defineKind<Record<string, never>>({
  id: 'no-upbeats',
  name: 'no upbeats',
  hides: ['one-rhythm'],
  drill: 'upbeats',
  detect: (context) => {
    const onsets = onsetsOf(context);
    if (onsets.length < ENOUGH_ONSETS) return [];
    const met = onsets.filter((onset) => Math.abs(onset - Math.round(onset)) > 0.2).length;
    return [{ where: { bars: [] }, met, of: onsets.length, limit: 0.15, worth: 0.6, facts: {} }];
  },
  say: ({ met, of }) => ({
    title: 'Off the beat',
    sentence:
      met === 0
        ? `You began no note of ${of} off the beat.`
        : `You began ${share(met, of, 'note')} off the beat.`,
    advice: 'Start the next phrase between two beats.',
  }),
  example: {},
});
