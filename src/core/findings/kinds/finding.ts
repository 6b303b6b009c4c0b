import type { Report, ChangeReport } from '../../analyse';
import type { Chart, Harmony, Timeline } from '../../chart';
import type { Plan, PlanChoice } from '../../plan';
import { wilsonInterval } from '../wilson';
import { spanOf } from './span';

/** Everything that can be found (T13.1). */
export type FindingKind =
  | 'target-missed'
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

/** What to practise: which chords, aimed at what, when it counts as done, and how fast. */
export type DrillSpec = {
  /** First and last bar of the form to loop, from 1. */ readonly span: readonly [number, number];
  readonly change?: string;
  readonly chord?: string;
  readonly plan: string;
  readonly target: string;
  readonly pass: string;
  readonly tempo: number;
};

/**
 * Where it was: `bars` count from 1 through all choruses; of several takes they are the last one's, and
 * `takes` has them all, oldest first from 1.
 */
/** A tone of the chord as a player names it. */
export type ToneName = 'root' | 'third' | 'fifth' | 'seventh';

export type FindingPlace = {
  readonly change?: string;
  readonly chord?: string;
  /** The tone of the chord it is about. */
  readonly tone?: ToneName;
  readonly bars: readonly number[];
  readonly takes?: readonly { readonly take: number; readonly bars: readonly number[] }[];
};

/** A plain fact with its counts and place (T13.1). `bars` count from 1 through all choruses. */
export type Finding = {
  readonly kind: FindingKind;
  readonly where: FindingPlace;
  readonly met: number;
  readonly of: number;
  readonly interval: readonly [number, number];
  readonly title: string;
  /** The fact with its counts; `detail` says what happened instead. */
  readonly sentence: string;
  readonly detail?: string;
  readonly drill: DrillSpec;
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

/** One thing counted, weak or not: what findings are made of, and what later takes are held against. */
export type Measure = Omit<Finding, 'interval' | 'weight'> & {
  readonly interval: readonly [number, number];
  readonly weight: number;
  /** The rate of `met` under which it is worth saying. */
  readonly limit: number;
  /** Is it worth saying, and sure? */
  readonly raised: boolean;
  /** What it is called once it is done well, where that is not the title. */
  readonly praised?: string;
};

type FindingDraft = Omit<Measure, 'interval' | 'weight' | 'drill' | 'raised'> & {
  readonly drill: Omit<DrillSpec, 'plan' | 'tempo' | 'span'> & {
    readonly plan?: string;
    readonly tempo?: number;
  };
  /** How much it hides the harmony, times how near the fix is; or the whole weight. */
  readonly worth?: number;
  readonly weight?: number;
  /** In place of the rule that the interval lies wholly under the limit. */
  readonly raised?: boolean;
};

/**
 * One measure, with its 95 % interval.
 * Rule T13.1: a finding needs `of` ≥ 5 and an upper end below the limit, else it is too few to judge.
 * @returns a list of one; none where there was nothing to count
 */
export function measure(
  context: FindingContext,
  { limit, worth = 0, weight, raised, drill, ...draft }: FindingDraft,
): Measure[] {
  if (draft.of === 0) return [];
  const interval = wilsonInterval(draft.met, draft.of);
  return [
    {
      ...draft,
      limit,
      interval,
      drill: {
        span: spanOf(context.chart, context.timeline, draft.where),
        plan: context.plan.id,
        tempo: slower(context.tempo),
        ...drill,
      },
      raised: raised ?? (draft.of >= ENOUGH && interval[1] < limit),
      weight: weight ?? (0.4 + 0.6 * (1 - draft.met / draft.of / limit)) * worth,
    },
  ];
}

/** Three quarters of the tempo, in steps a metronome has. */
export const slower = (tempo: number): number => Math.max(40, Math.round((tempo * 0.75) / 4) * 4);

/** A change's bar counted through all choruses. */
export const throughBar = (
  { timeline }: FindingContext,
  change: Pick<ChangeReport, 'chorus' | 'bar'>,
): number => (change.chorus - 1) * timeline.bars.length + change.bar;

/** The bar a beat lies in, counted from 1 through all choruses. */
export function barAt({ timeline }: FindingContext, beat: number): number {
  const chorus = Math.max(0, Math.floor(beat / timeline.formBeats + 1e-9));
  const inForm = Math.max(0, beat - chorus * timeline.formBeats);
  return (
    chorus * timeline.bars.length +
    1 +
    Math.max(
      0,
      timeline.bars.findLastIndex((bar) => bar.start <= inForm + 1e-6),
    )
  );
}
