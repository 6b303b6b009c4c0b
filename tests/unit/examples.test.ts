import { execFileSync } from 'node:child_process';
import { readFileSync } from 'node:fs';
import { expect, test } from '@jest/globals';
import * as analyseRoom from '@/core/analyse';
import * as chartRoom from '@/core/chart';
import * as musicRoom from '@/core/music';
import * as planRoom from '@/core/plan';
import * as sharedRoom from '@/core/shared';

// The examples in the docstrings of the core: `expression // value`, run as they stand.
const ROOMS = ['music', 'chart', 'plan', 'analyse'] as const;
const KNOWN: Record<string, unknown> = {
  ...sharedRoom,
  ...musicRoom,
  ...chartRoom,
  ...planRoom,
  ...analyseRoom,
};

type Example = { readonly file: string; readonly expression: string; readonly value: string };

/** An expression may go over several lines; its value stands behind the last of them. */
const examplesIn = (file: string): Example[] =>
  readFileSync(file, 'utf8')
    .split('@example')
    .slice(1)
    .flatMap((after) => {
      const lines = after.slice(0, after.indexOf('*/')).split('\n');
      const text = lines.map((line) => line.replace(/^ \*\s?/, '')).join('\n');
      return [...text.matchAll(/([^]+?) \/\/ (.+)/g)].map(([, expression = '', value = '']) => ({
        file,
        expression: expression.trim(),
        value,
      }));
    });

const evaluate = (code: string): unknown =>
  (new Function(...Object.keys(KNOWN), `return (${code});`) as (...all: unknown[]) => unknown)(
    ...Object.values(KNOWN),
  );

const files = execFileSync('git', ['ls-files', ...ROOMS.map((room) => `src/core/${room}/*.ts`)], {
  encoding: 'utf8',
})
  .trim()
  .split('\n');
const examples = files.flatMap(examplesIn);

test('every room of the musical core has examples', () => {
  for (const room of ROOMS)
    expect([room, examples.some(({ file }) => file.startsWith(`src/core/${room}/`))]).toEqual([room, true]);
});

test.each(examples.map((one) => [one.expression, one.value]))('%s is %s', (expression, value) =>
  expect(evaluate(expression)).toEqual(evaluate(value)),
);
