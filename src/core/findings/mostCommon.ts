/** The value met most often, and how often. */
export function mostCommon<T>(values: readonly T[]): { readonly value: T; readonly count: number } | null {
  const counts = new Map<T, number>();
  for (const value of values) counts.set(value, (counts.get(value) ?? 0) + 1);
  const [first] = [...counts].sort((a, b) => b[1] - a[1]);
  return first ? { value: first[0], count: first[1] } : null;
}
