import { expect, test } from '@jest/globals';
import { LiveNotes } from './liveNotes';

const note = (onsetSec: number, offsetSec: number, midi: number) => ({ onsetSec, offsetSec, midi, cents: 0 });

test('a note grows under its onset; a new one ends what still seemed to sound; whoever draws is told', () => {
  const line = new LiveNotes();
  let told = 0;
  const stop = line.subscribe(() => told++);
  line.add([note(1, 1.1, 60)]);
  line.add([note(1, 1.4, 60), note(1.3, 1.35, 62)]);
  expect(line.read()).toEqual([note(1, 1.3, 60), note(1.3, 1.35, 62)]);
  line.add([note(0.5, 0.8, 55)]);
  expect(line.read().map(({ midi }) => midi)).toEqual([55, 60, 62]);
  stop();
  line.add([note(2, 2.1, 64)]);
  expect(told).toBe(3);
});
