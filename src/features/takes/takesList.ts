import type { PlanId } from '@/core/plan';
import type { TakeProfileData } from '@/ui/form/TakeProfile';

export type TakeRow = {
  readonly id: string;
  readonly number: number;
  readonly title: string;
  readonly when: string;
  readonly planId: PlanId;
  readonly tempo: number;
  readonly stars: number;
  /** What the list shows of it; null where it cannot be judged, and why. */
  readonly line: TakeRowLine | null;
  readonly trouble: string | null;
};
export type TakeRowLine = {
  readonly met: number;
  readonly judged: number;
  readonly heard: number;
  readonly segments: number;
  readonly profile: TakeProfileData;
  readonly key: string;
  readonly findings: readonly { readonly kind: string; readonly title: string }[];
};
export type Rows = { readonly total: number; readonly from: number; readonly rows: readonly TakeRow[] };
/** What takes are chosen by, as an address has it. */
export type Filter = Partial<
  Record<
    'text' | 'title' | 'plan' | 'key' | 'finding' | 'slowest' | 'fastest' | 'since' | 'until' | 'stars',
    string | number
  >
>;
/** What there is to choose by. */
export type Facets = {
  readonly titles: readonly string[];
  readonly plans: readonly string[];
  readonly keys: readonly string[];
  readonly findings: readonly { readonly kind: string; readonly name: string; readonly count: number }[];
};
