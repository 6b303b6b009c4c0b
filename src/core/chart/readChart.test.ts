import { expect, test } from '@jest/globals';
import fc from 'fast-check';
import { unwrap, type Problem } from '../shared';
import { beatsPerBar, readChart, writeChart } from './index';

const bars = (text: string): string =>
  unwrap(readChart(text))
    .bars.map((bar) =>
      bar.cells.map((cell) => `${cell.chord?.symbol ?? 'N.C.'}:${cell.beats.toFraction()}`).join(' '),
    )
    .join(' | ');
const problem = (text: string): Problem => {
  const read = readChart(text);
  if (read.ok) throw new Error('was read');
  return read.problems[0];
};

test.each([
  ['| Bb7 | Eb7 | % |', 'Bb7:4 | Eb7:4 | Eb7:4'],
  ['| Bb7 . . Eb7 |', 'Bb7:3 Eb7:1'],
  ['| C G | Am F G |', 'C:2 G:2 | Am:4/3 F:4/3 G:4/3'],
  ['meter: 3/4\n| Em7b5 A7 . | Dm7 |', 'Em7b5:1 A7:2 | Dm7:3'],
  ['meter: 6/8\n| C G | F |', 'C:1 G:1 | F:2'],
  ['|: C | G :|', 'C:4 | G:4 | C:4 | G:4'],
  ['|: C | F |1. G | G7 :|2. C | % |', 'C:4 | F:4 | G:4 | G7:4 | C:4 | F:4 | C:4 | C:4'],
  ['|: C |1. D :|2. E :|3. F |', 'C:4 | D:4 | C:4 | E:4 | C:4 | F:4'],
  ['| N.C. | C |', 'N.C.:4 | C:4'],
  ['C | F', 'C:4 | F:4'],
  ['| C |\nmeter: 3/4\n| F |', 'C:4 | F:3'],
])('%s', (text, expected) => expect(bars(text)).toBe(expected));

test('headers, sections and their keys', () => {
  const chart = unwrap(
    readChart(
      'title: A: B\nkey: F   tempo: 120  feel: Swing\npickup: 1\n[A]\n| F |\n[B]\nkey: Am\n| Am |\n[A]\n| F |\n',
    ),
  );
  expect([chart.title, chart.tempo, chart.feel, chart.pickup]).toEqual(['A: B', 120, 'swing', 1]);
  expect(chart.bars.map((bar) => [bar.section, bar.key?.tonic.letter, bar.key?.minor])).toEqual([
    ['A', 'F', false],
    ['B', 'A', true],
    ['A', 'F', false],
  ]);
});

test('beats of a bar: the dotted unit in compound meters', () => {
  expect(
    [
      [4, 4],
      [3, 4],
      [5, 4],
      [6, 8],
      [9, 8],
      [12, 8],
      [7, 8],
    ].map(([upper, lower]) => beatsPerBar({ upper: upper!, lower: lower! })),
  ).toEqual([4, 3, 5, 2, 3, 4, 7]);
});

test.each([
  [
    'a wrong chord',
    'key: C\n| C7 | F7b | G7 |',
    { code: 'chord.unknown', line: 2, column: 10, bar: 2, suggestion: 'F7b9' },
  ],
  ['an unclosed repeat', '| C |\n|: F | G |', { code: 'chart.repeat-unclosed', line: 2, bar: 2 }],
  ['a repeat never opened', '| C :| F |', { code: 'chart.repeat-unopened', bar: 1 }],
  ['an ending without a repeat', '| C |1. F | G |', { code: 'chart.ending-stray', line: 1, bar: 2 }],
  ['a repeat inside a repeat', '|: C |: F :| G :|', { code: 'chart.repeat-unclosed', bar: 1 }],
  ['a meter of nothing', 'meter: 0/4\n| C |', { code: 'chart.meter', line: 1, column: 8, suggestion: '4/4' }],
  ['a chord with three sharps', '| A###m |', { code: 'chord.unknown', line: 1, column: 6, bar: 1 }],
  ['tensions that are none', '| Cmaj7#13b2 |', { code: 'chord.unknown', line: 1, column: 8 }],
  ['a dotted bar too short', '| C . F |', { code: 'chart.beats', bar: 1, suggestion: 'C F . .' }],
  ['a bar that starts with a dot', '| . C . . |', { code: 'chart.dot' }],
  ['% with nothing before it', '| % |', { code: 'chart.nothing-to-repeat', bar: 1 }],
  ['a line without bars', 'key: C\nhello there', { code: 'chart.no-bars', line: 2, column: 1 }],
  ['nothing', '', { code: 'chart.empty' }],
  ['a wrong key', 'key: Q\n| C |', { code: 'key.unknown', line: 1, column: 6 }],
  ['a wrong meter', 'meter: 4\n| C |', { code: 'chart.meter', line: 1, column: 8 }],
  ['a wrong tempo', 'tempo: fast\n| C |', { code: 'chart.tempo', suggestion: '120' }],
])('%s is refused with its place', (_, text, expected) => expect(problem(text)).toMatchObject(expected));

test('10,000 bars and 5 MB of text are refused at once, with a way out', () => {
  const long = problem('| C '.repeat(10_000) + '|');
  expect(long).toMatchObject({ code: 'chart.too-many-bars', bar: 513 });
  expect(long.message).toContain('10,000');
  expect(long.suggestion).toBeDefined();
  const started = Date.now();
  expect(problem('| C7 '.repeat(1_000_000))).toMatchObject({ code: 'chart.too-long' });
  expect(Date.now() - started).toBeLessThan(1000);
});

test('all problems are told, in order', () => {
  const read = readChart('| Cq | F |\n| G | Hm |');
  expect(read.ok ? [] : read.problems.map((one) => [one.line, one.bar])).toEqual([
    [1, 1],
    [2, 4],
  ]);
});

const symbol = fc.constantFrom('C', 'Bb7', 'F#m7b5', 'Ebmaj7', 'G7alt', 'Dm', 'N.C.', 'A7/C#');
const bar = fc.oneof(
  fc.constant('%'),
  fc.array(symbol, { minLength: 1, maxLength: 4 }).map((all) => all.join(' ')),
  fc.tuple(symbol, symbol).map(([a, b]) => `${a} . . ${b}`),
);

test('chart text to form and back is stable', () => {
  fc.assert(
    fc.property(
      fc.array(bar, { minLength: 1, maxLength: 12 }),
      fc.constantFrom('C', 'Bbm', 'F#'),
      (all, key) => {
        if (all[0] === '%') all[0] = 'C';
        const text = `title: T\nkey: ${key}\n[A]\n| ${all.join(' | ')} |\n[B]\nkey: G\n| C |`;
        const once = writeChart(unwrap(readChart(text)));
        expect(writeChart(unwrap(readChart(once)))).toBe(once);
      },
    ),
  );
});

test('whatever is typed is read or refused, never thrown', () => {
  const word = fc.constantFrom(
    '|',
    ':|',
    '|:',
    '%',
    'C7',
    'Bb',
    '.',
    '1.',
    '2.',
    '[A]',
    'key:',
    'meter: 3/4',
    '\n',
    'N.C.',
    'xyz',
    '||',
    ' ',
  );
  fc.assert(fc.property(fc.array(word, { maxLength: 40 }), (words) => void readChart(words.join(' '))));
  fc.assert(fc.property(fc.string({ maxLength: 200 }), (text) => void readChart(text)));
});
