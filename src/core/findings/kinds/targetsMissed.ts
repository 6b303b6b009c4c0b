import { restingOnLandings } from '../evidence';
import { throughBar } from '../bars';
import { defineKind } from '../measure';
import { counted } from '../words';
import { landedOn, pcAt, targetsAt, type LandedChange } from './landed';

/** Fewer than two landings in five on a target. */
const LIMIT = 0.4;

/**
 * Targets missed at changes of every kind, where no one kind came often enough to be judged by itself: a first
 * solo of two choruses has four of each at most (T13.7).
 */
export const targetsMissed = defineKind<Record<string, never>>({
  id: 'targets-missed',
  name: 'targets missed everywhere',
  drill: 'ladder-thirds',
  detect: (context) => {
    // on a rung of the ladder one tone is asked for, and is counted by itself
    if (context.plan.id === 'single-target') return [];
    const all = landedOn(context).filter((change) => targetsAt(context, change).length > 0);
    const isMet = (change: LandedChange) =>
      targetsAt(context, change).includes(pcAt(context, change.landing.noteIndex));
    const missed = all.filter((change) => !isMet(change));
    return [
      {
        where: { bars: missed.map((change) => throughBar(context, change)) },
        met: all.length - missed.length,
        of: all.length,
        rests: restingOnLandings(all, missed),
        limit: LIMIT,
        worth: 0.6,
        facts: {},
      },
    ];
  },
  say: ({ met, of }) => ({
    title: 'Targets at the changes',
    sentence:
      met === 0
        ? `You landed on no target in ${counted(of, 'change')}.`
        : `You landed on a target at ${met} of ${counted(of, 'change')}.`,
    advice: 'Play the third of each new chord, and nothing else.',
  }),
  example: {},
});
