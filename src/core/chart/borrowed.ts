import { isDominant, keyScaleKind, scaleOn, type Chord, type Key } from '../music';
import { stepInKey } from './degree';

/** Modes of the same tonic that chords are borrowed from, the likeliest first. */
const LENDERS: Record<'major' | 'minor', readonly string[]> = {
  major: [
    'natural minor',
    'mixolydian',
    'dorian',
    'phrygian',
    'harmonic minor',
    'harmonic major',
    'melodic minor',
    'lydian',
  ],
  minor: ['dorian', 'melodic minor', 'phrygian', 'major', 'mixolydian', 'lydian'],
};

/**
 * The mode a chord is borrowed from, as a scale name on the tonic; null where the chord is the key's own or
 * serves as something else.
 * In minor the raised sixth and seventh of i and V are the key's own (harmonic and melodic minor), not
 * borrowed.
 */
export function borrowedFrom(chord: Chord, key: Key, degree: string): string | null {
  if (degree.includes('/') || degree.startsWith('subV')) return null;
  if (chord.quality === 'diminished-seventh' || chord.quality === 'augmented') return null;
  if (key.minor && isOwnOfMinor(chord, stepInKey(chord, key))) return null;
  const tones = chord.tones.filter((tone) => tone.role !== 'bass').map((tone) => tone.pc);
  const holds = (kind: string) => tones.every((pc) => scaleOn(key.tonic, kind).pcs.includes(pc));
  if (holds(keyScaleKind(key))) return null;
  const kind = LENDERS[key.minor ? 'minor' : 'major'].find(holds);
  return kind ? scaleOn(key.tonic, kind).name : null;
}

/** A minor key has its tonic, its dominant and its leading-tone chord in more than one form: none is borrowed. */
function isOwnOfMinor(chord: Chord, step: number): boolean {
  if (step === 7) return true;
  return (step === 0 || step === 11) && (isDominant(chord) || chord.quality !== 'major');
}
