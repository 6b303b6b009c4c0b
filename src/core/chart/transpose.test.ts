import { expect, test } from '@jest/globals';
import fc from 'fast-check';
import { unwrap } from '../shared';
import { hasTone } from '../music';
import { readChart, transposeText } from './index';

const TEXT =
  'title: A Bm tune\nkey: Bb   tempo: 96\nfeel: swing\n\n[A] | Bb7 | Eb7/G . . N.C. | % |\n[B]\nkey: Gm\n|: Cm7 F7 | D7(b9,#11) :|\nreading: 2 = IV, lydian dominant\n';

test('a chart moves to another key, respelled, and keeps everything else as it was typed', () => {
  expect(unwrap(transposeText(TEXT, { to: 'E' }))).toBe(
    'title: A Bm tune\nkey: E   tempo: 96\nfeel: swing\n\n[A] | E7 | A7/C# . . N.C. | % |\n[B]\nkey: C#m\n|: F#m7 B7 | G#7(b9,#11) :|\nreading: 2 = IV, lydian dominant\n',
  );
  expect(unwrap(transposeText(TEXT, { by: -2 }))).toContain('| Ab7 | Db7/F . . N.C. | % |');
});

test('double accidentals take their plainer name, and those typed stay', () => {
  expect(unwrap(transposeText('key: Eb\n| Ebmaj7 | Abm6 | Gbmaj7 |', { to: 'Gb' }))).toBe(
    'key: Gb\n| Gbmaj7 | Cbm6 | Amaj7 |',
  );
  expect(unwrap(transposeText('key: Cm\n| Cm | Ebmaj7 |', { by: 1 }))).toBe('key: C#m\n| C#m | Emaj7 |');
});

test('a key that is none, another mode and a chart that cannot be read are refused', () => {
  const code = (text: string, to: string) => {
    const moved = transposeText(text, { to });
    return moved.ok ? '' : moved.problems[0].code;
  };
  expect([
    code('key: C\n| C |', 'H'),
    code('key: C\n| C |', 'Am'),
    code('| Q |', 'C'),
    code('key: Am\n| Am |', 'Dm'),
    code('key: Am\n| Am |', 'D'),
  ]).toEqual(['key.unknown', 'transpose.mode', 'chord.unknown', '', '']);
});

test('there and back again sounds the same, from anywhere to anywhere', () => {
  const symbol = fc.constantFrom(
    'C',
    'Bb7',
    'F#m7b5',
    'Ebmaj7',
    'G7alt',
    'Dm',
    'A7/C#',
    'Db13',
    'B7#9',
    'Fm7/Bb',
  );
  fc.assert(
    fc.property(
      fc.array(symbol, { minLength: 1, maxLength: 8 }),
      fc.constantFrom('C', 'Bbm', 'F#', 'Db', 'G#m'),
      fc.integer({ min: -12, max: 12 }),
      (symbols, key, by) => {
        const text = `key: ${key}\n| ${symbols.join(' | ')} |`;
        const tones = (one: string) => unwrap(readChart(one)).bars.map((bar) => bar.cells[0]!.chord!);
        const back = tones(unwrap(transposeText(unwrap(transposeText(text, { by })), { by: -by })));
        tones(text).forEach((chord, index) =>
          expect(chord.tones.every((tone) => hasTone(back[index]!, tone.pc))).toBe(true),
        );
      },
    ),
  );
});
