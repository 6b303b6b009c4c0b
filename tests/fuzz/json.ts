type Random = () => number;
type Json = null | boolean | number | string | readonly Json[] | { readonly [key: string]: Json };

const below = (random: Random, most: number): number => Math.floor(random() * most);

/** Values that a body is not expected to hold where it holds another. */
const TROUBLE: readonly Json[] = [
  null,
  true,
  0,
  -1,
  0.5,
  1e15,
  -1e15,
  5e-324,
  2 ** 53,
  '',
  ' ',
  '0',
  'NaN',
  '../../etc/passwd',
  '\u0000',
  '\ud800',
  '♭♭♭♭/𝄫',
  'x'.repeat(70_000),
  '| C7 |'.repeat(9_000),
  [],
  [[[[[[]]]]]],
  {},
  { constructor: { prototype: 1 } },
  { $ne: null },
];

const isList = (value: Json): value is readonly Json[] => Array.isArray(value);

/** One change somewhere in a value: another value, a part left out, added, or said many times. */
export function changedJson(value: Json, random: Random): Json {
  const trouble = (): Json => TROUBLE[below(random, TROUBLE.length)] ?? null;
  const isLeaf = value === null || typeof value !== 'object';
  if (isLeaf || below(random, 8) === 0)
    return typeof value === 'number' && below(random, 2) ? value * (random() * 4 - 2) : trouble();
  if (isList(value)) {
    const at = below(random, value.length + 1);
    const [before, own, after] = [value.slice(0, at), value.slice(at, at + 1), value.slice(at + 1)];
    switch (below(random, 4)) {
      case 0:
        return [...before, ...after];
      case 1:
        return [...before, trouble(), ...own, ...after];
      case 2:
        return Array.from({ length: 1 + below(random, 60) }, () => value).flat();
      default:
        return [...before, ...own.map((one) => changedJson(one, random)), ...after];
    }
  }
  const entries = Object.entries(value as Record<string, Json>);
  const at = below(random, entries.length + 1);
  const [key, own] = entries[at] ?? ['more', trouble()];
  if (below(random, 6) === 0) return Object.fromEntries(entries.filter(([name]) => name !== key));
  return { ...(value as Record<string, Json>), [key]: changedJson(own, random) };
}
