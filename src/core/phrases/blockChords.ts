import { soundingAt } from '../chart';
import { toneByRole, type Chord, type ToneRole } from '../music';
import { elementAt, modulo, type Beats, type Midi, type PitchClass, type Semitones } from '../shared';
import { NEAR } from './formula';
import { sceneOf, type KeptPhrase } from './phrase';

/** A chord under one melody note: its pitches from below, the melody on top, and where a hand takes it. */
export type Block = {
  readonly onsetBeat: Beats;
  readonly durationBeats: Beats;
  readonly pitches: readonly Midi[];
  /** Of the chord's own sixth chord, or of the diminished chord between its inversions. */
  readonly kind: 'sixth' | 'diminished';
  /** Fret by string for the strings it lies on, string 1 the highest; null where no hand reaches it. */
  readonly grip: readonly { readonly string: number; readonly fret: number }[] | null;
};

/** A sixth chord over its root; the diminished seventh between its inversions stands a half step under it. */
const SIXTH: Record<'major' | 'minor', readonly Semitones[]> = { major: [0, 4, 7, 9], minor: [0, 3, 7, 9] };
const DIMINISHED: readonly Semitones[] = [11, 2, 5, 8];
/** A hand spans so many frets. */
const SPAN = 4;
const VOICES = 4;

/**
 * Block chords under a phrase (common practice, no source): under the tones of its sixth chord stand the inversions of
 * that chord, under every other note the diminished seventh that leads back into it; the second voice from the top
 * lies an octave lower, so that a hand takes all four on neighbouring strings.
 * @param tuning open strings, string 1 first
 * @returns one block for each note that has a chord under it
 */
export function blockChords(phrase: KeptPhrase, tuning: readonly Midi[]): Block[] {
  const { timeline } = sceneOf(phrase);
  return phrase.notes.flatMap(({ onsetBeat, durationBeats, midi }) => {
    const { chord } = soundingAt(timeline, Math.max(0, onsetBeat + NEAR)).span;
    if (!chord) return [];
    const { root, tones } = sixthOf(chord);
    const isTone = tones.includes(modulo(midi - root, 12));
    const from = (isTone ? tones : diminishedUnder(midi, root)).map((tone) => modulo(root + tone, 12));
    const pitches = openVoicing(midi, from);
    return [
      {
        onsetBeat,
        durationBeats,
        pitches,
        kind: isTone ? 'sixth' : 'diminished',
        grip: gripOf(pitches, tuning),
      },
    ];
  });
}

/**
 * The sixth chord a chord is played as: a major one as its own; a minor one as its own; a dominant as the minor sixth on
 * its fifth, whose tones are its fifth, seventh, ninth and third; a half-diminished one as the minor sixth on its third.
 */
function sixthOf(chord: Chord): { readonly root: PitchClass; readonly tones: readonly Semitones[] } {
  const root = elementAt(chord.tones, 0).pc;
  const above = (role: ToneRole) => {
    const tone = toneByRole(chord, role);
    return tone ? modulo(tone.pc - root, 12) : null;
  };
  const [third, fifth, seventh] = [above('third'), above('fifth'), above('seventh')];
  if (third === 3 && fifth === 6) return { root: modulo(root + 3, 12), tones: SIXTH.minor };
  if (seventh === 10 && third !== 3) return { root: modulo(root + 7, 12), tones: SIXTH.minor };
  return { root, tones: third === 3 ? SIXTH.minor : SIXTH.major };
}

/** The diminished seventh with a note in it: the one of the scale, or for a note outside it the one that note is of. */
function diminishedUnder(midi: Midi, root: PitchClass): Semitones[] {
  const above = modulo(midi - root, 12);
  return DIMINISHED.includes(above) ? [...DIMINISHED] : [0, 3, 6, 9].map((step) => modulo(above + step, 12));
}

/** Four voices in close position under a melody note, the second from the top an octave down. */
function openVoicing(top: Midi, pcs: readonly PitchClass[]): Midi[] {
  const close = [top];
  for (let midi = top - 1; close.length < VOICES; midi--)
    if (pcs.includes(modulo(midi, 12))) close.push(midi);
  const [first, second, third, fourth] = close as [Midi, Midi, Midi, Midi];
  return [second - 12, fourth, third, first];
}

/** The grip on four neighbouring strings with the least reach and the lowest frets; null where none lies in one hand. */
function gripOf(pitches: readonly Midi[], tuning: readonly Midi[]): Block['grip'] {
  let best: { grip: NonNullable<Block['grip']>; cost: number } | null = null;
  for (let top = 0; top + VOICES <= tuning.length; top++) {
    const grip = [...pitches].reverse().map((midi, index) => ({
      string: top + index + 1,
      fret: midi - elementAt(tuning, top + index),
    }));
    const frets = grip.map(({ fret }) => fret).filter((fret) => fret > 0);
    if (grip.some(({ fret }) => fret < 0 || fret > 17)) continue;
    const reach = frets.length === 0 ? 0 : Math.max(...frets) - Math.min(...frets);
    const cost = 10 * reach + Math.max(0, ...frets);
    if (reach <= SPAN && (best === null || cost < best.cost)) best = { grip, cost };
  }
  return best?.grip ?? null;
}
