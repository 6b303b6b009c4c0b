/** A source of numbers in [0, 1) that a seed decides wholly: the core has no other randomness. */
export type Random = () => number;

/**
 * Mulberry32: 32 bits of state, period 2³², good enough for choosing notes and noise, not for secrets.
 * Source: Tommy Ettinger's public-domain generator (from memory).
 */
export function seededRandom(seed: number): Random {
  let state = seed >>> 0;
  return () => {
    state = (state + 0x6d2b79f5) >>> 0;
    let mixed = Math.imul(state ^ (state >>> 15), 1 | state);
    mixed = (mixed + Math.imul(mixed ^ (mixed >>> 7), 61 | mixed)) ^ mixed;
    return ((mixed ^ (mixed >>> 14)) >>> 0) / 4294967296;
  };
}

/** A draw from the standard normal distribution (Box and Muller, 1958). */
export const gaussian = (random: Random): number =>
  Math.sqrt(-2 * Math.log(1 - random())) * Math.cos(2 * Math.PI * random());

/** One of several, each as likely as the others. */
export function pick<T>(random: Random, choices: readonly T[]): T {
  const chosen = choices[Math.floor(random() * choices.length)];
  if (chosen === undefined) throw new Error('pick: nothing to choose from');
  return chosen;
}
