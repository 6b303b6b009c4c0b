import type { PlanPartWords, PlanWords, SettingsWords, Where } from '@/core/plan';
import { typeset } from '@/core/music';

/** What of the form the player is choosing a school for. */
export type PlanScope = 'form' | 'degree' | 'chord' | 'section' | 'bars' | 'chorus';

/** The chosen place of the form, which a scope stands for. */
export type ScopePlace = {
  readonly chord: string | null;
  readonly degree: string | null;
  readonly section: string | null;
  readonly bars: readonly [number, number];
  readonly chorus: number;
};

export const scopesAt = ({ degree, chord, section }: ScopePlace): (readonly [PlanScope, string])[] => [
  ['form', 'the whole form'],
  ...(degree ? [['degree', `every ${typeset(degree)}`] as const] : []),
  ...(chord ? [['chord', `every ${typeset(chord)}`] as const] : []),
  ...(section ? [['section', `section ${section}`] as const] : []),
  ['bars', 'some bars'],
  ['chorus', 'one chorus'],
];

/** The part of a plan that a scope means; null for the whole form. */
export function whereOf(scope: PlanScope, place: ScopePlace): Where | null {
  const { degree, chord, section, bars, chorus } = place;
  if (scope === 'degree' && degree) return { degree };
  if (scope === 'chord' && chord) return { chord };
  if (scope === 'section' && section) return { section };
  if (scope === 'bars') return { bars };
  return scope === 'chorus' ? { chorus } : null;
}

const isSame = (a: Where, b: Where): boolean => JSON.stringify(a) === JSON.stringify(b);

/** What is set for a part, or for the whole form; null where the part follows the form's plan. */
export const settingsAt = (plan: PlanWords, where: Where | null): SettingsWords | null =>
  where ? (plan.parts?.find((part) => isSame(part.where, where))?.plan ?? null) : plan;

/** The plan with other settings for a part or the whole form; what belongs to the whole form stays. */
export function withSettings(plan: PlanWords, where: Where | null, settings: SettingsWords): PlanWords {
  const { parts = [], heights, ladder } = plan;
  if (!where)
    return {
      ...settings,
      ...(parts.length > 0 && { parts }),
      ...(heights && { heights }),
      ...(ladder && { ladder }),
    };
  const others: readonly PlanPartWords[] = parts.filter((part) => !isSame(part.where, where));
  return { ...plan, parts: [...others, { where, plan: settings }] };
}

export function withoutPart(plan: PlanWords, index: number): PlanWords {
  const { parts = [], ...rest } = plan;
  const left = parts.filter((_, place) => place !== index);
  return left.length > 0 ? { ...rest, parts: left } : rest;
}
