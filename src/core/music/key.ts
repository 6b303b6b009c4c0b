import { accepted, nearestOf, present, refused, type Outcome } from '../shared';
import { noteName, pitchClass, readNote, type SpelledNote } from './spelling';

/** The modes a key can be in beside major and minor, each with whether its third is minor. */
const MODES = { dorian: true, phrygian: true, lydian: false, mixolydian: false, locrian: true } as const;
export type Mode = keyof typeof MODES;

/** A key: where home is, whether its third is major, and its mode where that is neither major nor minor. */
export type Key = { readonly tonic: SpelledNote; readonly minor: boolean; readonly mode?: Mode };

export const keyName = ({ tonic, minor, mode }: Key): string =>
  `${noteName(tonic)} ${mode ?? (minor ? 'minor' : 'major')}`;

const FIFTHS: Record<string, number> = { F: -1, C: 0, G: 1, D: 2, A: 3, E: 4, B: 5 };

/** Sharps a key is written with, flats as negative numbers: its place on the circle of fifths. */
export const fifthsOf = ({ tonic, minor }: Key): number =>
  present(FIFTHS[tonic.letter]) + 7 * tonic.alter - (minor ? 3 : 0);

/** The name of the scale a key is made of, as `scaleOn` takes it. */
export const keyScaleKind = ({ minor, mode }: Key): string => mode ?? (minor ? 'natural minor' : 'major');

export const sameKey = (a: Key, b: Key): boolean =>
  pitchClass(a.tonic) === pitchClass(b.tonic) && a.minor === b.minor && a.mode === b.mode;

const isMode = (text: string): text is Mode => Object.hasOwn(MODES, text);
const KEY_WORDS = ['major', 'minor', 'ionian', 'aeolian', ...Object.keys(MODES)];

/** Reads a chart's `key:`: a root with `m`, `min`, `minor`, `maj`, `major`, nothing (T2.6) or a mode (T3.12). */
export function readKey(text: string): Outcome<Key> {
  const trimmed = text.trim();
  const root = readNote(trimmed);
  const written = root ? trimmed.slice(root.length).trim() : '';
  const word = written.toLowerCase();
  if (root && (written === 'm' || /^(?:min|minor|aeolian)$/.test(word)))
    return accepted({ tonic: root.note, minor: true });
  if (root && /^(?:|maj|major|ionian)$/.test(word)) return accepted({ tonic: root.note, minor: false });
  if (root && isMode(word)) return accepted({ tonic: root.note, minor: MODES[word], mode: word });
  return refused({
    code: 'key.unknown',
    message: `“${trimmed}” is not a key: write a root, then m for minor or a mode like dorian.`,
    suggestion: root ? nearestKey(noteName(root.note), word) : 'C',
  });
}

function nearestKey(root: string, word: string): string {
  const near = nearestOf(word, KEY_WORDS);
  if (near === 'minor') return `${root}m`;
  return near === undefined || near === 'major' ? root : `${root} ${near}`;
}
