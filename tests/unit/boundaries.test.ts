import { beforeAll, expect, test } from '@jest/globals';
import { spawnSync } from 'node:child_process';

// The direction of imports, proved by breaking it.
const BREAKING: readonly (readonly [name: string, file: string, text: string, rule: string])[] = [
  [
    'a lower room of the core that reaches up',
    'src/core/music/zz.ts',
    "import { analyse } from '../analyse'; export const x = analyse;",
    'boundaries/dependencies',
  ],
  [
    'the core that reaches for the server',
    'src/core/music/zz.ts',
    "import { database } from '@/server/db/client'; export const x = database;",
    'boundaries/dependencies',
  ],
  [
    'a screen that takes the server along',
    'src/features/takes/zz.ts',
    "import { database } from '@/server/db/client'; export const x = database;",
    '@typescript-eslint/no-restricted-imports',
  ],
  [
    'a feature that imports another',
    'src/features/takes/zz.ts',
    "import { Setup } from '../record/Setup'; export const x = Setup;",
    'boundaries/dependencies',
  ],
  [
    'a room entered past its index',
    'src/ui/zz.ts',
    "import { readWav } from '@/core/formats/wav'; export const x = readWav;",
    'no-restricted-imports',
  ],
];
const RIGHT = {
  file: 'src/core/analyse/zz.ts',
  text: "import { readChord } from '../music'; export const x = readChord;",
};

/** The rules each of these breaks, the right one last. */
let broken: string[][] = [];
beforeAll(() => {
  const given = [...BREAKING.map(([, file, text]) => ({ file, text })), RIGHT];
  const { stdout } = spawnSync('node', ['tests/support/lintTexts.mjs'], {
    input: JSON.stringify(given),
    encoding: 'utf8',
  });
  broken = JSON.parse(stdout) as string[][];
}, 120_000);

test.each(BREAKING.map(([name, , , rule], index) => [name, index, rule] as const))(
  '%s fails the check',
  (_, index, rule) => expect(broken[index]).toContain(rule),
);

test('what goes the right way passes', () => expect(broken.at(-1)).toEqual([]));

test('the core compiles alone, without DOM and Node types', () => {
  const { status } = spawnSync('npx', ['tsc', '-p', 'src/core/tsconfig.json'], { encoding: 'utf8' });
  expect(status).toBe(0);
}, 120_000);
