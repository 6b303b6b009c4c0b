import { expect, test } from '@jest/globals';
import { readChart } from '../../chart';
import { unwrap } from '../../shared';
import { analyse } from '../index';

const hit = (key: string, midis: readonly number[]) => {
  const chart = unwrap(readChart(`key: ${key}\n| ${key.replace(' dorian', '')} | % |`));
  const notes = midis.map((midi) => ({ onsetBeat: 0, durationBeats: 1, midi }));
  return analyse({ chart, tempo: 100, plan: { id: 'outline' }, notes }).events[0]!.name;
};

// T3.13. Common practice, no source: sharp keys name what is foreign to them in sharps.
test.each([
  ['E', [61, 64, 68], 'C#m'],
  ['B', [66, 70, 73], 'F#'],
  ['Em', [66, 69, 73], 'F#m'],
  ['Eb', [61, 65, 68], 'Db'],
  ['F', [58, 62, 65], 'Bb'],
])('in %s a hit of %j is %s', (key, midis, name) => expect(hit(key, midis)).toBe(name));
