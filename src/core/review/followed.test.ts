import { expect, test } from '@jest/globals';
import { analyse } from '../analyse';
import { readChart } from '../chart';
import { unwrap } from '../shared';
import { followedBars } from './index';

const chart = unwrap(readChart('key: C\n| Dm7 | G7 | Cmaj7 | Cmaj7 |'));
const OVERLAY = '| Dm7 | Db7 | Bmaj7 | Cmaj7 |';
const plan = { id: 'outline' as const };
const line = (...bars: (readonly number[])[]) =>
  bars.flatMap((pitches, bar) =>
    pitches.map((midi, beat) => ({ onsetBeat: 4 * bar + beat, durationBeats: 1, midi })),
  );
const follow = (...bars: (readonly number[])[]) => {
  const report = analyse({ chart, tempo: 100, plan, notes: line(...bars), choruses: 1 });
  return followedBars({ chart, overlay: OVERLAY, tempo: 100, plan, report }).map(
    ({ bar, follows }) => `${bar} ${follows}`,
  );
};

// Db7 is Db F Ab Cb, G7 is G B D F: F and B belong to both
test('each bar whose chords differ follows the chord its notes belong to', () => {
  expect(follow([62, 65, 69, 72], [61, 65, 68, 71], [71, 75, 78, 82])).toEqual(['2 laid', '3 laid']);
  expect(follow([62, 65, 69, 72], [67, 71, 74, 77], [72, 76, 79, 83])).toEqual(['2 written', '3 written']);
  expect(follow([62, 65, 69, 72], [65, 71, 65, 71])).toEqual(['2 both', '3 rest']);
});

test('an overlay that cannot be read is followed nowhere', () => {
  const report = analyse({ chart, tempo: 100, plan, notes: line([62]), choruses: 1 });
  expect(followedBars({ chart, overlay: '| C |', tempo: 100, plan, report })).toEqual([]);
});
