import type { ChangeReport } from '../../analyse';
import { ENOUGH, type Counted, type FindingContext } from '../finding';
import { throughBar } from '../bars';

/** How far from the change the line turned, in beats; positive is late. */
export type TurningFacts = { readonly by: number };

const LATE_BY = 0.75;
const EARLY_BY = 1;

/** The median over all changes of where the line turned, against the change. */
export function turnings(context: FindingContext, way: 'late' | 'early'): Counted<TurningFacts>[] {
  const all = context.report.changes.flatMap((change) =>
    change.turnedAtBeat === undefined || change.landing.rest
      ? []
      : [{ change, by: change.turnedAtBeat - change.beat }],
  );
  const sorted = all.map(({ by }) => by).sort((a, b) => a - b);
  const median = sorted[sorted.length >> 1] ?? 0;
  // where single changes are hard to read the line as a whole tells: it fits the chart best so much later
  const { lagBeats } = context.report.time;
  const by = Math.abs(lagBeats) >= LATE_BY ? lagBeats : Math.sign(median) * Math.min(Math.abs(median), 0.5);
  if (way === 'late') return by >= LATE_BY - 1e-6 ? [counted(context, all, (one) => one.by >= 0.5, by)] : [];
  return by <= -EARLY_BY + 1e-6 ? [counted(context, all, (one) => one.by <= -0.5, by)] : [];
}

type TurnedBy = { readonly change: ChangeReport; readonly by: number };

function counted(
  context: FindingContext,
  all: readonly TurnedBy[],
  isOff: (one: TurnedBy) => boolean,
  by: number,
): Counted<TurningFacts> {
  const off = all.filter(isOff);
  return {
    where: { bars: off.map(({ change }) => throughBar(context, change)) },
    met: all.length - off.length,
    of: all.length,
    limit: 0.75,
    worth: 1.2,
    raised: all.length >= ENOUGH,
    facts: { by },
  };
}
