import { heightIntent } from '../../plan';
import { defineKind } from '../measure';
import { share } from '../words';
import { tensionBeats } from './tensionBeats';

/** Chord tones only, where the plan means to go higher. */
export const staysOnGround = defineKind<Record<string, never>>({
  id: 'stays-on-ground',
  name: 'stays on the ground',
  drill: 'height-high',
  detect: (context) => {
    const intent = heightIntent(context.plan, 0);
    if (intent !== 'high' && intent !== 'low') return [];
    const { ground, all } = tensionBeats(context);
    return [
      {
        where: { bars: [] },
        met: all - ground,
        of: all,
        limit: intent === 'high' ? 0.3 : 0.1,
        worth: 0.3,
        facts: {},
      },
    ];
  },
  say: ({ missed, of }) => ({
    title: 'Off the ground',
    sentence: `Your plan goes higher, but you played chord tones for ${share(missed, of, 'beat')}.`,
    advice: 'Play one ninth or thirteenth in every bar.',
  }),
  example: {},
});
