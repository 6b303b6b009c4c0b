import type { Harmony } from '../../chart';
import { hasColour, hasTone, readChord, type Chord } from '../../music';
import { substitutesFor, type SubstituteKind } from '../../plan';
import type { PitchClass } from '../../shared';
import type { HarmonicContext } from '../harmonicContext/harmonicContext';
import type { Event } from '../notes/voice';

/** How a chord hit fits the chart: its own chord, a standard substitute for it, or another chord. */
export type HitFit = 'right' | 'substitute' | 'wrong';
/** `as` names the substitute. */
export type FittedHit = { readonly fit: HitFit; readonly as?: string };

/** What a player may mean by another chord; a chord a half step off is meant only where a plan says so. */
const MEANT: ReadonlySet<SubstituteKind> = new Set([
  'tritone',
  'related-two',
  'minor-on-five',
  'diminished',
  'relative',
  'third-related',
]);

/**
 * Rule T12.5: a hit is right where all its pitch classes are tones or colours of the chord it sounds over; else a
 * substitute where a standard one holds them all; else right where fewer than half are strange, and wrong where more
 * are.
 * @returns null over N.C.
 */
export function hitFitOf(
  { voices }: Event,
  { chord, colours, span }: HarmonicContext,
  harmony: Harmony,
): FittedHit | null {
  if (!chord) return null;
  const pcs = [...new Set(voices.map(({ pc }) => pc))];
  const strange = pcs.filter((pc) => !hasTone(chord, pc) && !colours.has(pc));
  if (strange.length === 0) return { fit: 'right' };
  const as = substitutesFor(harmony, span.index)
    .filter(({ kind }) => MEANT.has(kind))
    .flatMap(({ chords }) => chords)
    .find((symbol) => symbol !== chord.symbol && holdsAll(symbol, pcs));
  if (as !== undefined) return { fit: 'substitute', as };
  return { fit: strange.length * 2 < pcs.length ? 'right' : 'wrong' };
}

function holdsAll(symbol: string, pcs: readonly PitchClass[]): boolean {
  const read = readChord(symbol);
  if (!read.ok) return false;
  const chord: Chord = read.value;
  return pcs.every((pc) => hasTone(chord, pc) || hasColour(chord, pc));
}
