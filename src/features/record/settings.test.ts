import { expect, test } from '@jest/globals';
import { unwrap } from '@/core/shared';
import { DEFAULTS } from '../shell/preferences';
import { movingChannel } from '../shell/channels';
import { defaultSettings, readNumbers, takeSettings, withChart, type RecordChart } from './settings';

const CHART: RecordChart = {
  id: 'a',
  title: 'Walk',
  text: 'title: Walk\nkey: C\ntempo: 90\n| Dm7 | G7 | Cmaj7 | % |\n',
};
const WALTZ: RecordChart = { id: 'b', title: 'Waltz', text: 'tempo: 140\nmeter: 3/4\n| C |' };
const settings = { ...defaultSettings([CHART, WALTZ], 'a', null), choruses: 3 };
const made = (change: object) => takeSettings({ ...settings, ...change }, CHART, DEFAULTS, 5);

test('numbers as people write them', () => {
  expect(unwrap(readNumbers(' 2, 4-6 ,5', 8))).toEqual([2, 4, 5, 6]);
  expect(unwrap(readNumbers('', 8))).toEqual([]);
  for (const text of ['x', '0', '9', '5-3', '2;3'])
    expect([text, readNumbers(text, 8).ok]).toEqual([text, false]);
});

test('what is set is what the take is begun with', () => {
  expect(
    unwrap(made({ aloneChoruses: '2', aloneBars: '3-4', tempoStep: 4, click: 'two-and-four' })),
  ).toMatchObject({
    chartId: 'a',
    title: 'Walk',
    seed: 5,
    route: { passes: 3, tempo: 90, tempoStep: 4 },
    band: { level: 0.3, click: 'two-and-four', dropOut: { choruses: [2], bars: [3, 4] } },
  });
});

test('in moving keys a chorus without the band is its bars in the form that is written out', () => {
  expect(unwrap(made({ keyStep: 5, aloneChoruses: '2' })).band.dropOut).toEqual({ bars: [5, 6, 7, 8] });
});

test('what cannot be played is said with where it is', () => {
  expect(made({ aloneChoruses: '4' })).toMatchObject({
    ok: false,
    problems: [{ message: 'Choruses without the band: “4” is not among 1 to 3.' }],
  });
  expect(made({ aloneBars: '9' }).ok).toBe(false);
  expect(made({ bars: [3, 9] })).toMatchObject({ ok: false, problems: [{ code: 'route.bars' }] });
});

test('another chart comes with its own tempo and whole form', () => {
  expect(withChart({ ...settings, bars: [1, 2], aloneBars: '2' }, [CHART, WALTZ], 'b')).toMatchObject({
    chartId: 'b',
    tempo: 140,
    bars: null,
    aloneBars: '',
    choruses: 3,
  });
});

test('the channel where something moves is told from the chosen one; together there is always one', () => {
  expect([
    movingChannel([-81, -14], 0),
    movingChannel([-81, -14], 1),
    movingChannel([-81, -60], 0),
    movingChannel([-14], 'mix'),
    movingChannel([-81, -14], 'mix'),
  ]).toEqual([1, null, null, null, 1]);
});
