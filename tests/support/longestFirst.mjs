import TestSequencer from '@jest/test-sequencer';

/** Minutes long each: begun last, one of them would keep one core busy while the other waits. */
const LONGEST = [
  'tests/unit/ears.test.ts',
  'tests/unit/plantedSound.test.ts',
  'tests/unit/transcription.test.ts',
  'bin/wander.test.ts',
  'src/core/drills/drills.test.ts',
  'tests/unit/drillChain.test.ts',
];

/** The longest files first, also in a fresh clone, where no run has been timed yet. */
export default class LongestFirst extends TestSequencer {
  sort(tests) {
    const place = ({ path }) => {
      const found = LONGEST.findIndex((name) => path.endsWith(name));
      return found < 0 ? LONGEST.length : found;
    };
    return [...super.sort(tests)].sort((a, b) => place(a) - place(b));
  }
}
