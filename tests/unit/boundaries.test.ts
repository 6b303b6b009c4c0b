import { expect, test } from '@jest/globals';
import { spawnSync } from 'node:child_process';

/** What the linter says of a file that is not there, given as text. */
const complaints = (file: string, text: string): string => {
  const { stdout } = spawnSync('npx', ['eslint', '--stdin', '--stdin-filename', file, '--format', 'json'], {
    input: text,
    encoding: 'utf8',
  });
  return (JSON.parse(stdout) as { messages: { ruleId: string }[] }[])
    .flatMap((one) => one.messages.map((message) => message.ruleId))
    .join(' ');
};

// The direction of imports, proved by breaking it.
test.each([
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
])('%s fails the check', (_, file, text, rule) => expect(complaints(file, text)).toContain(rule), 60_000);

test('what goes the right way passes', () => {
  expect(
    complaints('src/core/analyse/zz.ts', "import { readChord } from '../music'; export const x = readChord;"),
  ).toBe('');
}, 60_000);

test('the core compiles alone, without DOM and Node types', () => {
  const { status } = spawnSync('npx', ['tsc', '-p', 'src/core/tsconfig.json'], { encoding: 'utf8' });
  expect(status).toBe(0);
}, 120_000);
