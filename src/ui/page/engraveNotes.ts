import {
  Bend,
  Dot,
  GhostNote,
  StaveNote,
  Stem,
  TabNote,
  Tuplet,
  Vibrato,
  type StemmableNote,
} from 'vexflow/core';
import { LETTERS, noteName } from '@/core/music';
import { tripletsOf, type Head, type HeadType, type ScoreEntry, type ScorePitch } from '@/core/notation';
import { present } from '@/core/shared';

type BendCurve = NonNullable<ScorePitch['note']['bend']>;

const VEX_TYPES: Record<HeadType, string> = {
  whole: 'w',
  half: 'h',
  quarter: 'q',
  eighth: '8',
  '16th': '16',
  '32nd': '32',
  '64th': '64',
  '128th': '128',
};
/** An entry with its head on the staff and its figures in the tablature. */
export type Drawn = { readonly entry: ScoreEntry; readonly staff: StaveNote; readonly tab: StemmableNote };
/** A guitar is written an octave above where it sounds. */
export const writtenStep = ({ octave, letter }: ScorePitch): number =>
  (octave + 1) * 7 + LETTERS.indexOf(letter);

/** An entry as the engraver's notes. */
export function drawnOf(entry: ScoreEntry, withStaff: boolean): Drawn {
  const { head, pitches } = entry;
  const duration = VEX_TYPES[head.type];
  const isRest = pitches.length === 0;
  const sorted = [...pitches].sort((a, b) => writtenStep(a) - writtenStep(b));
  const keys = sorted.map((pitch) => `${noteName(pitch).toLowerCase()}/${pitch.octave + 1}`);
  const staff = new StaveNote({
    keys: isRest ? ['b/4'] : keys,
    duration: isRest ? `${duration}r` : duration,
    dots: head.dots,
    autoStem: true,
    ...(sorted.some(({ note }) => note.ghost) ? { type: 'x' } : {}),
  });
  if (head.dots > 0) Dot.buildAndAttach([staff], { all: true });
  return { entry, staff, tab: tabOf(entry, duration, withStaff) };
}

/** How wide the sign of vibrato is, in pixels. */
const SHAKEN = 24;

/** The note's place in the tablature; a rest, and a note without a place, leave it empty. */
function tabOf({ head, pitches }: ScoreEntry, duration: string, withStaff: boolean): StemmableNote {
  const placed = pitches.flatMap(({ touch, note, tie }) =>
    touch ? [{ str: touch.string, fret: fretText(touch.fret, note, tie.from) }] : [],
  );
  if (placed.length === 0) return unplaced(head, duration, pitches.length === 0 && !withStaff);
  const tab = new TabNote(
    { positions: placed, duration, dots: head.dots, stemDirection: Stem.DOWN },
    !withStaff,
  );
  const first = present(pitches[0]);
  if (!first.tie.from && first.note.bend) {
    const phrases = bendPhrases(first.note.bend);
    if (phrases.length > 0) tab.addModifier(new Bend(phrases), 0);
  }
  if (!first.tie.from && first.note.isShaken) tab.addModifier(new Vibrato().setVibratoWidth(SHAKEN), 0);
  return tab;
}

/** Where the tablature stands alone it shows its rests; under a staff nothing need be said twice. */
const unplaced = ({ dots }: Head, duration: string, isShown: boolean): StemmableNote =>
  isShown
    ? new StaveNote({ keys: ['b/4'], duration: `${duration}r`, dots })
    : new GhostNote({ duration, dots });

const fretText = (fret: number, note: ScorePitch['note'], isHeld: boolean): string => {
  if (note.ghost) return 'x';
  if (isHeld) return `(${fret})`;
  if (!note.slide) return String(fret);
  return `${note.slide.fromMidi < note.midi ? '/' : '\\'}${fret}`;
};

/** From a quarter tone on, in cents. */
const LEAST_BEND = 50;

/** The way up with its amount, and back down where it is let go. */
function bendPhrases(bend: BendCurve): { type: number; text: string }[] {
  const cents = bend.map(([, amount]) => amount);
  const [low, high, last] = [Math.min(...cents), Math.max(...cents), cents.at(-1) ?? 0];
  if (high - low < LEAST_BEND) return [];
  return [
    { type: Bend.UP, text: bendText(high - low) },
    ...(high - last >= LEAST_BEND ? [{ type: Bend.DOWN, text: '' }] : []),
  ];
}

/** In whole tones, as guitarists say it. */
function bendText(cents: number): string {
  const quarters = Math.round(cents / 50);
  if (quarters === 4) return 'full';
  return ['', '¼', '½', '¾'][quarters] ?? `${Math.floor(quarters / 4)}${['', '¼', '½', '¾'][quarters % 4]}`;
}

/** The signs over triplets, on the staff or on the tablature. */
export const tupletsOf = (drawn: readonly Drawn[], part: 'staff' | 'tab'): Tuplet[] =>
  tripletsOf(drawn.map((one) => ({ ...one.entry, sign: one[part] }))).map(
    (group) =>
      new Tuplet(
        group.map(({ sign }) => sign),
        { numNotes: 3, notesOccupied: 2, ratioed: false },
      ),
  );
