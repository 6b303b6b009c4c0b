import { afterEach, expect, jest, test } from '@jest/globals';
import { newStageHub, pressBody, sharedStageBody, type SharedStage, type StageEvent } from './stageHub';

const RUNNING: SharedStage = {
  does: 'Stop and save the take',
  running: {
    chartText: '| C | F |',
    choruses: 2,
    pace: { passBeats: 8, tempi: [120, 60] },
    plan: { id: 'outline' },
    help: 0,
    position: 5,
    beat: 10,
  },
};

afterEach(() => void jest.useRealTimers());

test('a stage comes with the moment of its beat 0, however late somebody begins to listen', () => {
  let now = 50_000;
  const hub = newStageHub(() => now);
  const heard: StageEvent[] = [];
  hub.show(RUNNING);
  now += 1_500;
  const stop = hub.listen((event) => heard.push(event));
  // eight beats at 120 and two at 60 take six seconds
  expect(heard).toEqual([{ kind: 'stage', stage: RUNNING, zeroAt: 44_000, now: 51_500 }]);
  hub.press();
  hub.show({ running: null, does: null });
  expect(heard.slice(1).map(({ kind }) => kind)).toEqual(['press', 'stage']);
  stop();
  hub.press();
  expect(heard).toHaveLength(3);
});

test('every second the time is told; a Record that says nothing any more is taken off the stage', () => {
  jest.useFakeTimers();
  let now = 0;
  const hub = newStageHub(() => now);
  const heard: StageEvent[] = [];
  hub.show(RUNNING);
  const stop = hub.listen((event) => heard.push(event));
  for (let second = 0; second < 7; second++) {
    now += 1_000;
    jest.advanceTimersByTime(1_000);
  }
  expect(heard.map(({ kind }) => kind)).toEqual(['stage', 'now', 'now', 'now', 'now', 'now', 'stage', 'now']);
  expect(heard.at(-2)).toMatchObject({ stage: { running: null, does: null } });
  stop();
  expect(jest.getTimerCount()).toBe(0);
});

test('what Record says is checked as it comes in', () => {
  expect(sharedStageBody.validate(RUNNING).error).toBeUndefined();
  expect(sharedStageBody.validate({ running: null, does: null }).error).toBeUndefined();
  const odd = { ...RUNNING, running: { ...RUNNING.running, choruses: 1e9 } };
  expect(sharedStageBody.validate(odd).error).toBeDefined();
  expect(pressBody.validate({ press: false }).error).toBeDefined();
});
