import { noteName, readNote, type SpelledNote } from './spelling';

/**
 * The same chord on other notes: root and bass are written anew, the quality stays as it was typed.
 * @param move where each note goes
 */
export function moveSymbol(symbol: string, move: (note: SpelledNote) => SpelledNote): string {
  const root = readNote(symbol);
  if (!root) return symbol;
  const slash = symbol.lastIndexOf('/');
  const bass = slash > 0 ? readNote(symbol.slice(slash + 1)) : null;
  const isBass = bass !== null && slash + 1 + bass.length === symbol.length;
  const quality = symbol.slice(root.length, isBass ? slash : undefined);
  return noteName(move(root.note)) + quality + (isBass ? `/${noteName(move(bass.note))}` : '');
}
