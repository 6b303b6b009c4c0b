import { expect, jest, test } from '@jest/globals';
import { DrillRunner, RESULT_MS, type DrillWorld } from './drillRunner';
import type { SessionState, TakeSession, TakeSettings } from './takeSession';

jest.useFakeTimers();

/** A session that does what it is told: no sound, no server. */
class Told {
  state: SessionState = { phase: 'idle' };
  discarded = 0;
  left = 0;
  private readonly listeners = new Set<() => void>();
  subscribe = (listener: () => void) => {
    this.listeners.add(listener);
    return () => this.listeners.delete(listener);
  };
  getState = () => this.state;
  become(state: SessionState) {
    this.state = state;
    for (const listener of this.listeners) listener();
  }
  start = () => {
    this.become({ phase: 'running' });
    return Promise.resolve();
  };
  discard = () => {
    this.discarded++;
    this.become({ phase: 'idle' });
    return Promise.resolve();
  };
  leave = () => {
    this.left++;
  };
}

function world(change: Partial<DrillWorld<string>> = {}) {
  const sessions: Told[] = [];
  const runner = new DrillRunner<string>({
    openInput: () => Promise.resolve(true),
    settings: (attempt) => ({ seed: attempt }) as unknown as TakeSettings,
    count: (id) => Promise.resolve(`counted ${id}`),
    goesOn: (counted) => counted.length < 3,
    makeSession: () => {
      const session = new Told();
      sessions.push(session);
      return session as unknown as TakeSession;
    },
    ...change,
  });
  const done = async (takeId: string, more: { kept?: boolean; cut?: boolean } = {}) => {
    sessions[sessions.length - 1]!.become({
      phase: 'done',
      takeId,
      cut: false,
      kept: true,
      notes: 9,
      ...more,
    });
    await jest.advanceTimersByTimeAsync(0);
  };
  return { runner, sessions, done };
}

test('attempt after attempt by itself, until enough were counted', async () => {
  const { runner, sessions, done } = world();
  await runner.start();
  for (const id of ['a', 'b', 'c']) {
    expect(runner.getState().scene).toBe('live');
    await done(id);
    if (id !== 'c') expect(runner.getState()).toMatchObject({ scene: 'counting', session: null });
    await jest.advanceTimersByTimeAsync(RESULT_MS);
  }
  expect(sessions).toHaveLength(3);
  expect(runner.getState()).toMatchObject({
    scene: 'done',
    counted: [{ takeId: 'a', outcome: 'counted a' }, { takeId: 'b' }, { takeId: 'c' }],
  });
  // once more is a new sitting; what was counted before is not forgotten
  await runner.start();
  expect(runner.getState().counted).toEqual([]);
  expect(runner.getState().before).toHaveLength(3);
});

test('stopping throws the running attempt away and keeps what was counted', async () => {
  const { runner, sessions, done } = world();
  await runner.start();
  runner.stop();
  expect([runner.getState().scene, sessions[0]!.discarded]).toEqual(['ready', 1]);
  await runner.start();
  await done('a');
  await jest.advanceTimersByTimeAsync(RESULT_MS);
  runner.stop();
  await jest.advanceTimersByTimeAsync(10_000);
  expect([runner.getState().scene, runner.getState().counted.length, sessions.length]).toEqual([
    'done',
    1,
    3,
  ]);
});

test('another tempo begins the attempt anew', async () => {
  const { runner, sessions } = world();
  await runner.start();
  runner.again();
  await jest.advanceTimersByTimeAsync(0);
  expect([
    sessions.length,
    sessions[0]!.discarded,
    runner.getState().session === (sessions[1] as unknown as TakeSession),
  ]).toEqual([2, 1, true]);
  // what is told of the first one is not listened to any more
  sessions[0]!.become({ phase: 'failed', trouble: 'device', message: 'gone' });
  expect(runner.getState().trouble).toBeNull();
});

test('what goes wrong is said, and nothing goes on by itself', async () => {
  const closed = world({ openInput: () => Promise.resolve(false) });
  await closed.runner.start();
  expect(closed.runner.getState().scene).toBe('no-input');
  const away = world();
  await away.runner.start();
  await away.done('a', { kept: false });
  expect(away.runner.getState()).toMatchObject({ scene: 'done', counted: [] });
  expect(away.runner.getState().trouble).toContain('not counted');
  const refused = world({ count: () => Promise.reject(new Error('no such drill')) });
  await refused.runner.start();
  await refused.done('a');
  expect(refused.runner.getState()).toMatchObject({ scene: 'done', trouble: 'no such drill' });
  const cut = world();
  await cut.runner.start();
  await cut.done('a', { cut: true });
  await jest.advanceTimersByTimeAsync(10_000);
  expect([cut.runner.getState().scene, cut.sessions.length]).toEqual(['done', 1]);
  const silent = world();
  await silent.runner.start();
  silent.sessions[0]!.become({ phase: 'silent', takeId: 'a' });
  expect(silent.runner.getState().trouble).toContain('Nothing was heard');
});

test('a screen that is left lets go of its session', async () => {
  const { runner, sessions } = world();
  await runner.start();
  runner.leave();
  expect(sessions[0]!.left).toBe(1);
});
