import { modulo, type Semitones } from '../shared';
import { FLAT_NAMES, noteName, pitchClass, readChord, readScale, rootPc, USUAL_ROOTS } from '../music';
import type { PlanWords, SettingsWords, PlanPartWords } from './words';

function movedScale(name: string, by: Semitones): string {
  const read = readScale(name);
  if (!read.ok) return name;
  const { root, kind } = read.value;
  return by % 12 === 0
    ? `${noteName(root)} ${kind}`
    : `${USUAL_ROOTS[modulo(pitchClass(root) + by, 12)]} ${kind}`;
}

function movedSymbol(symbol: string, by: Semitones): string {
  const read = readChord(symbol);
  if (!read.ok || by % 12 === 0) return symbol;
  return symbol.replace(/^[A-G](?:bb?|##?)?/, FLAT_NAMES[modulo(rootPc(read.value) + by, 12)] ?? '');
}

const movedSettings = <T extends SettingsWords>({ overlay: _overlay, ...settings }: T, by: Semitones) => ({
  ...settings,
  ...(settings.home !== undefined && { home: movedScale(settings.home, by) }),
});

const movedPart = ({ where, plan }: PlanPartWords, by: Semitones): PlanPartWords => ({
  where: { ...where, ...(where.chord !== undefined && { chord: movedSymbol(where.chord, by) }) },
  plan: movedSettings(plan, by),
});

/**
 * A plan in another key: its home scales and the chords its parts name move; superimposed changes are left behind,
 * since they are the old key's.
 */
export const transposePlan = (words: PlanWords, by: Semitones): PlanWords => ({
  ...movedSettings(words, by),
  ...(words.parts && { parts: words.parts.map((part) => movedPart(part, by)) }),
});
