import { certain, type PitchClass } from '../vocabulary';
import { FLAT_NAMES, readChord, type Chord } from '../music';
import { gainOn } from './gain';

/** Triads before sevenths: of equals the plainer is said. */
const QUALITIES = ['', 'm', 'dim', '+', '7', 'maj7', 'm7', 'm7b5', 'dim7', '6', 'm6', 'sus4', '7sus4', 'mMaj7'];
const NOTHING: ReadonlySet<PitchClass> = new Set();

let made: readonly Chord[] | null = null;
const chords = (): readonly Chord[] => (made ??= FLAT_NAMES.flatMap((root) => QUALITIES.map((quality) => certain(readChord(root + quality)))));

/**
 * What the line said by itself.
 * Rule: 2-theory, "What the line said": over all roots and qualities, the best-scoring chord; with fewer than three pitch classes the notes instead.
 * @param own the chord that is sounding; it wins where it scores as well as any
 * @returns a chord symbol, or note names with spaces; null of nothing
 */
export function saidBy(weights: readonly { readonly pc: PitchClass; readonly weight: number }[], own: Chord): string | null {
  const pcs = [...new Set(weights.map(({ pc }) => pc))].sort((a, b) => a - b);
  if (pcs.length === 0) return null;
  if (pcs.length < 3) return pcs.map((pc) => FLAT_NAMES[pc]!).join(' ');
  // a chord that is spelled whole is heard before one that is only hinted at; where none is, its root must sound
  const whole = chords().filter((chord) => chord.tones.every((tone) => pcs.includes(tone.pc)));
  const heard = whole.length > 0 ? whole : chords().filter((chord) => pcs.includes(chord.tones[0]!.pc));
  const score = (chord: Chord) => weights.reduce((sum, { pc, weight }) => sum + weight * gainOn(chord, NOTHING, pc), 0);
  const isHeard = whole.length === 0 || own.tones.every((tone) => pcs.includes(tone.pc));
  let best = { chord: own, score: isHeard ? score(own) : -Infinity };
  for (const chord of heard) {
    const value = score(chord);
    if (value > best.score + 1e-9) best = { chord, score: value };
  }
  return best.chord.symbol;
}
