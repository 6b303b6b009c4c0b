import type { TakeSession } from '../takeSession';
import type { TakeSettings } from '../takeSettings';
import type { SessionState, SessionTrouble } from '../sessionState';

/** A take that is over: kept, or on its way there. */
export type EndedTake = {
  readonly session: TakeSession;
  readonly id: string;
  readonly title: string;
  readonly passes: number;
  readonly tempo: number;
  /** False while only this computer has it. */
  readonly kept: boolean;
  /** Its input went away before its end. */
  readonly cut: boolean;
  readonly judging: boolean;
};

/** What comes after a result by itself: nothing, a take that is still to be counted in, or one that is. */
export type NextTake =
  | { readonly kind: 'none' }
  | { readonly kind: 'soon' }
  | { readonly kind: 'counted-in'; readonly session: TakeSession };

/** What the screen shows of a sitting. */
export type SittingView =
  | { readonly scene: 'ready' }
  | { readonly scene: 'no-input' }
  | { readonly scene: 'waiting'; readonly session: TakeSession }
  /** `ended`: the take before it, where this one came by itself. */
  | { readonly scene: 'live'; readonly session: TakeSession; readonly ended: EndedTake | null }
  | { readonly scene: 'result'; readonly ended: EndedTake; readonly next: NextTake }
  | { readonly scene: 'silent'; readonly ended: EndedTake };

/** A take that was counted, as an attempt at a drill is. */
export type CountedTake<T> = { readonly takeId: string; readonly outcome: T };

export type SittingState<T = never> = {
  readonly view: SittingView;
  /** What went wrong last. */
  readonly trouble: SessionTrouble | null;
  /** Takes counted since the player last began by hand, and those before. */
  readonly counted: readonly CountedTake<T>[];
  readonly before: readonly CountedTake<T>[];
  /** Answers that were asked for in an earlier turn are not listened to. */
  readonly turn: number;
};

/** What differs between recording takes and drilling. */
export type SittingPolicy = {
  /** A result stands alone so long before the next count-in begins, in milliseconds. */
  readonly resultAloneMs: number;
  /** Does the result stay on the screen through the count-in of the next take? */
  readonly resultStays: boolean;
  /** A kept take is counted before the next one comes, which is made when that is known. */
  readonly counts: boolean;
};

/** What happens to a sitting: the player, the clock, the take and the server. */
export type SittingEvent<T> =
  | { readonly type: 'start'; readonly settings: TakeSettings }
  | {
      readonly type: 'opened';
      readonly turn: number;
      readonly isOpen: boolean;
      readonly settings: TakeSettings;
    }
  | { readonly type: 'begun'; readonly session: TakeSession }
  | {
      readonly type: 'phase';
      readonly session: TakeSession;
      readonly state: SessionState;
      /** Does the player want the next take to come by itself? */
      readonly rolls: boolean;
      /** What the take that runs was begun with. */
      readonly settings: TakeSettings;
    }
  | { readonly type: 'bar-one' }
  | { readonly type: 'next'; readonly settings: TakeSettings }
  | { readonly type: 'counted'; readonly take: CountedTake<T>; readonly goesOn: boolean }
  | { readonly type: 'not-counted'; readonly takeId: string; readonly message: string }
  | { readonly type: 'stay' }
  | { readonly type: 'again'; readonly settings: TakeSettings }
  | { readonly type: 'throw-away' }
  | { readonly type: 'discard-running' }
  | { readonly type: 'back' }
  | { readonly type: 'leave' }
  | { readonly type: 'say'; readonly trouble: string | null };

/** What is to be done about it: the reducer only names it. */
export type SittingEffect =
  | { readonly type: 'open-input'; readonly turn: number; readonly settings: TakeSettings }
  | { readonly type: 'begin'; readonly settings: TakeSettings }
  /** Makes the take after this one ready while it plays its last bars. */
  | { readonly type: 'ready-early'; readonly session: TakeSession }
  | { readonly type: 'make-next' }
  | { readonly type: 'drop-next' }
  | { readonly type: 'begin-next-in'; readonly ms: number }
  | { readonly type: 'await-bar-one'; readonly session: TakeSession }
  | { readonly type: 'stop-waiting' }
  | { readonly type: 'count'; readonly takeId: string }
  | { readonly type: 'over'; readonly takeId: string; readonly kept: boolean; readonly cut: boolean }
  | { readonly type: 'discard'; readonly session: TakeSession }
  | { readonly type: 'leave'; readonly session: TakeSession }
  /** Into the trash, from where it can be brought back. */
  | { readonly type: 'trash'; readonly session: TakeSession; readonly isOver: boolean };

export type SittingStep<T> = readonly [SittingState<T>, ...SittingEffect[]];

export const beginning = <T>(): SittingState<T> => ({
  view: { scene: 'ready' },
  trouble: null,
  counted: [],
  before: [],
  turn: 0,
});

/** The take that runs or is counted in, where one is. */
export function runningIn({ view }: Pick<SittingState, 'view'>): TakeSession | null {
  switch (view.scene) {
    case 'waiting':
    case 'live':
      return view.session;
    case 'result':
      return view.next.kind === 'counted-in' ? view.next.session : null;
    default:
      return null;
  }
}

/** The take that ended last, where it is still on the screen. */
export function endedIn({ view }: Pick<SittingState, 'view'>): EndedTake | null {
  switch (view.scene) {
    case 'live':
    case 'result':
    case 'silent':
      return view.ended;
    default:
      return null;
  }
}

/** Does the next take come by itself? */
export const isRolling = ({ view }: Pick<SittingState, 'view'>): boolean =>
  view.scene === 'result' && view.next.kind !== 'none';
