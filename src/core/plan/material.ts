import { modulo, type PitchClass, present, defined } from '../shared';
import {
  degreeSemitones,
  guideTones,
  isDominant,
  isMinorish,
  noteAtDegree,
  noteName,
  readDegree,
  rootPc,
  scaleFromDegrees,
  scaleNotes,
  scaleOn,
  toneByRole,
  type Chord,
  type Scale,
  type SpelledNote,
} from '../music';
import type { ChordReading } from '../chart';

/** A named set of notes that a plan lays over a chord: a scale, an arpeggio, a pentatonic. */
export type BorrowedShape = { readonly name: string; readonly pcs: readonly PitchClass[] };

const asShape = (scale: Scale): BorrowedShape => ({ name: scale.name, pcs: scale.pcs });
const onRoot = (root: SpelledNote, degrees: string): BorrowedShape =>
  asShape(
    scaleFromDegrees(
      root,
      degrees,
      degrees.split(' ').map((text) => present(readDegree(text))),
    ),
  );
const guides = (chord: Chord): PitchClass[] => guideTones(chord).map((tone) => tone.pc);

/** Minor pentatonic: 0 3 5 7 10 above its root. */
const PENTATONIC = [0, 3, 5, 7, 10];

/**
 * A pentatonic chosen for one chord.
 * Rule T14.3: on the root or superimposed. Of the minor pentatonics that lie wholly inside the chord-scale
 * the one with most guide tones, then
 * most chord tones, then the chord's third, then on the root; where none does, five tones of the chord and
 * its scale from the root up.
 * So G7alt takes the one on B♭, Cmaj7 the one on E (T14.3).
 */
export function pentatonicFor({ chord, scale }: ChordReading): BorrowedShape {
  const third = toneByRole(chord, 'third')?.pc;
  const tones = chord.tones.map((tone) => tone.pc);
  const root = rootPc(chord);
  let best: { on: PitchClass; pcs: PitchClass[]; worth: number } | null = null;
  for (const on of scale.pcs) {
    const pcs = PENTATONIC.map((step) => modulo(on + step, 12));
    if (!pcs.every((pc) => scale.pcs.includes(pc))) continue;
    const held = (wanted: readonly PitchClass[]) => wanted.filter((pc) => pcs.includes(pc)).length;
    const worth =
      100 * held(guides(chord)) +
      10 * held(tones) +
      (third !== undefined && pcs.includes(third) ? 2 : 0) +
      (pcs.includes(root) ? 1 : 0);
    if (!best || worth > best.worth) best = { on, pcs, worth };
  }
  if (!best) return fiveOf(chord, scale);
  if (modulo(best.on + 3, 12) === root) return asShape(scaleOn(chord.root, 'major pentatonic'));
  return asShape(scaleOn(defined(scaleNotes(scale)[scale.pcs.indexOf(best.on)]), 'minor pentatonic'));
}

/** Root, third, fifth and seventh or sixth, filled up with what the scale has beside them: second first. */
function fiveOf(chord: Chord, scale: Scale): BorrowedShape {
  const order = ['root', 'third', 'sus', 'fifth', 'sixth', 'seventh'] as const;
  const numbers = new Set(order.flatMap((role) => toneByRole(chord, role)?.pc ?? []));
  for (const degree of [2, 6, 4, 5]) {
    const found = scale.degrees.find((one) => one.number === degree);
    if (found && numbers.size < 5) numbers.add(modulo(rootPc(chord) + degreeSemitones(found), 12));
  }
  const pcs = [...numbers].sort((a, b) => modulo(a - rootPc(chord), 12) - modulo(b - rootPc(chord), 12));
  return { name: `five tones of ${scale.name}`, pcs };
}

/**
 * The eight notes of a sixth chord and the diminished chord between its tones.
 * Rule T14.2: one scale covers tonic and dominant. A dominant that falls a fifth is played by the scale of
 * where it goes; a m7 is the major
 * sixth chord on its third (Dm7 = F6), a half-diminished the minor sixth chord on its third (Bø = Dm6),
 * another dominant the minor sixth
 * chord on its fifth (G9 = Dm6 over G); a diminished seventh belongs to the chord a half step above it.
 * @param next the chord it moves to
 */
export function sixthDiminishedFor({ chord }: ChordReading, next: Chord): BorrowedShape {
  const on = (root: SpelledNote, minor: boolean) =>
    asShape(scaleOn(root, `${minor ? 'minor' : 'major'} sixth-diminished`));
  const third = toneByRole(chord, 'third')?.note;
  const fifth = toneByRole(chord, 'fifth')?.note ?? noteAtDegree(chord.root, { number: 5, alter: 0 });
  if (chord.quality === 'half-diminished' && third) return on(third, true);
  if (chord.quality.startsWith('diminished'))
    return on(noteAtDegree(chord.root, { number: 2, alter: -1 }), isMinorish(next));
  if (isDominant(chord))
    return modulo(rootPc(next) - rootPc(chord), 12) === 5 ? on(next.root, isMinorish(next)) : on(fifth, true);
  if (chord.quality === 'minor' && toneByRole(chord, 'seventh') && third) return on(third, false);
  return on(chord.root, isMinorish(chord));
}

/**
 * Arpeggios and triads of related chords to lay over one.
 * Rule T14.2: relative minor over a major seventh, the chord a third above, neighbouring triads. Stacked in
 * the chord-scale: the seventh chord
 * on its third; for majors also the one on its sixth; for dominants the triads on its root and on its seventh.
 */
export function borrowedShapesFor({ chord, scale }: ChordReading): readonly BorrowedShape[] {
  const on = (number: number, tones: number): BorrowedShape | null => stacked(scale, number, tones);
  let shapes: (BorrowedShape | null)[];
  if (isDominant(chord)) shapes = [on(3, 4), on(7, 3), on(1, 3)];
  else if (chord.quality === 'major') shapes = [on(3, 4), on(6, 4)];
  else shapes = [on(3, 4)];
  const found = shapes.filter((shape): shape is BorrowedShape => shape !== null);
  return found.length > 0 ? found : [{ name: chord.symbol, pcs: chord.tones.map((tone) => tone.pc) }];
}

const TRIADS: Record<string, string> = { '4 7': '', '3 7': 'm', '3 6': 'dim', '4 8': 'aug' };
const SEVENTHS: Record<string, string> = {
  '4 7 11': 'maj7',
  '3 7 10': 'm7',
  '4 7 10': '7',
  '3 6 10': 'm7b5',
  '3 6 9': 'dim7',
  '3 7 11': 'mMaj7',
  '4 8 11': 'maj7#5',
  '4 8 10': '7#5',
  '4 6 10': '7b5',
  '3 6 11': 'dim(maj7)',
};

/**
 * Every other note of the scale from one of its degrees; null where the scale has no such degree or the stack
 * has no name.
 */
function stacked(scale: Scale, number: number, tones: number): BorrowedShape | null {
  const start = scale.degrees.findIndex((degree) => degree.number === number);
  if (start < 0 || scale.pcs.length !== 7) return null;
  const pcs = Array.from({ length: tones }, (_, index) => defined(scale.pcs[(start + 2 * index) % 7]));
  const name = (tones === 3 ? TRIADS : SEVENTHS)[
    pcs
      .slice(1)
      .map((pc) => modulo(pc - defined(pcs[0]), 12))
      .join(' ')
  ];
  return name === undefined ? null : { name: noteName(defined(scaleNotes(scale)[start])) + name, pcs };
}

/**
 * The chord shape and, on its strings, the fret below and the two above: as pitch classes, each tone with −1,
 * +1 and +2.
 */
export const shapeAndNeighbours = (chord: Chord): PitchClass[] => [
  ...new Set(
    chord.tones.flatMap(({ pc }) => [pc, modulo(pc - 1, 12), modulo(pc + 1, 12), modulo(pc + 2, 12)]),
  ),
];

/**
 * The same mode moved with each chord: Dorian under minor thirds, Mixolydian under dominants, unless one mode
 * is named for all.
 */
export function parallelModeFor(chord: Chord, mode?: string): BorrowedShape {
  if (mode !== undefined) return asShape(scaleOn(chord.root, mode));
  if (chord.quality === 'half-diminished' || chord.quality === 'diminished')
    return asShape(scaleOn(chord.root, 'locrian'));
  if (chord.quality === 'diminished-seventh') return asShape(scaleOn(chord.root, 'whole-half diminished'));
  if (isMinorish(chord)) return asShape(scaleOn(chord.root, 'dorian'));
  return asShape(scaleOn(chord.root, isDominant(chord) || chord.quality === 'sus' ? 'mixolydian' : 'major'));
}

/** Pentatonics of minor chords by their place; vi shares the one of I's relative minor. Common practice, no source. */
const MINOR_DEGREES: Readonly<Partial<Record<string, string>>> = {
  i: '1 b3 4 b6 b7',
  iii: '1 b3 4 5 b7',
  vi: '1 b3 4 5 b7',
};

/**
 * Pentatonics made for the chord under them, where the player names none: for the i, the iv and the V of a
 * minor key, and a major chord.
 */
export function degreesFor({ chord, degree }: ChordReading, degrees?: string): BorrowedShape {
  if (degrees !== undefined) return onRoot(chord.root, degrees);
  if (isDominant(chord)) return onRoot(chord.root, '1 2 3 5 b7');
  if (isMinorish(chord)) return onRoot(chord.root, MINOR_DEGREES[degree] ?? '1 b3 4 5 6');
  return onRoot(chord.root, '1 2 3 5 6');
}
