import { readFileSync, writeFileSync } from 'node:fs';
import { parseArgs, type ParseArgsConfig } from 'node:util';
import { readChart, type Chart } from '@/core/chart';
import {
  misplacedParts,
  overlayOf,
  planFromWords,
  readPlanId,
  readPlanPart,
  readPlanWords,
  RUNGS,
  type PlanChoice,
  type PlanWords,
  type Rung,
} from '@/core/plan';
import { nearestOf } from '@/core/shared';
import { BadInput, BadUsage, valueOf } from './exit';

type Options = NonNullable<ParseArgsConfig['options']>;

/** Arguments by Node's own parser, its complaints as bad input. Negative numbers may follow an option. */
export function argumentsOf<T extends Options>(args: string[], options: T) {
  try {
    return parseArgs({ args: joinNegatives(args), options, allowPositionals: true, strict: true });
  } catch (error) {
    const { message } = error as Error;
    const unknown = /^Unknown option '(--[^']+)'/.exec(message)?.[1];
    if (unknown === undefined) throw new BadUsage(message);
    const nearest = nearestOf(unknown.slice(2), Object.keys(options));
    throw new BadUsage(`There is no option ${unknown}.${nearest === undefined ? '' : ` Try: --${nearest}`}`);
  }
}

/** `--offset -0.1` is one option and its value. */
const joinNegatives = (args: readonly string[]): string[] =>
  args.reduce<string[]>((joined, arg) => {
    const last = joined[joined.length - 1];
    if (/^-\d/.test(arg) && last?.startsWith('--') && !last.includes('='))
      return [...joined.slice(0, -1), `${last}=${arg}`];
    return [...joined, arg];
  }, []);

export function readFile(path: string): Buffer {
  try {
    return readFileSync(path);
  } catch (error) {
    throw new BadInput(
      `${path} cannot be read: ${(error as NodeJS.ErrnoException).code ?? (error as Error).message}.`,
    );
  }
}

export function writeFile(path: string, content: Uint8Array | string): void {
  try {
    writeFileSync(path, content);
  } catch (error) {
    throw new BadInput(
      `${path} cannot be written: ${(error as NodeJS.ErrnoException).code ?? (error as Error).message}.`,
    );
  }
}

/** The one file a command works on. */
export function onlyFile(positionals: readonly string[], what: string): string {
  const [path, ...more] = positionals;
  if (path === undefined || more.length > 0) throw new BadUsage(`Name one file: ${what}.`);
  return path;
}

export const chartFrom = (path: string): Chart => valueOf(readChart(readFile(path).toString('utf8')));

export function numberFrom(
  text: string | undefined,
  name: string,
  low: number,
  high: number,
  fallback?: number,
): number {
  if (text === undefined && fallback !== undefined) return fallback;
  const value = Number(text);
  if (text === undefined || text.trim() === '' || !(value >= low && value <= high))
    throw new BadUsage(
      `--${name} takes a number from ${low} to ${high}${text === undefined ? '' : `, not “${text}”`}.`,
    );
  return value;
}

export function wholeFrom(
  text: string | undefined,
  name: string,
  low: number,
  high: number,
  fallback?: number,
): number {
  const value = numberFrom(text, name, low, high, fallback);
  if (!Number.isInteger(value)) throw new BadUsage(`--${name} takes a whole number, not “${text}”.`);
  return value;
}

/** `--tempo`, or the chart's own. */
export const tempoFrom = (text: string | undefined, chart: Chart): number =>
  numberFrom(text, 'tempo', 20, 400, chart.tempo ?? undefined);

/** Options of every command that takes a plan. */
export const PLAN_OPTIONS = {
  plan: { type: 'string' },
  home: { type: 'string' },
  target: { type: 'string' },
  degrees: { type: 'string' },
  mode: { type: 'string' },
  aims: { type: 'string' },
  'tonic-six': { type: 'boolean' },
  part: { type: 'string', multiple: true },
  changes: { type: 'string' },
} as const;

type PlanArguments = {
  readonly plan?: string | undefined;
  readonly home?: string | undefined;
  readonly target?: string | undefined;
  readonly degrees?: string | undefined;
  readonly mode?: string | undefined;
  /** Degrees of the chord to land on. */
  readonly aims?: string | undefined;
  readonly 'tonic-six'?: boolean | undefined;
  /** Parts of the plan, as `readPlanPart` reads them. */
  readonly part?: readonly string[] | undefined;
  /** A file with superimposed changes. */
  readonly changes?: string | undefined;
};

/** The plan a command names, as it would be stored. */
export function planWordsFrom(values: PlanArguments): PlanWords {
  const { plan, home, target, degrees, mode, aims, part, changes } = values;
  const id = valueOf(readPlanId(plan ?? 'scale-per-chord'));
  if (target !== undefined && !(RUNGS as readonly string[]).includes(target))
    throw new BadInput(`--target takes ${RUNGS.join(', ')}, not “${target}”.`);
  valueOf(readPlanWords({ home, degrees, mode }));
  const parts = (part ?? []).map((text) => valueOf(readPlanPart(text)));
  return {
    id,
    ...(home === undefined ? {} : { home }),
    ...(degrees === undefined ? {} : { degrees }),
    ...(mode === undefined ? {} : { mode }),
    ...(target === undefined ? {} : { target: target as Rung }),
    ...(aims === undefined ? {} : { aims: aims.trim().split(/\s+/) }),
    ...(values['tonic-six'] ? { tonicSix: true } : {}),
    ...(changes === undefined ? {} : { overlay: readFile(changes).toString('utf8') }),
    ...(parts.length > 0 ? { parts } : {}),
  };
}

/**
 * The plan a command names, with what its school leaves open.
 * @throws BadInput where a part of it stands over bars, sections or chords that the chart does not have
 */
export function planFrom(values: PlanArguments, chart: Chart): PlanChoice {
  const words = planWordsFrom(values);
  const [misplaced] = misplacedParts(words, chart);
  if (misplaced) throw new BadInput(misplaced.message);
  if (words.overlay !== undefined) valueOf(overlayOf(chart, words.overlay));
  return valueOf(planFromWords(words));
}

export const printJson = (value: unknown): void => void process.stdout.write(`${JSON.stringify(value)}\n`);
