import type { TakeSession } from '../takeSession';
import type { TakeSettings } from '../takeSettings';
import type { SessionState } from '../sessionState';
import {
  endedIn,
  isRolling,
  runningIn,
  type EndedTake,
  type SittingEvent,
  type SittingPolicy,
  type SittingState,
  type SittingStep,
  type SittingView,
} from './state';

/**
 * One step of a sitting: take after take with both hands on the guitar, whether they are kept for themselves
 * or counted as attempts at a drill. Pure: what is to be done is returned beside the new state.
 */
export function sittingStep<T>(
  policy: SittingPolicy,
  state: SittingState<T>,
  event: SittingEvent<T>,
): SittingStep<T> {
  switch (event.type) {
    case 'start':
      return started(state, event.settings);
    case 'opened':
      return opened(state, event);
    case 'begun':
      return [showing(state, viewOfBegun(policy, state, event.session))];
    case 'phase':
      return phaseReached(policy, state, event);
    case 'bar-one':
      return barOne(state);
    case 'next':
      return isRolling(state) ? reopened(state, event.settings) : [state];
    case 'counted':
      return counted(policy, state, event);
    case 'not-counted':
      return notCounted(state, event);
    case 'again':
      return again(state, event.settings);
    case 'say':
      return [{ ...state, trouble: event.trouble === null ? null : { kind: 'said', words: event.trouble } }];
    default:
      return asked(state, event.type);
  }
}

/** What the player asks for that needs no more than the state. */
function asked<T>(
  state: SittingState<T>,
  type: 'stay' | 'throw-away' | 'discard-running' | 'back' | 'leave',
): SittingStep<T> {
  const running = runningIn(state);
  const ended = endedIn(state);
  switch (type) {
    case 'stay':
      return stayed(state);
    case 'throw-away': {
      const [after, ...effects] = stayed(state);
      const trash = ended ? [{ type: 'trash', session: ended.session, isOver: true } as const] : [];
      return [showing(after, { scene: 'ready' }), ...effects, ...trash];
    }
    case 'discard-running':
      return running ? [state, { type: 'trash', session: running, isOver: false }] : [state];
    case 'back': {
      const [after, ...effects] = stayed(state);
      return [showing(after, { scene: 'ready' }), ...effects];
    }
    case 'leave': {
      const leave = running ? [{ type: 'leave', session: running } as const] : [];
      return [{ ...state, turn: state.turn + 1 }, { type: 'stop-waiting' }, { type: 'drop-next' }, ...leave];
    }
  }
}

const showing = <T>(state: SittingState<T>, view: SittingView): SittingState<T> => ({ ...state, view });

/** Begun by hand: the result before it stays on the screen until there is a take to show. */
function started<T>(state: SittingState<T>, settings: TakeSettings): SittingStep<T> {
  const turn = state.turn + 1;
  const next: SittingState<T> = {
    ...resting(state),
    turn,
    trouble: null,
    counted: [],
    before: [...state.before, ...state.counted],
  };
  return [next, { type: 'stop-waiting' }, { type: 'open-input', turn, settings }];
}

function reopened<T>(state: SittingState<T>, settings: TakeSettings): SittingStep<T> {
  const turn = state.turn + 1;
  return [
    { ...state, turn, trouble: null },
    { type: 'open-input', turn, settings },
  ];
}

function opened<T>(
  state: SittingState<T>,
  { turn, isOpen, settings }: { turn: number; isOpen: boolean; settings: TakeSettings },
): SittingStep<T> {
  // the player may have thought better of it meanwhile
  if (turn !== state.turn) return [state];
  return isOpen
    ? [state, { type: 'begin', settings }]
    : [showing(state, { scene: 'no-input' }), { type: 'drop-next' }];
}

function viewOfBegun<T>(policy: SittingPolicy, state: SittingState<T>, session: TakeSession): SittingView {
  const { view } = state;
  if (view.scene !== 'result' || view.next.kind === 'none') return { scene: 'live', session, ended: null };
  return policy.resultStays
    ? { ...view, next: { kind: 'counted-in', session } }
    : { scene: 'live', session, ended: view.ended };
}

/** The count-in behind the result is over. */
function barOne<T>(state: SittingState<T>): SittingStep<T> {
  const { view } = state;
  if (view.scene !== 'result' || view.next.kind !== 'counted-in') return [state];
  return [showing(state, { scene: 'live', session: view.next.session, ended: view.ended })];
}

type Phase = {
  readonly session: TakeSession;
  readonly state: SessionState;
  readonly rolls: boolean;
  readonly settings: TakeSettings;
};

function phaseReached<T>(policy: SittingPolicy, state: SittingState<T>, event: Phase): SittingStep<T> {
  const ended = endedIn(state);
  if (ended?.session === event.session) return endPhase(policy, state, ended, event.state);
  if (runningIn(state) !== event.session) return [state];
  const { session } = event;
  switch (event.state.phase) {
    case 'waiting':
      return [showing(state, { scene: 'waiting', session })];
    case 'running':
      return running(policy, state, session);
    case 'finishing':
      return finishing(policy, state, event);
    case 'failed':
      return [{ ...withoutTake(state), trouble: event.state.trouble }];
    case 'idle':
      return [withoutTake(state)];
    default:
      return [state];
  }
}

function running<T>(policy: SittingPolicy, state: SittingState<T>, session: TakeSession): SittingStep<T> {
  const early = policy.counts ? [] : [{ type: 'ready-early', session } as const];
  if (state.view.scene === 'result') return [state, ...early, { type: 'await-bar-one', session }];
  return [showing(state, { scene: 'live', session, ended: endedIn(state) }), ...early];
}

/**
 * The take is over: its result is shown while it is being judged, and where the player rolls on the next one
 * is made ready meanwhile.
 */
function finishing<T>(policy: SittingPolicy, state: SittingState<T>, event: Phase): SittingStep<T> {
  const { session, settings, rolls } = event;
  const ended: EndedTake = {
    session,
    id: session.id,
    title: settings.title,
    passes: settings.route.passes,
    tempo: settings.route.tempo,
    kept: false,
    cut: false,
    judging: true,
  };
  const view: SittingView = { scene: 'result', ended, next: { kind: rolls ? 'soon' : 'none' } };
  if (!rolls || policy.counts) return [showing(state, view)];
  return [showing(state, view), { type: 'make-next' }, { type: 'begin-next-in', ms: policy.resultAloneMs }];
}

/**
 * The running take is gone: back to the result it was counted in behind or came after by itself, else to the
 * beginning. A result that has been left on the screen of a recording is not gone back to.
 */
function withoutTake<T>(state: SittingState<T>): SittingState<T> {
  const { view } = state;
  if (view.scene === 'result') return resting(state);
  const last = endedIn(state);
  return last && state.counted.length > 0
    ? showing(state, { scene: 'result', ended: last, next: { kind: 'none' } })
    : showing(state, { scene: 'ready' });
}

/** Nothing comes by itself any more. */
function resting<T>(state: SittingState<T>): SittingState<T> {
  const { view } = state;
  return view.scene === 'result'
    ? showing(state, { scene: 'result', ended: view.ended, next: { kind: 'none' } })
    : state;
}

function endPhase<T>(
  policy: SittingPolicy,
  state: SittingState<T>,
  ended: EndedTake,
  reached: SessionState,
): SittingStep<T> {
  switch (reached.phase) {
    case 'done': {
      const { takeId, kept, cut } = reached;
      const isCounted = policy.counts && kept;
      const known = withEnded(state, { ...ended, kept, cut, judging: isCounted });
      const goesOn = isCounted || !(cut || policy.counts);
      const [after, ...effects] = goesOn ? ([known] as const) : stayed(known);
      const counting = isCounted ? [{ type: 'count', takeId } as const] : [];
      return [after, ...effects, ...counting, { type: 'over', takeId, kept, cut }];
    }
    case 'silent': {
      const [after, ...effects] = stayed(state);
      return [showing(after, { scene: 'silent', ended: { ...ended, judging: false } }), ...effects];
    }
    case 'failed': {
      const [after, ...effects] = stayed(state);
      return [{ ...showing(after, { scene: 'ready' }), trouble: reached.trouble }, ...effects];
    }
    default:
      return [state];
  }
}

function withEnded<T>(state: SittingState<T>, ended: EndedTake): SittingState<T> {
  const { view } = state;
  return 'ended' in view ? showing(state, { ...view, ended }) : state;
}

function counted<T>(
  policy: SittingPolicy,
  state: SittingState<T>,
  { take, goesOn }: Extract<SittingEvent<T>, { type: 'counted' }>,
): SittingStep<T> {
  const ended = endedIn(state);
  if (ended?.id !== take.takeId) return [state];
  const after = withEnded({ ...state, counted: [...state.counted, take] }, { ...ended, judging: false });
  if (!isRolling(after)) return [after];
  return ended.cut || !goesOn
    ? [resting(after)]
    : [after, { type: 'begin-next-in', ms: policy.resultAloneMs }];
}

function notCounted<T>(
  state: SittingState<T>,
  { takeId, message }: Extract<SittingEvent<T>, { type: 'not-counted' }>,
): SittingStep<T> {
  const ended = endedIn(state);
  if (ended?.id !== takeId) return [state];
  return [
    { ...resting(withEnded(state, { ...ended, judging: false })), trouble: { kind: 'said', words: message } },
  ];
}

/** Nothing comes by itself any more, and what runs is thrown away: the result stays. */
function stayed<T>(state: SittingState<T>): SittingStep<T> {
  const session = runningIn(state);
  const ended = endedIn(state);
  const discard = session ? [{ type: 'discard', session } as const] : [];
  const result: SittingView = ended ? { scene: 'result', ended, next: { kind: 'none' } } : { scene: 'ready' };
  const view = state.view.scene === 'silent' ? state.view : result;
  return [
    { ...state, turn: state.turn + 1, view },
    { type: 'stop-waiting' },
    { type: 'drop-next' },
    ...discard,
  ];
}

/** The running take begins anew with other settings. */
function again<T>(state: SittingState<T>, settings: TakeSettings): SittingStep<T> {
  const session = runningIn(state);
  if (!session && !isRolling(state)) return [state];
  const turn = state.turn + 1;
  const discard = session ? [{ type: 'discard', session } as const] : [];
  const ended = endedIn(state);
  const view: SittingView = ended ? { scene: 'result', ended, next: { kind: 'soon' } } : { scene: 'ready' };
  return [
    { ...state, turn, trouble: null, view },
    { type: 'stop-waiting' },
    ...discard,
    { type: 'open-input', turn, settings },
  ];
}
