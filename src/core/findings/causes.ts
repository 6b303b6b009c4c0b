import type { Finding, FindingKind } from './finding';
import { kindOf } from './kinds';

const UNPLAYED: readonly FindingKind[] = ['tone-never-played'];

/**
 * Findings without those that another one causes (T13.3), heaviest first. A lost place hides all that lies in its
 * bars, and what has no place of its own; of two that contradict each other the lighter is left out.
 */
export function withoutSymptoms<F extends Finding>(all: readonly F[], causes: readonly Finding[] = all): F[] {
  const hidden = new Set(causes.flatMap(({ kind }) => kindOf(kind)?.hides ?? []));
  const lost = new Set(causes.find(({ kind }) => kind === 'lost-place')?.where.bars ?? []);
  // a tone that never sounds over a chord is why the changes into it are missed
  const unplayed = new Set(
    causes.flatMap(({ kind, where: { chord } }) => (UNPLAYED.includes(kind) && chord ? [chord] : [])),
  );
  const left = all
    .filter(
      (one) =>
        !hidden.has(one.kind) &&
        !(one.kind === 'target-missed' && unplayed.has(one.where.change?.split('→')[1] ?? '')) &&
        !(lost.size > 0 && one.kind !== 'lost-place' && one.where.bars.every((bar) => lost.has(bar))),
    )
    .sort((a, b) => b.weight - a.weight);
  return left.filter((one, place) => !left.slice(0, place).some((heavier) => areContrary(one, heavier)));
}

const areContrary = (a: Finding, b: Finding): boolean =>
  (kindOf(a.kind)?.contradicts?.includes(b.kind) ?? false) ||
  (kindOf(b.kind)?.contradicts?.includes(a.kind) ?? false);
