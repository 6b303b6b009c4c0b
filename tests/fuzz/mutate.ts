import { elementAt } from '@/core/shared';

type Random = () => number;

const below = (random: Random, most: number): number => Math.floor(random() * most);

/** Bytes and words that readers stumble over: borders of numbers, markup, musical signs, half a code point. */
const TROUBLE = [
  '0',
  '-1',
  '65536',
  '4294967296',
  '1e309',
  'NaN',
  '\u0000',
  '\uFFFD',
  '||||',
  '||:',
  '%%',
  '[A',
  ']]>',
  '<!--',
  '<a ',
  '&lt;',
  '{"a":',
  '[[[[[[[[',
  '♭♭♭♭',
  '𝄫',
  'Cmaj7#11/',
  'N.C.',
  ':1/0',
].map((word) => new TextEncoder().encode(word));

const spliced = (bytes: Uint8Array, at: number, removed: number, put: Uint8Array): Uint8Array => {
  const made = new Uint8Array(Math.max(0, bytes.length - removed) + put.length);
  made.set(bytes.subarray(0, at));
  made.set(put, at);
  made.set(bytes.subarray(at + removed, bytes.length), at + put.length);
  return made;
};

/** One change: a bit, a byte, a word of trouble put in, a piece cut out, said again or cut off. */
function changed(bytes: Uint8Array, random: Random): Uint8Array {
  const at = below(random, bytes.length + 1);
  const length = Math.min(bytes.length - at, 1 + below(random, 1 + below(random, 64)));
  switch (below(random, 7)) {
    case 0: {
      const made = Uint8Array.from(bytes);
      if (at < made.length) made[at] = elementAt(made, at) ^ (1 << below(random, 8));
      return made;
    }
    case 1: {
      const made = Uint8Array.from(bytes);
      for (let next = at; next < at + length; next++)
        made[next] = below(random, 2) ? 255 : below(random, 256);
      return made;
    }
    case 2:
      return spliced(bytes, at, 0, elementAt(TROUBLE, below(random, TROUBLE.length)));
    case 3:
      return spliced(bytes, at, length, new Uint8Array(0));
    case 4: {
      const piece = bytes.subarray(at, at + length);
      const times = 1 + below(random, 40);
      return spliced(bytes, at, 0, Uint8Array.from(Array.from({ length: times }, () => [...piece]).flat()));
    }
    case 5:
      return bytes.slice(0, at);
    default: {
      const from = below(random, bytes.length + 1);
      return spliced(bytes, at, 0, bytes.slice(from, from + length));
    }
  }
}

/** A good input with one to six changes. */
export function mutated(seed: Uint8Array, random: Random): Uint8Array {
  let made = seed;
  for (let left = 1 + below(random, 6); left > 0; left--) made = changed(made, random);
  return made;
}
