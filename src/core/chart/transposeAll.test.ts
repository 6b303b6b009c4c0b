import { expect, test } from '@jest/globals';
import { pitchClass, readChord } from '../music';
import { modulo, unwrap } from '../shared';
import { readChart, transposeText } from './index';

const ROOTS = ['C', 'D', 'E', 'F', 'G', 'A', 'B'];
const ACCIDENTALS = ['', 'b', '#', 'bb', '##'];
const KINDS = ['maj7', 'm7', '7alt', 'm7b5', '/E', '7/Ab', 'maj7/Bbb'];
const KEYS = ['C', 'Gb', 'Eb minor', 'C# minor', 'B', 'Db'];
const rootOf = (text: string): number => pitchClass(unwrap(readChord(/\| (\S+) \|/.exec(text)![1]!)).root);

// every chord that can be written, from every key, by every interval: what comes out can be read, and has moved as far
test.each(KEYS)(
  'whatever can be read can be read after it was moved: from %s',
  (key) => {
    for (const root of ROOTS)
      for (const accidental of ACCIDENTALS)
        for (const kind of KINDS) {
          const text = `key: ${key}\n| ${root}${accidental}${kind} |\n`;
          if (!readChart(text).ok) continue;
          for (let by = -11; by <= 11; by++) {
            const moved = unwrap(transposeText(text, { by }));
            const read = readChart(moved);
            expect([text, by, moved, read.ok]).toEqual([text, by, moved, true]);
            expect([text, by, modulo(rootOf(moved) - rootOf(text), 12)]).toEqual([text, by, modulo(by, 12)]);
          }
        }
  },
  60_000,
);
