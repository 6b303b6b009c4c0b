import { accepted, refused, type Outcome } from '../shared';
import { noteName, pitchClass, readNote, type SpelledNote } from './spelling';

/** A key: where home is, and whether its third is major. */
export type Key = { readonly tonic: SpelledNote; readonly minor: boolean };

export const keyName = (key: Key): string => `${noteName(key.tonic)} ${key.minor ? 'minor' : 'major'}`;

export const sameKey = (a: Key, b: Key): boolean =>
  pitchClass(a.tonic) === pitchClass(b.tonic) && a.minor === b.minor;

/** Reads a chart's `key:`: a root with `m`, `min`, `minor`, `maj`, `major` or nothing (T2.6). */
export function readKey(text: string): Outcome<Key> {
  const trimmed = text.trim();
  const root = readNote(trimmed);
  const mode = root ? trimmed.slice(root.length).trim() : '';
  if (root && /^(?:m|min|minor)$/.test(mode)) return accepted({ tonic: root.note, minor: true });
  if (root && /^(?:maj|major)?$/.test(mode)) return accepted({ tonic: root.note, minor: false });
  return refused({
    code: 'key.unknown',
    message: `“${trimmed}” is not a key: write a root, then m or minor for a minor key.`,
    suggestion: root ? noteName(root.note) + (/^m/i.test(mode) ? 'm' : '') : 'C',
  });
}
