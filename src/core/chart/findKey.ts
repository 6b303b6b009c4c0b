import { modulo } from '../vocabulary';
import { hasTone, isDominant, isMinorish, rootPc, scaleOn, type Chord, type Key, type SpelledNote } from '../music';

const TONICS: readonly SpelledNote[] = (
  [['C', 0], ['D', -1], ['D', 0], ['E', -1], ['E', 0], ['F', 0], ['G', -1], ['G', 0], ['A', -1], ['A', 0], ['B', -1], ['B', 0]] as const
).map(([letter, alter]) => ({ letter, alter }));

/** A chord with how long it lasts, in form order. */
export type Weighed = { readonly chord: Chord; readonly beats: number };

/**
 * The key of a progression that names none: the one whose scale holds most of the chord tones, whose tonic is approached by
 * its dominant, and which the form begins and ends in. Weights are our own and settled on the forms of the tests.
 */
export function findKey(chords: readonly Weighed[]): Key {
  const first = chords[0];
  if (!first) return { tonic: TONICS[0]!, minor: false };
  const roots = new Set(chords.map(({ chord }) => rootPc(chord)));
  if (roots.size === 1) return { tonic: first.chord.root, minor: isMinorish(first.chord) };
  let best: { key: Key; score: number } | null = null;
  for (let pc = 0; pc < 12; pc++)
    for (const minor of [false, true]) {
      const tonic = chords.find(({ chord }) => rootPc(chord) === pc)?.chord.root ?? TONICS[pc]!;
      const key = { tonic, minor };
      const score = fit(chords, key, pc) + cadences(chords, key, pc) + edges(chords, key, pc);
      if (!best || score > best.score + 1e-9) best = { key, score };
    }
  return best!.key;
}

/** Share of chord-tone time inside the key (harmonic minor's leading tone allowed), 0 to 1. */
function fit(chords: readonly Weighed[], key: Key, tonic: number): number {
  const pcs = scaleOn(key.tonic, key.minor ? 'natural minor' : 'major').pcs;
  let inside = 0;
  let all = 0;
  for (const { chord, beats } of chords)
    for (const tone of chord.tones) {
      all += beats;
      if (pcs.includes(tone.pc) || (key.minor && isDominant(chord) && tone.pc === modulo(tonic - 1, 12))) inside += beats;
    }
  return all ? (3 * inside) / all : 0;
}

const isTonic = (chord: Chord, key: Key, tonic: number): boolean =>
  rootPc(chord) === tonic && (key.minor ? isMinorish(chord) : hasTone(chord, modulo(tonic + 4, 12)));

function cadences(chords: readonly Weighed[], key: Key, tonic: number): number {
  let count = 0;
  chords.forEach(({ chord }, index) => {
    const next = chords[(index + 1) % chords.length]!.chord;
    const leads = isDominant(chord) || chord.quality === 'major';
    if (leads && rootPc(chord) === modulo(tonic + 7, 12) && isTonic(next, key, tonic)) count += isDominant(chord) ? 1 : 0.5;
  });
  return Math.min(count, 3) * 0.35;
}

function edges(chords: readonly Weighed[], key: Key, tonic: number): number {
  const first = chords[0]!.chord;
  const last = chords[chords.length - 1]!.chord;
  return (isTonic(first, key, tonic) ? 0.4 : 0) + (isTonic(last, key, tonic) ? 0.4 : 0);
}
