import type { Report } from '../analyse';
import type { Chart, Harmony, Timeline } from '../chart';
import type { DrillKind } from '../drills';
import type { Plan, PlanChoice } from '../plan';
import type { RestsOn } from './evidence';

/** Everything that can be found (T13.1). */
export type FindingKind =
  | 'target-missed'
  | 'targets-missed'
  | 'tone-missed'
  | 'still-on-old-chord'
  | 'change-ignored'
  | 'landing-late'
  | 'root-only'
  | 'leaps-into-changes'
  | 'turns-late'
  | 'turns-early'
  | 'no-approaches'
  | 'approach-one-side'
  | 'approach-unresolved'
  | 'no-enclosures'
  | 'tone-never-played'
  | 'home-scale-only'
  | 'outline-only'
  | 'clash'
  | 'narrow-range'
  | 'one-position'
  | 'starts-on-one'
  | 'starts-alike'
  | 'no-space'
  | 'phrases-too-short'
  | 'never-crosses-changes'
  | 'ends-asking'
  | 'no-motif'
  | 'same-shape'
  | 'rushes'
  | 'drags'
  | 'leans-ahead'
  | 'leans-back'
  | 'uneven'
  | 'no-upbeats'
  | 'one-rhythm'
  | 'scale-running'
  | 'leaps-only'
  | 'one-direction'
  | 'stays-outside'
  | 'stays-on-ground'
  | 'step-out-lost'
  | 'lost-place'
  | 'handover-late'
  | 'chord-hit-wrong'
  | 'improved'
  | 'kept';

/** What to practise: the drill of the catalogue that requires what was missing, where, by which plan, how fast. */
export type DrillSpec = {
  readonly kind: DrillKind;
  /** First and last bar of the form to loop, from 1. */ readonly span: readonly [number, number];
  readonly change?: string;
  readonly chord?: string;
  readonly plan: string;
  readonly tempo: number;
};

/** A tone of the chord as a player names it. */
export type ToneName = 'root' | 'third' | 'fifth' | 'seventh';

/**
 * Where it was: `bars` count from 1 through all choruses; of several takes they are the last one's, and
 * `takes` has them all, oldest first from 1.
 */
export type FindingPlace = {
  readonly change?: string;
  readonly chord?: string;
  /** The tone of the chord it is about. */
  readonly tone?: ToneName;
  readonly bars: readonly number[];
  readonly takes?: readonly { readonly take: number; readonly bars: readonly number[] }[];
};

/** How sure a finding is by its counts: beyond 97.5 %, beyond 80 %, or less. */
export type FindingCertainty = 'sure' | 'likely' | 'open';

/** A plain fact with its counts and place (T13.1), in words that end with what to do (T13.8). */
export type Finding = {
  readonly kind: FindingKind;
  readonly where: FindingPlace;
  readonly met: number;
  readonly of: number;
  readonly interval: readonly [number, number];
  readonly certainty: FindingCertainty;
  readonly title: string;
  /** What happened, with its counts; `detail` says what came instead. */
  readonly sentence: string;
  readonly detail?: string;
  /** What to do, in one imperative; absent for praise. */
  readonly advice?: string;
  /** Absent where no drill mends it. */
  readonly drill?: DrillSpec;
  /** The counts of the takes before this one, where they had any. */
  readonly before?: { readonly met: number; readonly of: number };
  /** How often × how much it hides the harmony × how near the fix. */
  readonly weight: number;
};

export type FindingsRequest = {
  readonly chart: Chart;
  readonly tempo: number;
  readonly plan: PlanChoice;
  readonly report: Report;
};

/**
 * What every kind may look at. Several takes are laid one after the other; `tempoAt` is the tempo of the take
 * a beat lies in.
 */
export type FindingContext = {
  readonly chart: Chart;
  readonly tempo: number;
  readonly report: Report;
  readonly plan: Plan;
  readonly timeline: Timeline;
  readonly harmony: Harmony;
  readonly tempoAt: (beat: number) => number;
};

/** A finding needs five places to be judged by; fewer are too few to judge. */
export const ENOUGH = 5;

/** One thing counted in a take, without a word: `met` is how often it was done well. */
export type Counted<F> = {
  readonly where: FindingPlace;
  readonly met: number;
  readonly of: number;
  /** The rate of `met` under which it is worth saying. */
  readonly limit: number;
  /** How much it hides the harmony, times how near the fix is; or the whole weight. */
  readonly worth?: number;
  readonly weight?: number;
  /** The notes the counts rest on, where the kind can name them: doubtful ones weigh less. */
  readonly rests?: RestsOn;
  /** In place of the rule that the interval lies wholly under the limit. */
  readonly raised?: boolean;
  /** Where the drill is not played at three quarters of the tempo. */
  readonly tempo?: number;
  readonly facts: F;
};

/** What a kind's words are made of. */
export type Said<F> = Pick<Counted<F>, 'met' | 'of' | 'where' | 'facts'> & {
  /** How often it was not done well. */
  readonly missed: number;
  /** ` in bars 2, 5 and 6`, or nothing where it was nowhere in particular. */
  readonly inBars: string;
};

/** A finding in words: what happened, then what to do. Each sentence has at most twenty words. */
export type Saying = {
  readonly title: string;
  readonly sentence: string;
  readonly detail?: string;
  readonly advice: string;
  /** What it is called once it is done well, where that is not the title. */
  readonly praised?: string;
};

/** A kind of finding: one file has all of it. `F` is what it knows beside its counts. */
export type Kind<F> = {
  readonly id: FindingKind;
  /** In a few words, for choosing takes by. */
  readonly name: string;
  /** Symptoms of this cause (T13.3). */
  readonly hides?: readonly FindingKind[];
  /** What cannot be said beside it: the lighter of the two is left out. */
  readonly contradicts?: readonly FindingKind[];
  /** The drill that requires what was missing. */
  readonly drill: DrillKind | ((where: FindingPlace) => DrillKind);
  /** Counts that say nothing of progress: how wide, where on the neck, what never came. */
  readonly isNoProgress?: true;
  readonly detect: (context: FindingContext) => readonly Counted<F>[];
  readonly say: (one: Said<F>) => Saying;
  /** Made-up facts, for the table of sentences. */
  readonly example: F;
};

/** One thing counted and put into words, weak or not: what later takes are held against. */
export type Measure = Finding & {
  readonly limit: number;
  /** Is it worth saying, and sure? */
  readonly raised: boolean;
  readonly praised?: string;
};
