import { expect, test } from '@jest/globals';
import { analyse } from '@/core/analyse';
import { readChart } from '@/core/chart';
import { TRANSFERS, VARIATIONS, type Found } from '@/core/phrases';
import { unwrap } from '@/core/shared';
import {
  busyWords,
  calibrationWords,
  cellWords,
  endWords,
  foundWords,
  homeWords,
  lineLevelName,
  playedAgainWords,
  playTroubleWords,
  stepWords,
  takeTroubleWords,
  togetherWords,
  transferWords,
  variationWords,
} from './index';

const found = (how: Found['how'], changed: number[] = []): Found => ({ at: 0, beat: 0, how, changed });

test('every way to carry a phrase and every variation has a name of its own, and says what it keeps', () => {
  const names = [...TRANSFERS.map((one) => transferWords(one).name), ...VARIATIONS.map(variationWords)];
  expect(new Set(names).size).toBe(TRANSFERS.length + VARIATIONS.length);
  for (const transfer of TRANSFERS) expect(transferWords(transfer).what).toMatch(/^[A-Z].*\.$/);
});

test.each([
  [[], 'In none of your takes so far.'],
  [[1], 'Played once in 1 take.'],
  [[2, 1], 'Played 3 times in 2 takes.'],
])('where it was played: %j', (counts, words) => expect(playedAgainWords(counts)).toBe(words));

test('how it came back: as it is, moved, with notes changed', () => {
  expect(foundWords([found('exact'), found('exact'), found('moved')])).toBe('2 as it is, 1 moved');
  expect(foundWords([found('fitted', [2])])).toBe('1 with a note changed');
  expect(foundWords([found('fitted', [1, 2])])).toBe('1 with notes changed');
});

test('steps and the way home, as a player says them', () => {
  expect([1, -2, 3, -5, 12].map(stepWords)).toEqual([
    'a half step up',
    'a whole step down',
    'a minor third up',
    'a fourth down',
    'an octave up',
  ]);
  expect([homeWords(0), homeWords(null), homeWords(-1)]).toEqual([
    '–',
    'no tone near it',
    'a half step down',
  ]);
  expect(['home', 'floats', 'asks'].map((end) => endWords(end as 'home'))).toEqual([
    'comes home',
    'floats',
    'wants to go on',
  ]);
});

test('a moving cell: stays inside, is scattered outside, or steps out and comes home', () => {
  const over = (pitches: readonly number[], length = 0.5) =>
    cellWords(
      analyse({
        chart: unwrap(readChart('key: C\n| Cm7 | Cm7 | Cm7 |')),
        tempo: 120,
        plan: { id: 'step-out' },
        leanMs: 0,
        notes: pitches.map((midi, index) => ({ onsetBeat: index * length, durationBeats: length, midi })),
      }),
    );
  expect(over([63, 65, 67, 70, 72])).toBe('Every note stays inside the scales of the chords.');
  expect(over([63, 65, 67, 70, 64, 66, 68, 71, 63, 65, 67, 70, 72])).toMatch(
    /^It steps out over \d+ notes and comes home\.$/,
  );
});

test('what was struck together: a dyad by interval and degrees, a triad by inversion, a hit by name', () => {
  expect(togetherWords({})).toBe('');
  expect(togetherWords({ dyad: { semitones: 9, degrees: ['b7', '5'] } })).toBe('a sixth: ♭7 and 5');
  expect(togetherWords({ dyad: { semitones: 16, degrees: ['1', null] } })).toBe(
    'an octave and a third: 1 and –',
  );
  expect(togetherWords({ name: 'Bb', inversion: 1 })).toBe('B♭, first inversion');
  expect(togetherWords({ name: 'G7' })).toBe('G7');
});

test('what recording and measuring say: whole sentences with a way out, and the server’s own words', () => {
  const kinds = ['second-take', 'no-input', 'band', 'nothing-recorded', 'not-finished'] as const;
  const sentences = kinds.map((kind) => takeTroubleWords({ kind }));
  expect(new Set(sentences).size).toBe(kinds.length);
  for (const sentence of sentences) expect(sentence).toMatch(/^[A-Z].*\.$/);
  expect(takeTroubleWords({ kind: 'said', words: 'The disk is full.' })).toBe('The disk is full.');
  const reasons = ['no-input', 'clicks-unheard', 'clicks-disagree', 'claps-unheard'] as const;
  for (const kind of reasons) expect(calibrationWords({ kind })).toMatch(/^[A-Z].*\.$/);
  expect(calibrationWords({ kind: 'claps-scattered', spreadMs: 48 })).toContain('48 ms');
  expect([busyWords('opening'), busyWords('finishing'), busyWords('running')]).toEqual([
    'Preparing the band',
    'Saving the last notes',
    null,
  ]);
  expect(playTroubleWords('sound-unopened')).not.toBe(playTroubleWords('note-unmoved'));
  expect(lineLevelName('free')).toBe('free, and home again');
});
