import { takeTroubleWords } from '@/presentation';
import { endedIn, isRolling, runningIn, type SittingState } from '@/audio/sitting';
import type { TakeSession } from '@/audio/takeSession';

/** What the screen of a drill shows. */
export type DrillScene = 'ready' | 'no-input' | 'waiting' | 'live' | 'counting' | 'done';

export function sceneOf<T>(state: SittingState<T>): DrillScene {
  const { view } = state;
  switch (view.scene) {
    case 'result':
      return view.ended.judging || isRolling(state) ? 'counting' : 'done';
    case 'silent':
      return 'done';
    default:
      return view.scene;
  }
}

/** The take that waits, runs or is still being counted. */
export function attemptIn<T>(state: SittingState<T>): TakeSession | null {
  const { view } = state;
  return view.scene === 'result' && view.ended.judging ? view.ended.session : runningIn(state);
}

export function troubleIn<T>(state: SittingState<T>): string | null {
  if (state.trouble !== null) return takeTroubleWords(state.trouble);
  if (state.view.scene === 'silent') return 'Nothing was heard. Look at the input and its level.';
  const ended = endedIn(state);
  return state.view.scene === 'result' && ended && !ended.judging && !ended.kept
    ? 'The server is away: this attempt is safe on this computer, but it is not counted.'
    : null;
}
