import type { HandAsked } from './handWords';
import { accepted, nearestOf, refused, type Outcome } from '../shared';
import { readDegree, readScale, SCALE_KINDS, type Scale } from '../music';
import { PLAN_IDS, type HeightIntent, type PlanId, type Rung } from './schools';

/** One school with what it leaves to the player. */
export type PlanSettings = {
  readonly id: PlanId;
  /** The player's home scale in place of the default. */
  readonly home?: Scale | undefined;
  /** The chord tone that `single-target` aims at. */
  readonly target?: Rung;
  /** The scale of `by-degrees`, on each chord's root: `1 b3 4 5 6`. */
  readonly degrees?: string;
  /** Degrees of the chord to land on in place of the school's own targets: `3` is the chord's own third. */
  readonly aims?: readonly string[];
  /** How far above the chords it is meant to float, where that is not the school's own. */
  readonly height?: HeightIntent;
  /** Chart text of the changes that `superimposed` follows, over the same bars as the chart. */
  readonly overlay?: string;
  /** One mode for every chord of `parallel-mode`. */
  readonly mode?: string;
  /** Where the hand is meant to be; free where nothing is said. */
  readonly hand?: HandAsked;
  /** On tonic majors the sixth replaces the seventh (T2.4); on by default in `sixth-diminished` alone. */
  readonly tonicSix?: boolean;
};

/** Where a part of a mixed plan holds; all that is named must fit. Bars and choruses count from 1. */
export type Where = {
  readonly chord?: string;
  readonly degree?: string;
  readonly section?: string;
  readonly chorus?: number;
  readonly bars?: readonly [number, number];
};

/**
 * A plan for the form: one school, or others per chord, section or chorus, and how high each chorus is meant
 * to float.
 */
export type PlanChoice = PlanSettings & {
  readonly parts?: readonly { readonly where: Where; readonly plan: PlanSettings }[];
  /** By chorus, the last one holding on; the school's own unless told. */
  readonly heights?: readonly HeightIntent[];
  /** The order single tones are learnt in. */
  readonly ladder?: readonly Rung[];
};

export function readPlanId(text: string): Outcome<PlanId> {
  if ((PLAN_IDS as string[]).includes(text)) return accepted(text as PlanId);
  return refused({
    code: 'plan.unknown',
    message: `No plan is called “${text}”. Plans: ${PLAN_IDS.join(', ')}.`,
    suggestion: nearestOf(text, PLAN_IDS) ?? 'outline',
  });
}

/** The words a player may set beside the school, checked: home scale, degrees, mode. */
export function readPlanWords(words: {
  readonly home?: string | undefined;
  readonly degrees?: string | undefined;
  readonly mode?: string | undefined;
}): Outcome<Pick<PlanSettings, 'home' | 'degrees' | 'mode'>> {
  const home = words.home === undefined ? undefined : readScale(words.home);
  if (home && !home.ok) return home;
  const wrong = words.degrees
    ?.trim()
    .split(/\s+/)
    .find((degree) => !readDegree(degree));
  if (words.degrees !== undefined && (wrong !== undefined || words.degrees.trim() === ''))
    return refused({
      code: 'plan.degrees',
      message: `“${wrong ?? ''}” is not a degree from 1 to 13.`,
      suggestion: '1 b3 4 5 6',
    });
  if (words.mode !== undefined && !SCALE_KINDS.includes(words.mode))
    return refused({
      code: 'plan.mode',
      message: `No mode is called “${words.mode}”.`,
      suggestion: nearestOf(words.mode, SCALE_KINDS) ?? 'dorian',
    });
  return accepted({
    ...(home ? { home: home.value } : {}),
    ...(words.degrees === undefined ? {} : { degrees: words.degrees.trim() }),
    ...(words.mode === undefined ? {} : { mode: words.mode }),
  });
}
