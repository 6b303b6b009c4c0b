import { unwrap, type PitchClass } from '../../shared';
import { FLAT_NAMES, readChord, rootPc, type Chord } from '../../music';
import { toneWeightsOn } from '../harmonicContext/toneWeights';

/** Triads before sevenths: of equals the plainer is said. */
const QUALITIES = [
  '',
  'm',
  'dim',
  '+',
  '7',
  'maj7',
  'm7',
  'm7b5',
  'dim7',
  '6',
  'm6',
  'sus4',
  '7sus4',
  'mMaj7',
];
const NOTHING: ReadonlySet<PitchClass> = new Set();

type Sayable = {
  readonly symbol: string;
  readonly root: PitchClass;
  readonly tones: number;
  readonly gains: readonly number[];
};
const sayable = (chord: Chord): Sayable => ({
  symbol: chord.symbol,
  root: rootPc(chord),
  tones: chord.tones.reduce((bits, tone) => bits | (1 << tone.pc), 0),
  gains: toneWeightsOn(chord, NOTHING),
});

let made: readonly Sayable[] | null = null;
const chords = (): readonly Sayable[] =>
  (made ??= FLAT_NAMES.flatMap((root) =>
    QUALITIES.map((quality) => sayable(unwrap(readChord(root + quality)))),
  ));
const own = new WeakMap<Chord, Sayable>();
const wholeIn = new Map<number, readonly Sayable[]>();

/** The chords that a set of pitch classes, a bit for each, spells whole. */
function spelledWhole(sounded: number): readonly Sayable[] {
  const known = wholeIn.get(sounded);
  if (known) return known;
  const found = chords().filter(({ tones }) => (tones & ~sounded) === 0);
  wholeIn.set(sounded, found);
  return found;
}

/**
 * What the line said by itself.
 * Rule T12.3: over all roots and qualities, the best-scoring chord per segment, so that “outside” can read
 * “triad a step below”. With fewer than
 * three pitch classes print the notes instead. Departs from it (docs/decisions/0011): a chord that is
 * spelled whole is heard before one that is only hinted at; where none
 * is, its root must sound.
 * @param byPc weight of each pitch class
 * @param sounding the chord that is sounding; it wins where it scores as well as any
 * @returns a chord symbol, or note names with spaces; null of nothing
 */
export function saidBy(byPc: readonly number[], sounding: Chord): string | null {
  const pcs = byPc.flatMap((weight, pc) => (weight > 0 ? [pc] : []));
  if (pcs.length === 0) return null;
  if (pcs.length < 3) return pcs.map((pc) => FLAT_NAMES[pc]!).join(' ');
  const sounded = pcs.reduce((bits, pc) => bits | (1 << pc), 0);
  const isWhole = ({ tones }: Sayable) => (tones & ~sounded) === 0;
  const whole = spelledWhole(sounded);
  const heard = whole.length > 0 ? whole : chords().filter(({ root }) => (sounded >> root) & 1);
  const score = ({ gains }: Sayable) => {
    let sum = 0;
    for (const pc of pcs) sum += byPc[pc]! * gains[pc]!;
    return sum;
  };
  let truth = own.get(sounding);
  if (!truth) own.set(sounding, (truth = sayable(sounding)));
  let best = { symbol: truth.symbol, score: whole.length === 0 || isWhole(truth) ? score(truth) : -Infinity };
  for (const chord of heard) {
    const value = score(chord);
    if (value > best.score + 1e-9) best = { symbol: chord.symbol, score: value };
  }
  return best.symbol;
}
