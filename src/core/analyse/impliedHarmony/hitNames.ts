import { unwrap, type PitchClass } from '../../shared';
import {
  FLAT_NAMES,
  hasColour,
  hasTone,
  leansSharp,
  readChord,
  rootPc,
  SHARP_NAMES,
  toneByRole,
  type Chord,
  type Scale,
} from '../../music';
import type { Event } from '../notes/voice';

/** Plainer before richer: of two readings the first fits. */
const QUALITIES = [
  '',
  'm',
  '7',
  'm7',
  'maj7',
  '6',
  'm6',
  'dim',
  '+',
  'm7b5',
  'dim7',
  'sus4',
  'sus2',
  '7sus4',
  'mMaj7',
  '9',
  'm9',
  'maj9',
  '6/9',
  '13',
  '7#9',
  '7b9',
  '7#5',
];
type Named = {
  readonly symbol: string;
  readonly root: PitchClass;
  readonly tones: ReadonlySet<PitchClass>;
  readonly fifth: PitchClass | undefined;
};
let made: readonly Named[] | null = null;
const chords = (): readonly Named[] =>
  (made ??= FLAT_NAMES.flatMap((root) =>
    QUALITIES.map((quality) => named(unwrap(readChord(root + quality)))),
  ));
const named = (chord: Chord): Named => ({
  symbol: chord.symbol,
  root: rootPc(chord),
  tones: new Set([...chord.tones, ...chord.colours].map((tone) => tone.pc)),
  fifth: toneByRole(chord, 'fifth')?.pc,
});

/**
 * The name of a chord hit of three or more notes.
 * Rule T4.4: three or more: chord hit (named when it fits a chord or shape): the chord sounding where all
 * its notes are tones or written colours of it,
 * else a chord that has just these tones, its fifth apart; of several the one on the lowest note.
 * @param keyScale the key it is heard in: hits in sharp keys are named in sharps (T3.13)
 * @returns a chord symbol; null where nothing fits
 */
export function hitName({ voices }: Event, sounding: Chord | null, keyScale: Scale): string | null {
  const pcs = new Set(voices.map((voice) => voice.pc));
  if (pcs.size < 2) return null;
  if (sounding && [...pcs].every((pc) => hasTone(sounding, pc) || hasColour(sounding, pc)))
    return sounding.symbol;
  const fitting = chords().filter(
    ({ tones, fifth }) =>
      [...pcs].every((pc) => tones.has(pc)) &&
      [...tones].every((pc) => pcs.has(pc) || (pc === fifth && pcs.size >= 3)),
  );
  const found = fitting.find(({ root }) => root === voices[0]!.pc) ?? fitting[0];
  if (!found) return null;
  return leansSharp(keyScale)
    ? found.symbol.replace(FLAT_NAMES[found.root]!, SHARP_NAMES[found.root]!)
    : found.symbol;
}
