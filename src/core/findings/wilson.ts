/**
 * The 95 % score interval for a rate (E. B. Wilson, JASA 1927).
 * @param met times it was done, out of `of`
 * @returns lower and upper end, 0 to 1; [0, 1] where nothing was counted
 */
export function wilsonInterval(met: number, of: number, z = 1.959964): readonly [number, number] {
  if (of === 0) return [0, 1];
  const rate = met / of;
  const spread = z * Math.sqrt((rate * (1 - rate)) / of + (z * z) / (4 * of * of));
  const centre = rate + (z * z) / (2 * of);
  const scale = 1 + (z * z) / of;
  return [Math.max(0, (centre - spread) / scale), Math.min(1, (centre + spread) / scale)];
}

/** A count out of so many. */
export type Rate = { readonly met: number; readonly of: number };

/**
 * The interval of the difference of two rates, after less before: the hybrid score method 10 of R. G.
 * Newcombe, Statistics in Medicine
 * 17 (1998) 873–890. Recorded with its worked examples in the tests.
 * @returns lower and upper end, −1 to 1; [−1, 1] where either was not counted
 */
export function newcombeInterval(before: Rate, after: Rate, z = 1.959964): readonly [number, number] {
  if (before.of === 0 || after.of === 0) return [-1, 1];
  const [p1, p2] = [after.met / after.of, before.met / before.of];
  const [[l1, u1], [l2, u2]] = [
    wilsonInterval(after.met, after.of, z),
    wilsonInterval(before.met, before.of, z),
  ];
  const difference = p1 - p2;
  return [difference - Math.hypot(p1 - l1, u2 - p2), difference + Math.hypot(u1 - p1, p2 - l2)];
}
