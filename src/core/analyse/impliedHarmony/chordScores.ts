import {
  FLAT_NAMES,
  hasTone,
  noteName,
  readChord,
  rootPc,
  scaleOn,
  type Chord,
  type SpelledNote,
} from '../../music';
import { modulo, unwrap, type PitchClass, defined } from '../../shared';
import type { HarmonicContext } from '../harmonicContext/harmonicContext';
import { toneWeightsOn } from '../harmonicContext/toneWeights';
import { EPSILON } from '../notes/windows';
import { saidBy } from './impliedChord';
import type { Segment, SymbolRun, Told } from './mutedBand';
export type ChordCandidate = {
  readonly symbol: string;
  readonly chord: Chord;
  readonly gains: readonly number[];
  /** The dominants whose tritone partner it is: of their family (T12.4). */
  readonly partnerOf: readonly string[];
  /** Is it the relative of a chord? A candidate only against that chord, whose family it is. */
  readonly isRelative: boolean;
};

export function judge(
  { context: ground, start }: SymbolRun,
  told: Told,
  outside: readonly ChordCandidate[],
): Segment {
  const chord = ground.chord!;
  const own = score(ground.gains, told);
  let best: { symbol: string; score: number } = { symbol: '', score: outside.length ? -Infinity : 0 };
  for (const candidate of outside) {
    const value = score(candidate.gains, told);
    if (value > best.score + 1e-12) best = { symbol: candidate.symbol, score: value };
  }
  const margin = own - best.score;
  let verdict: 'silent' | 'heard' | 'unclear' | 'not-heard';
  if (told.total < 0.5 - EPSILON) verdict = 'silent';
  else if (margin >= 0.05 - EPSILON) verdict = isTold(ground, told) ? 'heard' : 'unclear';
  else if (margin > -0.05 - EPSILON) verdict = 'unclear';
  else verdict = 'not-heard';
  const said = verdict === 'silent' ? null : saidBy(told.byPc, chord);
  return {
    beat: start,
    chord: chord.symbol,
    verdict,
    best: margin >= 0 ? chord.symbol : best.symbol,
    margin: round(told.total > 0 ? margin : 0),
    ...(said === null ? {} : { said }),
  };
}

/** A telling tone sounded: third, seventh, sixth, sus note, or a tone of the chord that the home scale lacks (T12.4). */
const isTold = ({ chord, home }: HarmonicContext, { byPc }: Told): boolean =>
  chord?.tones.some(
    ({ role, pc }) =>
      defined(byPc[pc]) > 0 &&
      (['third', 'sus', 'seventh', 'sixth'].includes(role) ||
        !home.pcs.includes(pc) ||
        chord.tones.length < 3),
  ) ?? false;

/** Shares three or more pitch classes, is the tritone partner, or the relative of another chord (T12.4). */
export function isFamily(truth: Chord, candidate: ChordCandidate): boolean {
  if (candidate.isRelative || candidate.partnerOf.includes(truth.symbol)) return true;
  return (
    new Set(candidate.chord.tones.filter((tone) => hasTone(truth, tone.pc)).map((tone) => tone.pc)).size >= 3
  );
}

export function score(gains: readonly number[], { byPc, total }: Told): number {
  if (total === 0) return 0;
  let sum = 0;
  for (let pc = 0; pc < 12; pc++) sum += defined(byPc[pc]) * defined(gains[pc]);
  return sum / total;
}

export const flatNote = (pc: PitchClass): SpelledNote =>
  unwrap(readChord(defined(FLAT_NAMES[modulo(pc, 12)]))).root;

/**
 * Rule T12.2: Candidates: the chart's chords, the tritone partner of each dominant, the relative of each maj7
 * (vi) and m7 (♭III).
 */
export function candidatesOf(contexts: readonly HarmonicContext[]): ChordCandidate[] {
  const found = new Map<string, ChordCandidate>();
  const add = (candidate: ChordCandidate) => {
    const id = `${rootPc(candidate.chord)} ${[...new Set(candidate.chord.tones.map((tone) => tone.pc))].sort((a, b) => a - b).join(' ')}`;
    const known = found.get(id);
    found.set(id, known ? { ...known, partnerOf: [...known.partnerOf, ...candidate.partnerOf] } : candidate);
  };
  const own = contexts.filter(
    (context): context is HarmonicContext & { chord: Chord } => context.chord !== null,
  );
  for (const { chord, gains } of own)
    add({ symbol: chord.symbol, chord, gains, partnerOf: [], isRelative: false });
  for (const { chord, scale } of own) {
    const relative = relativeOf(chord);
    if (chord.quality === 'dominant') add(tritonePartner(chord));
    if (relative)
      add({
        symbol: relative.symbol,
        chord: relative,
        gains: toneWeightsOn(relative, scale),
        partnerOf: [],
        isRelative: true,
      });
  }
  return [...found.values()];
}

export function tritonePartner(chord: Chord): ChordCandidate {
  const root = flatNote(rootPc(chord) + 6);
  const partner = unwrap(readChord(`${noteName(root)}7`));
  const scale = new Set(scaleOn(root, 'lydian dominant').pcs);
  return {
    symbol: partner.symbol,
    chord: partner,
    gains: toneWeightsOn(partner, scale),
    partnerOf: [chord.symbol],
    isRelative: false,
  };
}

export function relativeOf(chord: Chord): Chord | null {
  const seventh = chord.tones.find((tone) => tone.role === 'seventh')?.semitones;
  if (chord.quality === 'major' && seventh === 11)
    return unwrap(readChord(`${noteName(flatNote(rootPc(chord) + 9))}m7`));
  if (chord.quality === 'minor' && seventh === 10)
    return unwrap(readChord(`${noteName(flatNote(rootPc(chord) + 3))}maj7`));
  return null;
}
/** Four decimals, halves upwards whatever order the sum was made in. */
export const round = (value: number): number => Math.round(value * 10_000 + 1e-6) / 10_000;
