import type { Finding, FindingKind } from './finding';

/** A cause hides its symptoms (T13.1): one finding for one cause. */
const HIDES: Partial<Record<FindingKind, readonly FindingKind[]>> = {
  'turns-late': ['still-on-old-chord', 'target-missed', 'tone-missed', 'landing-late', 'no-approaches'],
  'turns-early': ['target-missed', 'approach-unresolved'],
  'home-scale-only': ['change-ignored', 'target-missed', 'tone-missed', 'tone-never-played'],
  'root-only': ['tone-missed', 'target-missed'],
  'tone-missed': ['target-missed'],
  'still-on-old-chord': ['target-missed'],
  'change-ignored': ['tone-never-played'],
  'landing-late': ['no-approaches'],
  'leaps-into-changes': ['no-approaches'],
  'never-crosses-changes': ['no-approaches'],
  'outline-only': ['no-approaches', 'stays-on-ground'],
  'scale-running': ['no-approaches'],
  'leaps-only': ['leaps-into-changes'],
  'stays-outside': ['tone-never-played', 'approach-unresolved'],
  'step-out-lost': ['approach-unresolved'],
  'phrases-too-short': ['never-crosses-changes'],
  'starts-on-one': ['starts-alike'],
  'no-upbeats': ['one-rhythm'],
};

/**
 * Findings without those that another one causes (T13.3). A lost place hides all that lies in its bars, and
 * what has no place of its own.
 */
export function withoutSymptoms(all: readonly Finding[]): Finding[] {
  const hidden = new Set(all.flatMap(({ kind }) => HIDES[kind] ?? []));
  const lost = new Set(all.find(({ kind }) => kind === 'lost-place')?.where.bars ?? []);
  return all.filter(
    (one) =>
      !hidden.has(one.kind) &&
      !(lost.size > 0 && one.kind !== 'lost-place' && one.where.bars.every((bar) => lost.has(bar))),
  );
}
