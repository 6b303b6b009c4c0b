import type { Outcome, Problem } from '@/core/shared';

export const EXIT = { ok: 0, failure: 1, badInput: 2 } as const;

/** Something in what the user gave is wrong; ends the command with exit code 2 and the message. */
export class BadInput extends Error {}

/** The command was not called as it is meant to be: its help is named after the message. */
export class BadUsage extends BadInput {}

/** `line 3, column 5: … Try: …` */
export function sentence(problem: Problem): string {
  const place = [
    problem.bar === undefined ? '' : `bar ${problem.bar}`,
    problem.line === undefined ? '' : `line ${problem.line}`,
    problem.column === undefined ? '' : `column ${problem.column}`,
    problem.path ?? '',
  ]
    .filter(Boolean)
    .join(', ');
  return `${place ? `${place}: ` : ''}${problem.message}${problem.suggestion ? ` Try: ${problem.suggestion}` : ''}`;
}

/** The value of an outcome; bad input otherwise, its problems one a line. */
export function valueOf<T>(outcome: Outcome<T>): T {
  if (outcome.ok) return outcome.value;
  throw new BadInput(outcome.problems.map(sentence).join('\n'));
}
