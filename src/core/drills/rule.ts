import type { Beats } from '../shared';

/** How one place of an attempt went. Beats of the take. */
export type RuleCheck = { readonly beat: Beats; readonly met: boolean };
export type Attempt = { readonly places: readonly RuleCheck[]; readonly met: number; readonly of: number };
