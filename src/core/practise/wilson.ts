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
