import type { Report, ChangeReport } from '../../analyse';
import type { Chart, Harmony, Timeline } from '../../chart';
import type { Plan, PlanChoice } from '../../plan';
import { wilsonInterval } from '../wilson';

/** Everything that can be found (2-theory, "Findings"). */
export type FindingKind =
  | 'target-missed' | 'tone-missed' | 'still-on-old-chord' | 'change-ignored' | 'landing-late' | 'root-only' | 'leaps-into-changes' | 'turns-late' | 'turns-early'
  | 'no-approaches' | 'approach-one-side' | 'approach-unresolved' | 'no-enclosures' | 'tone-never-played' | 'home-scale-only' | 'outline-only' | 'narrow-range' | 'one-position'
  | 'starts-on-one' | 'starts-alike' | 'no-space' | 'phrases-too-short' | 'never-crosses-changes' | 'ends-asking' | 'no-motif' | 'same-shape'
  | 'rushes' | 'drags' | 'uneven' | 'no-upbeats' | 'one-rhythm' | 'scale-running' | 'leaps-only' | 'one-direction'
  | 'stays-outside' | 'stays-on-ground' | 'step-out-lost' | 'lost-place' | 'chord-hit-wrong';

/** What to practise: which chords, aimed at what, when it counts as done, and how fast. */
export type DrillSpec = { readonly change?: string; readonly chord?: string; readonly plan: string; readonly target: string; readonly pass: string; readonly tempo: number };

/** A plain fact with its counts and place (2-theory, "Findings"). `bars` count from 1 through all choruses. */
export type Finding = {
  readonly kind: FindingKind;
  readonly where: { readonly change?: string; readonly chord?: string; readonly bars: readonly number[] };
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

export type FindingsRequest = { readonly chart: Chart; readonly tempo: number; readonly plan: PlanChoice; readonly report: Report };

/** What every kind may look at. */
export type Context = { readonly chart: Chart; readonly tempo: number; readonly report: Report; readonly plan: Plan; readonly timeline: Timeline; readonly harmony: Harmony };

/** A finding needs five places to be judged by; fewer are too few to judge. */
export const ENOUGH = 5;

type Draft = Omit<Finding, 'interval' | 'weight' | 'drill'> & {
  /** The rate of `met` under which it is worth saying. */
  readonly limit: number;
  /** How much it hides the harmony, times how near the fix is. */
  readonly worth: number;
  readonly drill: Omit<DrillSpec, 'plan' | 'tempo'> & { readonly plan?: string };
};

/**
 * A finding where its 95 % interval lies wholly under the limit; none where that is too few to judge.
 * @returns a list of one or none
 */
export function finding(context: Context, { limit, worth, drill, ...draft }: Draft): Finding[] {
  const interval = wilsonInterval(draft.met, draft.of);
  if (draft.of < ENOUGH || interval[1] >= limit) return [];
  return [{ ...draft, interval, drill: { plan: context.plan.id, ...drill, tempo: slower(context.tempo) }, weight: (0.4 + 0.6 * (1 - draft.met / draft.of / limit)) * worth }];
}

/** Three quarters of the tempo, in steps a metronome has. */
export const slower = (tempo: number): number => Math.max(40, Math.round((tempo * 0.75) / 4) * 4);

/** A change's bar counted through all choruses. */
export const throughBar = ({ timeline }: Context, change: Pick<ChangeReport, 'chorus' | 'bar'>): number => (change.chorus - 1) * timeline.bars.length + change.bar;

/** The bar a beat lies in, counted from 1 through all choruses. */
export function barAt({ timeline }: Context, beat: number): number {
  const chorus = Math.max(0, Math.floor(beat / timeline.formBeats + 1e-9));
  const inForm = Math.max(0, beat - chorus * timeline.formBeats);
  return chorus * timeline.bars.length + 1 + Math.max(0, timeline.bars.findLastIndex((bar) => bar.start <= inForm + 1e-6));
}

/** The value met most often, and how often. */
export function mostCommon<T>(values: readonly T[]): { readonly value: T; readonly count: number } | null {
  const counts = new Map<T, number>();
  for (const value of values) counts.set(value, (counts.get(value) ?? 0) + 1);
  const [first] = [...counts].sort((a, b) => b[1] - a[1]);
  return first ? { value: first[0], count: first[1] } : null;
}
