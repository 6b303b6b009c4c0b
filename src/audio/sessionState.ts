export type Trouble = 'second-take' | 'server' | 'device' | 'band';
export type SessionState =
  | { readonly phase: 'idle' }
  | { readonly phase: 'opening'; readonly what: string }
  /** Nothing comes in: the count-in waits for two notes. */
  | { readonly phase: 'waiting' }
  | { readonly phase: 'running' }
  | { readonly phase: 'finishing'; readonly what: string }
  /** `kept` where the server has it; else it is safe on this computer and goes there later. */
  | {
      readonly phase: 'done';
      readonly takeId: string;
      readonly cut: boolean;
      readonly kept: boolean;
      readonly notes: number;
    }
  | { readonly phase: 'silent'; readonly takeId: string }
  | { readonly phase: 'failed'; readonly trouble: Trouble; readonly message: string };
