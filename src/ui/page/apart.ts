/** Something on a line: its left edge and how wide it is. */
type Placed = { readonly x: number; readonly width: number };

/**
 * Left edges at which nothing on a line lies over its neighbour: what is too near is pushed to the right, and back
 * from the end of the line where there is no more room.
 * @param places from left to right, as they would like to stand
 * @param gap least distance between two of them
 * @param end where the line ends
 */
export function standApart(places: readonly Placed[], gap: number, end: number): readonly number[] {
  const edges: number[] = [];
  let free = -Infinity;
  for (const { x, width } of places) {
    edges.push(Math.max(x, free));
    free = Math.max(x, free) + width + gap;
  }
  let most = end;
  for (let index = places.length - 1; index >= 0; index--) {
    const { width } = places[index]!;
    edges[index] = Math.min(edges[index]!, most - width);
    most = edges[index]! - gap;
  }
  return edges;
}
