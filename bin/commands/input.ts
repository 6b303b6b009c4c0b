import { readFileSync, writeFileSync } from 'node:fs';
import { parseArgs, type ParseArgsConfig } from 'node:util';
import { readChart, type Chart } from '@/core/chart';
import { readPlanId, readPlanWords, RUNGS, type PlanChoice, type Rung } from '@/core/plan';
import { BadInput, valueOf } from './exit';

type Options = NonNullable<ParseArgsConfig['options']>;

/** Arguments by Node's own parser, its complaints as bad input. Negative numbers may follow an option. */
export function argumentsOf<T extends Options>(args: string[], options: T) {
  try {
    return parseArgs({ args: joinNegatives(args), options, allowPositionals: true, strict: true });
  } catch (error) {
    throw new BadInput((error as Error).message);
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
  if (path === undefined || more.length > 0) throw new BadInput(`Name one file: ${what}.`);
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
    throw new BadInput(
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
  if (!Number.isInteger(value)) throw new BadInput(`--${name} takes a whole number, not “${text}”.`);
  return value;
}

/** `--tempo`, or the chart's own. */
export const tempoFrom = (text: string | undefined, chart: Chart): number =>
  numberFrom(text, 'tempo', 20, 400, chart.tempo ?? undefined);

type PlanArguments = {
  readonly plan?: string | undefined;
  readonly home?: string | undefined;
  readonly target?: string | undefined;
  readonly degrees?: string | undefined;
  readonly mode?: string | undefined;
};

/** The plan a command names, with what its school leaves open. */
export function planFrom({ plan, home, target, degrees, mode }: PlanArguments): PlanChoice {
  const id = valueOf(readPlanId(plan ?? 'scale-per-chord'));
  if (target !== undefined && !(RUNGS as readonly string[]).includes(target))
    throw new BadInput(`--target takes ${RUNGS.join(', ')}, not “${target}”.`);
  return {
    id,
    ...valueOf(readPlanWords({ home, degrees, mode })),
    ...(target === undefined ? {} : { target: target as Rung }),
  };
}

export const printJson = (value: unknown): void => void process.stdout.write(`${JSON.stringify(value)}\n`);
