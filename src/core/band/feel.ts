import { beatsPerBar, isCompound, type Chart } from '../chart';

/** The ways this band can play time. */
export type BandFeel = 'swing' | 'shuffle' | 'straight' | 'bossa' | 'ballad' | 'funk' | 'waltz' | 'five';
export const BAND_FEELS: readonly BandFeel[] = [
  'swing',
  'shuffle',
  'straight',
  'bossa',
  'ballad',
  'funk',
  'waltz',
  'five',
];

/** Slower than this a swinging drummer takes the brushes (common practice, no source). */
const BRUSHES_BELOW = 100;

/** Who is on the stand. `chords` is the player's choice, the rest follows the feel. */
export type Lineup = {
  readonly bass: 'upright' | 'electric';
  readonly chords: 'piano' | 'electric-piano' | 'nylon-guitar' | 'electric-guitar';
  readonly drums: 'sticks' | 'brushes';
};
export type ChordInstrument = 'keys' | 'guitar';

/**
 * Where the off-beat eighth falls in its beat: 0.5 is even, 2/3 a triplet. Swing evens out as it gets faster
 * (common practice, no source).
 */
export function offBeat(feel: BandFeel, tempo: number): number {
  if (feel === 'straight' || feel === 'bossa' || feel === 'funk') return 0.5;
  if (feel === 'shuffle' || feel === 'ballad') return 0.664;
  return Math.max(0.54, Math.min(0.66, 0.72 - tempo * 0.0008));
}

/**
 * The band's feel for what the chart names; blues shuffles unless it says swing, everything unknown is
 * straight. Bars of three and five
 * that swing have parts of their own.
 */
export function bandFeel(chart: Chart): BandFeel {
  const feel = (chart.feel ?? '').toLowerCase();
  if (/bossa|latin|samba/.test(feel)) return 'bossa';
  if (/funk|sixteenth|16/.test(feel)) return 'funk';
  if (/straight|even|rock|pop|folk/.test(feel)) return 'straight';
  if (isShuffled(feel, chart)) return 'shuffle';
  const beats = beatsPerBar(chart.meter);
  if (/ballad|slow/.test(feel)) return beats === 3 ? 'waltz' : 'ballad';
  return feel === '' || /swing|jazz|waltz|five/.test(feel) ? swungFeel(beats, feel !== '') : 'straight';
}

const isShuffled = (feel: string, { meter }: Chart): boolean =>
  /shuffle/.test(feel) || (/blues/.test(feel) && !/swing/.test(feel)) || isCompound(meter);

/** @param isNamed the chart says that it swings; where it says nothing, odd meters are played straight */
function swungFeel(beats: number, isNamed: boolean): BandFeel {
  if (beats === 3) return 'waltz';
  if (beats === 5) return 'five';
  return beats === 4 || isNamed ? 'swing' : 'straight';
}

export function lineupOf(feel: BandFeel, tempo: number, chords: ChordInstrument = 'keys'): Lineup {
  const acoustic =
    feel === 'swing' || feel === 'ballad' || feel === 'waltz' || feel === 'five' || feel === 'bossa';
  const slow = feel === 'ballad' || ((feel === 'swing' || feel === 'waltz') && tempo < BRUSHES_BELOW);
  const keys = acoustic ? 'piano' : 'electric-piano';
  return {
    bass: acoustic ? 'upright' : 'electric',
    chords: chordInstrument(chords, keys, feel),
    drums: slow ? 'brushes' : 'sticks',
  };
}

function chordInstrument(chords: ChordInstrument, keys: 'piano' | 'electric-piano', feel: BandFeel) {
  if (chords === 'keys') return keys;
  if (feel === 'bossa') return 'nylon-guitar';
  return 'electric-guitar';
}
