/** Why a take could not begin or end. `said`: in the server's own words. */
export type SessionTrouble =
  | { readonly kind: 'second-take' | 'no-input' | 'band' | 'nothing-recorded' | 'not-finished' }
  | { readonly kind: 'said'; readonly words: string };
export type SessionState =
  | { readonly phase: 'idle' }
  | { readonly phase: 'opening' }
  /** Nothing comes in: the count-in waits for two notes. */
  | { readonly phase: 'waiting' }
  | { readonly phase: 'running' }
  | { readonly phase: 'finishing' }
  /** `kept` where the server has it; else it is safe on this computer and goes there later. */
  | {
      readonly phase: 'done';
      readonly takeId: string;
      readonly cut: boolean;
      readonly kept: boolean;
      readonly notes: number;
    }
  | { readonly phase: 'silent'; readonly takeId: string }
  | { readonly phase: 'failed'; readonly trouble: SessionTrouble };
