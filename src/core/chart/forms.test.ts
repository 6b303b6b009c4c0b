import { expect, test } from '@jest/globals';
import { unwrap } from '../shared';
import { harmonyOf, LIBRARY, readChart, timelineOf, transposeText, writeChart } from './index';

test('the library: at least twenty-four forms, each with a title, feel, key and a tempo inside its range', () => {
  expect(LIBRARY.length).toBeGreaterThanOrEqual(24);
  expect(new Set(LIBRARY.map(({ id }) => id)).size).toBe(LIBRARY.length);
  for (const { text, tempos } of LIBRARY) {
    const chart = unwrap(readChart(text));
    expect([chart.title.length > 2, chart.feel !== null, chart.key !== null]).toEqual([true, true, true]);
    expect(chart.tempo).toBeGreaterThanOrEqual(tempos[0]);
    expect(chart.tempo).toBeLessThanOrEqual(tempos[1]);
    expect(unwrap(readChart(writeChart(chart))).bars).toHaveLength(chart.bars.length);
    expect(transposeText(text, { by: 5 }).ok).toBe(true);
  }
});

/**
 * Degrees bar by bar, as a teacher would write them over each form; common practice, no source. `%` bars are
 * left out.
 */
const HAND: Record<string, string> = {
  lamplight: 'I IV I I IV IV I V/ii ii V I V/ii ii V',
  lantern: 'I I I I IV IV I I V IV I V',
  kiln: 'I IV I I IV IV I I V IV I V',
  tallow: 'I V IV IV #iv I V I IV I V',
  coldharbour: 'i i i i iv iv i i subV/V V i V',
  slate: 'i iv i v V/iv iv iv i i ii V i ii V',
  relay: 'iv bVII bIII bVI ii V i i',
  carousel: 'I vi ii V iii V/ii ii V',
  backstairs: 'I subV/ii ii subV I V/ii ii V',
  ferry: 'i i iv iv ii V i i iv bVII bIII bVI ii V i ii V',
  anvil: 'I I I I',
  tidemark: 'i IV i IV',
  seesaw: 'I I bVII bVII',
  fencepost: 'I I IV I I I V V I V/IV IV IV I V I V',
  brickyard: 'i iv V i i iv V V',
  weir: 'I V vi IV I V IV IV',
  windowseat: 'I iv I bVII vi V/V ii V I bVI IV iv bVII iii V/ii ii V I ii V',
  lockkeeper: 'ii V I I ii V I I ii V I I ii V I I',
  underpass: 'ii V i i ii V i i ii V i i ii V i i',
};

test.each(Object.entries(HAND))('degrees of %s', (id, expected) => {
  const chart = unwrap(readChart(LIBRARY.find((one) => one.id === id)!.text));
  const { readings } = harmonyOf(chart, timelineOf(chart, 120));
  expect(readings.map((reading) => reading?.degree ?? 'N.C.').join(' ')).toBe(expected);
});
