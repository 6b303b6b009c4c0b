import { afterEach, beforeEach, expect, jest, test } from '@jest/globals';
import { routeOf } from '@/core/chart';
import { unwrap } from '@/core/shared';
import type { TakeSession } from '../takeSession';
import type { TakeSettings } from '../takeSettings';
import type { SessionState } from '../sessionState';
import { sittingStep } from './reducer';
import { Sitting } from './sitting';
import { beginning, endedIn, isRolling, runningIn, type SittingPolicy } from './state';

const RESULT_ALONE_MS = 700;
const TAKES: SittingPolicy = { resultAloneMs: RESULT_ALONE_MS, resultStays: true, counts: false };
const ATTEMPTS: SittingPolicy = { resultAloneMs: 1_200, resultStays: false, counts: true };

/** A take without sound: it goes through the phases it is told to, and notes what was asked of it. */
class Take {
  state: SessionState = { phase: 'idle' };
  beat = -4;
  asked: string[] = [];
  private listeners = new Set<() => void>();
  readonly route = unwrap(routeOf('tempo: 120\n| C7 | F7 |', { passes: 1, tempo: 120 }));
  constructor(readonly id: string) {}
  subscribe = (listener: () => void) => {
    this.listeners.add(listener);
    return () => this.listeners.delete(listener);
  };
  getState = () => this.state;
  position = () => this.beat;
  become(state: SessionState) {
    this.state = state;
    for (const listener of [...this.listeners]) listener();
  }
  left = 10;
  async prepare() {
    this.asked.push('prepare');
  }
  async start() {
    this.become({ phase: 'opening' });
  }
  async discard() {
    this.asked.push('discard');
    this.become({ phase: 'idle' });
    return true;
  }
  async throwAway() {
    this.asked.push('throwAway');
    return true;
  }
  leave() {
    this.asked.push('leave');
  }
}

const SETTINGS = { title: 'T', countInBars: 1, route: { passes: 2, tempo: 120 } } as TakeSettings;
let takes: Take[];
let after: 'roll' | 'stay' | 'review';
let opens: boolean;
let reviews: [string, boolean][];
let trashed: string[];
let seed: number;
let flow: Sitting;
beforeEach(() => {
  jest.useFakeTimers();
  [takes, after, opens, reviews, trashed, seed] = [[], 'roll', true, [], [], 0];
  flow = new Sitting(TAKES, {
    openInput: async () => opens,
    makeSession: () => {
      const take = new Take(`take ${takes.length + 1}`);
      takes.push(take);
      return take as unknown as TakeSession;
    },
    nextSettings: () => ({ ...SETTINGS, seed: ++seed }),
    rolls: () => after === 'roll',
    over: (id, _, cut) => {
      if (after === 'review') reviews.push([id, cut]);
    },
    trashed: (id) => void trashed.push(id),
  });
});
afterEach(() => void jest.useRealTimers());
const ended = () => endedIn(flow.state);
const running = () => runningIn(flow.state);
const played = async () => {
  await flow.start(SETTINGS);
  takes.at(-1)!.become({ phase: 'running' });
};
const done = (take: Take, change = {}) =>
  take.become({
    phase: 'done',
    takeId: take.id,
    cut: false,
    kept: true,
    notes: 9,
    ...change,
  } as SessionState);

test('a take that is thrown away, running or over, can be brought back', async () => {
  await played();
  flow.discardRunning();
  await jest.advanceTimersByTimeAsync(0);
  expect([flow.state.view.scene, trashed]).toEqual(['ready', ['take 1']]);
  after = 'stay';
  await played();
  takes.at(-1)!.become({ phase: 'finishing' });
  flow.throwAway();
  await jest.advanceTimersByTimeAsync(0);
  expect([flow.state.view.scene, trashed]).toEqual(['ready', ['take 1', 'take 2']]);
});

test('a take is counted in, ends, and the next is counted in behind its result, which stays until bar 1', async () => {
  await played();
  expect(flow.state.view.scene).toBe('live');
  takes[0]!.become({ phase: 'finishing' });
  expect([flow.state.view.scene, isRolling(flow.state), ended()]).toEqual([
    'result',
    true,
    {
      session: takes[0],
      id: 'take 1',
      title: 'T',
      passes: 2,
      tempo: 120,
      kept: false,
      cut: false,
      judging: true,
    },
  ]);
  expect(flow.countdown()).toEqual({ left: 2.7, of: 2.7 }); // 0.7 s alone, then a bar of four at 120
  await jest.advanceTimersByTimeAsync(RESULT_ALONE_MS);
  expect(takes).toHaveLength(2);
  takes[1]!.become({ phase: 'running' });
  expect([flow.state.view.scene, flow.isCounting(), flow.countdown().left]).toEqual(['result', true, 2]);
  done(takes[0]!);
  expect(ended()).toMatchObject({ kept: true, judging: false });
  await jest.advanceTimersByTimeAsync(2_000);
  // what was said of the last take can still be read over the first bars of this one
  expect([flow.state.view.scene, ended()?.id, running()?.id]).toEqual(['live', 'take 1', 'take 2']);
});

test('the next take is made ready while this one plays its last bars, and is the one that comes', async () => {
  await played();
  await jest.advanceTimersByTimeAsync(6_900);
  expect(takes).toHaveLength(1);
  await jest.advanceTimersByTimeAsync(200);
  expect([takes.length, takes[1]!.asked]).toEqual([2, ['prepare']]);
  takes[0]!.become({ phase: 'finishing' });
  await jest.advanceTimersByTimeAsync(RESULT_ALONE_MS);
  expect([takes.length, running()?.id]).toEqual([2, 'take 2']);
});

test('stay: nothing comes any more, whether the next was still to come or was being counted in', async () => {
  await played();
  takes[0]!.become({ phase: 'finishing' });
  flow.stay();
  await jest.advanceTimersByTimeAsync(5_000);
  expect([takes[1]!.asked, flow.state.view.scene, isRolling(flow.state)]).toEqual([
    ['prepare', 'discard'],
    'result',
    false,
  ]);
  await played();
  takes[2]!.become({ phase: 'finishing' });
  await jest.advanceTimersByTimeAsync(RESULT_ALONE_MS);
  takes[3]!.become({ phase: 'running' });
  flow.stay();
  await jest.advanceTimersByTimeAsync(5_000);
  expect([takes[3]!.asked.slice(-1), flow.state.view.scene, running()]).toEqual([
    ['discard'],
    'result',
    null,
  ]);
});

test('stay is heard even while the input is just being opened for the next take', async () => {
  await played();
  takes[0]!.become({ phase: 'finishing' });
  let letIn = (_: boolean) => undefined as void;
  opens = new Promise<boolean>((done) => {
    letIn = done;
  }) as unknown as boolean;
  await jest.advanceTimersByTimeAsync(RESULT_ALONE_MS);
  flow.stay();
  letIn(true);
  await jest.advanceTimersByTimeAsync(5_000);
  expect([flow.state.view.scene, running(), takes[1]!.asked]).toEqual([
    'result',
    null,
    ['prepare', 'discard'],
  ]);
});

test('started again from a result, the screen never shows a result that is not there', async () => {
  await played();
  takes[0]!.become({ phase: 'finishing' });
  flow.stay();
  const seen: boolean[] = [];
  flow.subscribe(() => seen.push(flow.state.view.scene !== 'result' || ended() !== null));
  await flow.start(SETTINGS);
  expect([flow.state.view.scene, seen.every(Boolean), seen.length > 0]).toEqual(['live', true, true]);
});

test('thrown away after it ended, it is thrown away in truth', async () => {
  await played();
  takes[0]!.become({ phase: 'finishing' });
  done(takes[0]!);
  flow.throwAway();
  expect([takes[0]!.asked, flow.state.view.scene, ended()]).toEqual([['throwAway'], 'ready', null]);
});

test('the review opens by itself where the player wants that, and the result stays where he wants that', async () => {
  after = 'review';
  await played();
  takes[0]!.become({ phase: 'finishing' });
  done(takes[0]!, { cut: true });
  expect(reviews).toEqual([['take 1', true]]);
  after = 'stay';
  await played();
  takes[1]!.become({ phase: 'finishing' });
  done(takes[1]!);
  await jest.advanceTimersByTimeAsync(5_000);
  expect([takes.length, flow.state.view.scene, reviews.length]).toEqual([2, 'result', 1]);
});

test('what goes wrong stops the rolling and is said: silent, failed, input gone, waiting', async () => {
  await played();
  takes[0]!.become({ phase: 'finishing' });
  takes[0]!.become({ phase: 'silent', takeId: 'take 1' });
  await jest.advanceTimersByTimeAsync(5_000);
  expect([flow.state.view.scene, takes.length, takes[1]!.asked]).toEqual([
    'silent',
    2,
    ['prepare', 'discard'],
  ]);
  await flow.start(SETTINGS);
  takes[2]!.become({ phase: 'failed', trouble: { kind: 'band' } });
  expect([flow.state.view.scene, flow.state.trouble]).toEqual(['ready', { kind: 'band' }]);
  await flow.start(SETTINGS);
  takes[3]!.become({ phase: 'waiting' });
  expect(flow.state.view.scene).toBe('waiting');
  opens = false;
  await flow.start(SETTINGS);
  expect([flow.state.view.scene, takes.length]).toEqual(['no-input', 4]);
  flow.back();
  expect(flow.state.view.scene).toBe('ready');
});

test('the running take thrown away leads to the setup, not to the result of the one before: nobody throws that away by mistake', async () => {
  await played();
  takes[0]!.become({ phase: 'finishing' });
  done(takes[0]!);
  await jest.advanceTimersByTimeAsync(RESULT_ALONE_MS);
  takes[1]!.become({ phase: 'running' });
  await jest.advanceTimersByTimeAsync(2_000);
  expect(flow.state.view.scene).toBe('live');
  await takes[1]!.discard();
  expect([flow.state.view.scene, ended(), takes[0]!.asked]).toEqual(['ready', null, []]);
});

test('a take that is cut off by its input does not roll on; leaving lets the running one go', async () => {
  await played();
  takes[0]!.become({ phase: 'finishing' });
  done(takes[0]!, { cut: true });
  await jest.advanceTimersByTimeAsync(5_000);
  expect([takes[1]!.asked, ended()?.cut]).toEqual([['prepare', 'discard'], true]);
  await played();
  flow.leave();
  expect(takes[2]!.asked).toEqual(['leave']);
});

/** A sitting at a drill: every kept take is counted, and enough of them end it. */
function drilling(change: { count?: (id: string) => Promise<string>; enough?: number } = {}) {
  const sitting = new Sitting<string>(ATTEMPTS, {
    openInput: async () => opens,
    makeSession: () => {
      const take = new Take(`take ${takes.length + 1}`);
      takes.push(take);
      return take as unknown as TakeSession;
    },
    nextSettings: () => ({ ...SETTINGS, seed: ++seed }),
    rolls: () => true,
    count: change.count ?? ((id) => Promise.resolve(`counted ${id}`)),
    goesOn: (counted) => counted.length < (change.enough ?? 3),
  });
  const attempt = async (more = {}) => {
    const take = takes.at(-1)!;
    take.become({ phase: 'running' });
    take.become({ phase: 'finishing' });
    done(take, more);
    await jest.advanceTimersByTimeAsync(0);
  };
  return { sitting, attempt };
}

test('attempt after attempt by itself, until enough were counted; once more is a new sitting', async () => {
  const { sitting, attempt } = drilling();
  await sitting.start();
  for (const n of [1, 2, 3]) {
    expect([sitting.state.view.scene, takes.length]).toEqual(['live', n]);
    await attempt();
    expect([sitting.state.view.scene, isRolling(sitting.state)]).toEqual(['result', n < 3]);
    await jest.advanceTimersByTimeAsync(ATTEMPTS.resultAloneMs);
  }
  expect([takes.length, sitting.state.counted.map(({ outcome }) => outcome)]).toEqual([
    3,
    ['counted take 1', 'counted take 2', 'counted take 3'],
  ]);
  await sitting.start();
  expect([sitting.state.counted.length, sitting.state.before.length]).toEqual([0, 3]);
});

test('stopping throws the running attempt away and keeps what was counted', async () => {
  const { sitting, attempt } = drilling();
  await sitting.start();
  sitting.stay();
  expect([sitting.state.view.scene, takes[0]!.asked]).toEqual(['ready', ['discard']]);
  await sitting.start();
  await attempt();
  await jest.advanceTimersByTimeAsync(ATTEMPTS.resultAloneMs);
  takes.at(-1)!.become({ phase: 'running' });
  sitting.stay();
  await jest.advanceTimersByTimeAsync(10_000);
  expect([sitting.state.view.scene, sitting.state.counted.length, takes.length]).toEqual(['result', 1, 3]);
});

test('stopped while an attempt is being counted, it still counts, and nothing comes after it', async () => {
  let answer = (_: string) => undefined as void;
  const counting = new Promise<string>((resolve) => {
    answer = resolve;
  });
  const { sitting, attempt } = drilling({ count: () => counting });
  await sitting.start();
  await attempt();
  sitting.stay();
  answer('met');
  await jest.advanceTimersByTimeAsync(10_000);
  expect([sitting.state.counted, takes.length, endedIn(sitting.state)?.judging]).toEqual([
    [{ takeId: 'take 1', outcome: 'met' }],
    1,
    false,
  ]);
});

test('another tempo begins the attempt anew, and the old one is not listened to any more', async () => {
  const { sitting } = drilling();
  await sitting.start();
  takes[0]!.become({ phase: 'running' });
  sitting.again();
  await jest.advanceTimersByTimeAsync(0);
  expect([takes.length, takes[0]!.asked, runningIn(sitting.state)?.id]).toEqual([2, ['discard'], 'take 2']);
  takes[0]!.become({ phase: 'failed', trouble: { kind: 'no-input' } });
  expect(sitting.state.trouble).toBeNull();
});

test('an attempt that cannot be counted is said, and nothing goes on by itself', async () => {
  const away = drilling();
  await away.sitting.start();
  await away.attempt({ kept: false });
  await jest.advanceTimersByTimeAsync(10_000);
  expect([away.sitting.state.counted.length, endedIn(away.sitting.state)?.kept, takes.length]).toEqual([
    0,
    false,
    1,
  ]);
  const refused = drilling({ count: () => Promise.reject(new Error('no such drill')) });
  await refused.sitting.start();
  await refused.attempt();
  expect([refused.sitting.state.trouble, isRolling(refused.sitting.state)]).toEqual([
    { kind: 'said', words: 'no such drill' },
    false,
  ]);
  const cut = drilling();
  await cut.sitting.start();
  await cut.attempt({ cut: true });
  await jest.advanceTimersByTimeAsync(10_000);
  expect([cut.sitting.state.counted.length, takes.length]).toEqual([1, 3]);
});

test('the reducer is pure, and what does not belong to the scene changes nothing', () => {
  const state = Object.freeze(beginning<string>());
  for (const event of [
    { type: 'bar-one' },
    { type: 'next', settings: SETTINGS },
    { type: 'again', settings: SETTINGS },
    { type: 'discard-running' },
    { type: 'opened', turn: 7, isOpen: true, settings: SETTINGS },
    { type: 'counted', take: { takeId: 'x', outcome: 'y' }, goesOn: true },
    { type: 'not-counted', takeId: 'x', message: 'y' },
  ] as const)
    expect(sittingStep(ATTEMPTS, state, event)).toEqual([state]);
  const [begun, ...effects] = sittingStep(ATTEMPTS, state, { type: 'start', settings: SETTINGS });
  expect([begun.turn, effects.at(-1)]).toEqual([1, { type: 'open-input', turn: 1, settings: SETTINGS }]);
});
