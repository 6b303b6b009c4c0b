import { CATALOGUE } from '../drills';
import {
  ENOUGH,
  type FindingCertainty,
  type Counted,
  type FindingContext,
  type Kind,
  type Measure,
} from './finding';
import { spanOf } from './span';
import { barsInWords } from './words';
import { wilsonInterval, type Rate } from './wilson';
import { evidenceOf } from './evidence';

/** A kind with its facts closed in: what the registry holds. */
export type AnyKind = Pick<Kind<never>, 'id' | 'name' | 'hides' | 'contradicts' | 'isNoProgress'> & {
  readonly measures: (context: FindingContext) => Measure[];
  /** Its words for made-up counts, for the table of sentences. */
  readonly sample: (met: number, of: number, inBars: string) => ReturnType<Kind<unknown>['say']>;
};

/** Closes a kind's own facts in, so that all kinds can stand in one list. */
export const defineKind = <F>(kind: Kind<F>): AnyKind => ({
  ...kind,
  measures: (context) =>
    kind
      .detect(context)
      .filter(({ of }) => of > 0)
      .map((one) => measured(kind, context, one)),
  sample: (met, of, inBars) =>
    kind.say({ met, of, missed: of - met, inBars, where: { bars: [] }, facts: kind.example }),
});

/**
 * One measure, with its 95 % interval, in words.
 * Rule T13.1: a finding needs `of` ≥ 5 and an upper end below the limit, else it is too few to judge.
 */
function measured<F>(kind: Kind<F>, context: FindingContext, one: Counted<F>): Measure {
  const { met, of, limit, where, facts, worth = 0 } = one;
  const evidence = evidenceOf(context, one);
  const interval = wilsonInterval(evidence.met, evidence.of);
  const raised = one.raised ?? (of >= ENOUGH && interval[1] < limit);
  const drill = typeof kind.drill === 'function' ? kind.drill(where) : kind.drill;
  const inBars = barsInWords(where.bars, context.timeline.bars.length);
  return {
    kind: kind.id,
    where,
    met,
    of,
    interval,
    certainty: raised ? 'sure' : certaintyOf(of, evidence, limit),
    limit,
    raised,
    ...kind.say({ met, of, missed: of - met, where, facts, inBars }),
    drill: {
      kind: drill,
      span: spanOf(context.chart, context.timeline, where),
      ...(where.change !== undefined && { change: where.change }),
      ...(where.chord !== undefined && { chord: where.chord }),
      plan: CATALOGUE[drill].plan?.id ?? context.plan.id,
      tempo: one.tempo ?? slower(context.tempo),
    },
    weight: one.weight ?? (0.4 + 0.6 * (1 - evidence.met / evidence.of / limit)) * worth,
  };
}

/** One-sided 80 %: the interval's half-width scaled from 1.96 to 0.84 standard deviations. */
function certaintyOf(of: number, evidence: Rate, limit: number): FindingCertainty {
  const [, high] = wilsonInterval(evidence.met, evidence.of, 0.8416);
  return of >= ENOUGH && high < limit ? 'likely' : 'open';
}

/** Three quarters of the tempo, in steps a metronome has. */
export const slower = (tempo: number): number => Math.max(40, Math.round((tempo * 0.75) / 4) * 4);
