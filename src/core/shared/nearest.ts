/** Levenshtein's edit distance (1965), two rows at a time. */
function editDistance(a: string, b: string): number {
  let previous = Array.from({ length: b.length + 1 }, (_, column) => column);
  for (let row = 1; row <= a.length; row++) {
    const current = [row];
    for (let column = 1; column <= b.length; column++) {
      const swap = (previous[column - 1] ?? 0) + (a[row - 1] === b[column - 1] ? 0 : 1);
      current.push(Math.min(swap, (previous[column] ?? 0) + 1, (current[column - 1] ?? 0) + 1));
    }
    previous = current;
  }
  return previous[b.length] ?? 0;
}

/** The accepted spelling fewest edits away; of equals, the first listed. */
export function nearestOf(word: string, accepted: readonly string[]): string | undefined {
  let best: string | undefined;
  let fewest = Infinity;
  for (const candidate of accepted) {
    const edits = editDistance(word, candidate);
    if (edits < fewest) [best, fewest] = [candidate, edits];
  }
  return best;
}
