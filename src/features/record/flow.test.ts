import { afterEach, beforeEach, expect, jest, test } from '@jest/globals';
import { routeOf } from '@/core/chart';
import { unwrap } from '@/core/shared';
import type { SessionState, TakeSession, TakeSettings } from '@/audio/takeSession';
import type { AfterTake } from '../shell/preferences';
import { RecordFlow, RESULT_ALONE_MS } from './flow';

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
    this.become({ phase: 'opening', what: '' });
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
let after: AfterTake;
let opens: boolean;
let reviews: [string, boolean][];
let trashed: string[];
let flow: RecordFlow;
beforeEach(() => {
  jest.useFakeTimers();
  [takes, after, opens, reviews, trashed] = [[], 'roll', true, [], []];
  flow = new RecordFlow({
    openInput: async () => opens,
    makeSession: () => {
      const take = new Take(`take ${takes.length + 1}`);
      takes.push(take);
      return take as unknown as TakeSession;
    },
    afterTake: () => after,
    review: (id, cut) => reviews.push([id, cut]),
    trashed: (id) => trashed.push(id),
  });
});
afterEach(() => void jest.useRealTimers());
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
  expect([flow.state.scene, trashed]).toEqual(['setup', ['take 1']]);
  after = 'stay' as AfterTake;
  await played();
  takes.at(-1)!.become({ phase: 'finishing', what: '' });
  flow.throwAway();
  await jest.advanceTimersByTimeAsync(0);
  expect([flow.state.scene, trashed]).toEqual(['setup', ['take 1', 'take 2']]);
});

test('a take is counted in, ends, and the next is counted in behind its result, which stays until bar 1', async () => {
  await played();
  expect(flow.state.scene).toBe('live');
  takes[0]!.become({ phase: 'finishing', what: '' });
  expect([flow.state.scene, flow.state.rolling, flow.state.finished]).toEqual([
    'finished',
    true,
    { id: 'take 1', title: 'T', passes: 2, tempo: 120, kept: false, cut: false, judging: true },
  ]);
  expect(flow.countdown()).toEqual({ left: 2.7, of: 2.7 }); // 0.7 s alone, then a bar of four at 120
  await jest.advanceTimersByTimeAsync(RESULT_ALONE_MS);
  expect(takes).toHaveLength(2);
  takes[1]!.become({ phase: 'running' });
  expect([flow.state.scene, flow.isCounting(), flow.countdown().left]).toEqual(['finished', true, 2]);
  done(takes[0]!);
  expect(flow.state.finished).toMatchObject({ kept: true, judging: false });
  await jest.advanceTimersByTimeAsync(2_000);
  // what was said of the last take can still be read over the first bars of this one
  expect([flow.state.scene, flow.state.finished?.id, flow.state.session?.id]).toEqual([
    'live',
    'take 1',
    'take 2',
  ]);
});

test('the next take is made ready while this one plays its last bars, and is the one that comes', async () => {
  await played();
  await jest.advanceTimersByTimeAsync(6_900);
  expect(takes).toHaveLength(1);
  await jest.advanceTimersByTimeAsync(200);
  expect([takes.length, takes[1]!.asked]).toEqual([2, ['prepare']]);
  takes[0]!.become({ phase: 'finishing', what: '' });
  await jest.advanceTimersByTimeAsync(RESULT_ALONE_MS);
  expect([takes.length, flow.state.session?.id]).toEqual([2, 'take 2']);
});

test('stay: nothing comes any more, whether the next was still to come or was being counted in', async () => {
  await played();
  takes[0]!.become({ phase: 'finishing', what: '' });
  flow.stay();
  await jest.advanceTimersByTimeAsync(5_000);
  expect([takes[1]!.asked, flow.state.scene, flow.state.rolling]).toEqual([
    ['prepare', 'discard'],
    'finished',
    false,
  ]);
  await played();
  takes[2]!.become({ phase: 'finishing', what: '' });
  await jest.advanceTimersByTimeAsync(RESULT_ALONE_MS);
  takes[3]!.become({ phase: 'running' });
  flow.stay();
  await jest.advanceTimersByTimeAsync(5_000);
  expect([takes[3]!.asked.slice(-1), flow.state.scene, flow.state.session]).toEqual([
    ['discard'],
    'finished',
    null,
  ]);
});

test('stay is heard even while the input is just being opened for the next take', async () => {
  await played();
  takes[0]!.become({ phase: 'finishing', what: '' });
  let letIn = (_: boolean) => undefined as void;
  opens = new Promise<boolean>((done) => {
    letIn = done;
  }) as unknown as boolean;
  await jest.advanceTimersByTimeAsync(RESULT_ALONE_MS);
  flow.stay();
  letIn(true);
  await jest.advanceTimersByTimeAsync(5_000);
  expect([flow.state.scene, flow.state.session, takes[1]!.asked]).toEqual([
    'finished',
    null,
    ['prepare', 'discard'],
  ]);
});

test('started again from a result, the screen never shows a result that is not there', async () => {
  await played();
  takes[0]!.become({ phase: 'finishing', what: '' });
  flow.stay();
  const seen: boolean[] = [];
  flow.subscribe(() => seen.push(flow.state.scene !== 'finished' || flow.state.finished !== null));
  await flow.start(SETTINGS);
  expect([flow.state.scene, seen.every(Boolean), seen.length > 0]).toEqual(['live', true, true]);
});

test('thrown away after it ended, it is thrown away in truth', async () => {
  await played();
  takes[0]!.become({ phase: 'finishing', what: '' });
  done(takes[0]!);
  flow.throwAway();
  expect([takes[0]!.asked, flow.state.scene, flow.state.finished]).toEqual([['throwAway'], 'setup', null]);
});

test('the review opens by itself where the player wants that, and the result stays where he wants that', async () => {
  after = 'review';
  await played();
  takes[0]!.become({ phase: 'finishing', what: '' });
  done(takes[0]!, { cut: true });
  expect(reviews).toEqual([['take 1', true]]);
  after = 'stay';
  await played();
  takes[1]!.become({ phase: 'finishing', what: '' });
  done(takes[1]!);
  await jest.advanceTimersByTimeAsync(5_000);
  expect([takes.length, flow.state.scene, reviews.length]).toEqual([2, 'finished', 1]);
});

test('what goes wrong stops the rolling and is said: silent, failed, input gone, waiting', async () => {
  await played();
  takes[0]!.become({ phase: 'finishing', what: '' });
  takes[0]!.become({ phase: 'silent', takeId: 'take 1' });
  await jest.advanceTimersByTimeAsync(5_000);
  expect([flow.state.scene, takes.length, takes[1]!.asked]).toEqual(['silent', 2, ['prepare', 'discard']]);
  await flow.start(SETTINGS);
  takes[2]!.become({ phase: 'failed', trouble: 'band', message: 'no band' });
  expect([flow.state.scene, flow.state.trouble]).toEqual(['setup', 'no band']);
  await flow.start(SETTINGS);
  takes[3]!.become({ phase: 'waiting' });
  expect(flow.state.scene).toBe('waiting');
  opens = false;
  await flow.start(SETTINGS);
  expect([flow.state.scene, takes.length]).toEqual(['no-input', 4]);
  flow.back();
  expect(flow.state.scene).toBe('setup');
});

test('the running take thrown away leads to the setup, not to the result of the one before: nobody throws that away by mistake', async () => {
  await played();
  takes[0]!.become({ phase: 'finishing', what: '' });
  done(takes[0]!);
  await jest.advanceTimersByTimeAsync(RESULT_ALONE_MS);
  takes[1]!.become({ phase: 'running' });
  await jest.advanceTimersByTimeAsync(2_000);
  expect(flow.state.scene).toBe('live');
  await takes[1]!.discard();
  expect([flow.state.scene, flow.state.finished, takes[0]!.asked]).toEqual(['setup', null, []]);
});

test('a take that is cut off by its input does not roll on; leaving lets the running one go', async () => {
  await played();
  takes[0]!.become({ phase: 'finishing', what: '' });
  done(takes[0]!, { cut: true });
  await jest.advanceTimersByTimeAsync(5_000);
  expect([takes[1]!.asked, flow.state.finished?.cut]).toEqual([['prepare', 'discard'], true]);
  await played();
  flow.leave();
  expect(takes[2]!.asked).toEqual(['leave']);
});
