import { typeset } from '@/core/music';
import { elementAt } from '@/core/shared';
import type { StoredDrill } from '@/server/drillRows';
import type { StoredGoal } from '@/server/goal';

/** A drill by its name and the tempo it stands at. */
export const drillName = ({ drill, ladder }: StoredDrill): string =>
  `${typeset(drill.name)} at ${elementAt(ladder.rungs, ladder.at)}`;

export const forGoal = (goal: StoredGoal | null): string => `for ${goal?.words ?? 'your goal'}`;

/** Why a whole take of a tune stands on a day. */
export const takeWhy = (why: 'goal' | 'not-played', goal: StoredGoal | null): string =>
  why === 'goal' ? `a whole take ${forGoal(goal)}` : 'the tune you left longest';

/** Why a drill is there before it is due. */
export const aheadWhy = (goal: StoredGoal | null): string => `not due yet, but ${forGoal(goal)}`;
