/** What a reader found wrong, with its place and, where there is one, the way out. */
export type Problem = {
  /** Stable word for programs: `chord.unknown`, `wav.truncated` … */
  readonly code: string;
  /** Plain sentence for people. */
  readonly message: string;
  /** Where: a path into JSON, or a place in a file. */
  readonly path?: string;
  /** 1-based line in a text. */
  readonly line?: number;
  /** 1-based column in a line, or 1-based position in a symbol. */
  readonly column?: number;
  /** How many characters are meant, from `column`. */
  readonly length?: number;
  /** 1-based bar of the chart as written. */
  readonly bar?: number;
  /** What would have been accepted instead. */
  readonly suggestion?: string;
};

/** A reader's answer: the value, or every problem it found. Readers never throw on bad input. */
export type Outcome<T> =
  | { readonly ok: true; readonly value: T }
  | { readonly ok: false; readonly problems: readonly [Problem, ...Problem[]] };

export const accepted = <T>(value: T): Outcome<T> => ({ ok: true, value });

export const refused = (
  first: Problem,
  ...others: Problem[]
): { ok: false; problems: [Problem, ...Problem[]] } => ({
  ok: false,
  problems: [first, ...others],
});

/** The value, or a thrown error: for places where bad input would be a broken invariant. */
export function unwrap<T>(outcome: Outcome<T>): T {
  if (outcome.ok) return outcome.value;
  throw new Error(outcome.problems.map((problem) => problem.message).join(' '));
}
