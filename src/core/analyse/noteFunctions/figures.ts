import { hasTone } from '../../music';
import { isOnBeat } from '../../chart';
import { contextAt, type AnalysisScene } from '../harmonicContext/chordAssignment';
import { baseTier, voiceTier, isChromatic, type HarmonicContext } from '../harmonicContext/harmonicContext';
import { firstWhere } from '../notes/lineBetween';
import { sequencesOf, type SequenceRun } from './sequence';
import {
  FIGURE_GAP,
  isLinked,
  type ChordAssignment,
  type Line,
  type LineNote,
  type NoteFunction,
} from '../notes/voice';
import { type Midi, type Semitones, defined } from '../../shared';
import { arpeggiosOf, type Arpeggio } from './arpeggios';
import { movedShapesOf, type MovedShape } from './movedShapes';
import { EPSILON } from '../notes/windows';

export type FigureKind =
  | Extract<
      NoteFunction,
      'enclosure' | 'double-chromatic' | 'approach-below' | 'approach-above' | 'suspension' | 'retardation'
    >
  | 'minor-to-major-third';

/** Notes that lead to a target; places in the line. */
export type Figure = {
  readonly kind: FigureKind;
  readonly members: readonly number[];
  readonly target: number;
};

/** The line with everything a figure rule asks about a note, by place. */
export class Walk {
  readonly sequences: readonly SequenceRun[];
  /** Cells said again elsewhere, and stretches that spell a chord. */
  readonly moved: readonly MovedShape[];
  /** Pitches of the line, a note that leapt out of it by exactly an octave put back (T7.13). */
  private readonly pitches: readonly Midi[];
  // what every rule asks again and again, by place
  private readonly contexts: readonly HarmonicContext[];
  private readonly chordTones: readonly boolean[];
  private readonly joins: readonly boolean[];
  private spelled: readonly Arpeggio[] | undefined;
  private spelledInside: Uint8Array | undefined;
  constructor(
    readonly scene: AnalysisScene,
    readonly assignments: readonly ChordAssignment[],
  ) {
    const { line } = scene;
    const linked = line.map((note, place) => isLinked(note, line[place + 1]));
    this.moved = movedShapesOf(line, linked);
    this.pitches = unleapt(line, linked);
    this.contexts = assignments.map(({ sounding }) => contextAt(scene, sounding.span.index, sounding.chorus));
    this.sequences = sequencesOf(line, linked, this.contexts);
    this.chordTones = line.map((note, place) => voiceTier(this.context(place), note) === 'chord');
    this.joins = line.map((note, place) => isLinked(note, line[place + 1], FIGURE_GAP));
  }
  /** Worked out once: figures and shapes both ask for them. */
  arpeggios(): readonly Arpeggio[] {
    return (this.spelled ??= arpeggiosOf(this));
  }
  /** Is a place inside an arpeggio that begins before it and ends after it? */
  isInsideArpeggio(place: number): boolean {
    if (!this.spelledInside) {
      this.spelledInside = new Uint8Array(this.scene.line.length);
      for (const { first, last } of this.arpeggios()) this.spelledInside.fill(1, first + 1, last);
    }
    return this.spelledInside[place] === 1;
  }
  at(place: number): LineNote | undefined {
    return this.scene.line[place];
  }
  context(place: number): HarmonicContext {
    return defined(this.contexts[place]);
  }
  isChordTone(place: number): boolean {
    return this.chordTones[place] === true;
  }
  isChromatic(place: number): boolean {
    return isChromatic(this.context(place), this.at(place)!.pc);
  }
  inNeitherScale(place: number): boolean {
    return baseTier(this.context(place), this.at(place)!.pc) === 'outside';
  }
  /** Linked as inside a figure. */
  joined(place: number): boolean {
    return this.joins[place] === true;
  }
  onBeat(place: number): boolean {
    return isOnBeat(this.at(place)!.onset, this.scene.windows.on);
  }
  /** Semitones from one place to another. */
  step(from: number, to: number): number {
    return defined(this.pitches[to]) - defined(this.pitches[from]);
  }
}

/** An octave, give or take the step that the line makes meanwhile. */
const OCTAVE_LEAP: readonly [Semitones, Semitones] = [9, 15];
const NEAR_LINE: Semitones = 4;

/**
 * A note an octave away from both its neighbours, which lie near it an octave lower or higher, is read as if it
 * lay there: a doubled octave is what the ears may have misheard (T7.13).
 */
function unleapt(line: Line, linked: readonly boolean[]): Midi[] {
  return line.map(({ pitch }, place) => {
    if (!linked[place - 1] || !linked[place]) return pitch;
    const before = defined(line[place - 1]);
    const after = defined(line[place + 1]);
    const from = pitch - before.pitch;
    const to = pitch - after.pitch;
    const leaps = (step: Semitones) => Math.abs(step) >= OCTAVE_LEAP[0] && Math.abs(step) <= OCTAVE_LEAP[1];
    if (!leaps(from) || !leaps(to) || Math.sign(from) !== Math.sign(to)) return pitch;
    const put = pitch - 12 * Math.sign(from);
    const isNear = Math.abs(put - before.pitch) <= NEAR_LINE && Math.abs(put - after.pitch) <= NEAR_LINE;
    return isNear ? put : pitch;
  });
}

/** The figures that each place of the line is a member of. */
export function byMember(figures: readonly Figure[]): ReadonlyMap<number, readonly Figure[]> {
  const found = new Map<number, Figure[]>();
  for (const figure of figures)
    for (const place of figure.members) {
      const own = found.get(place);
      if (own) own.push(figure);
      else found.set(place, [figure]);
    }
  return found;
}

/** Cells as short as an enclosure: longer ones may hold one. */
const SHORT_CELL = 4;

/** Figures 1 and 2 wherever they occur, and ♭3→3; the others are named note by note. */
export function figuresOf(walk: Walk): Figure[] {
  const cells = walk.moved.filter(({ size }) => size <= SHORT_CELL);
  const inSequence = placesIn([...walk.sequences, ...cells]);
  const enclosures: Figure[] = [];
  const chromatics: Figure[] = [];
  for (let target = 2; target < walk.scene.line.length; target++) {
    const enclosure = enclosureOf(walk, target, inSequence);
    if (enclosure) enclosures.push(enclosure);
    const chromatic = doubleChromaticOf(walk, target);
    if (chromatic) chromatics.push(chromatic);
  }
  return [...enclosures, ...chromatics];
}

type PlaceRange = { readonly first: number; readonly last: number };

const placesFrom = (first: number, last: number): number[] =>
  Array.from({ length: Math.max(0, last - first + 1) }, (_, index) => first + index);

const placesIn = (ranges: readonly PlaceRange[]): Set<number> =>
  new Set(ranges.flatMap(({ first, last }) => placesFrom(first, last)));

/**
 * Two linked notes on opposite sides of the target, each 1–2 semitones from it; backwards by up to two more.
 * Rule T7.2: two linked notes on opposite sides of the target, each 1–2 semitones from it, then the target;
 * at least one is not a chord tone of the
 * target's chord; and the target is on a beat, or neither is such a chord tone … A note inside a `sequence`
 * is no member. Rule T7.11: at least one is foreign to its own chord, and the two are no part of one arpeggio.
 */
function enclosureOf(walk: Walk, target: number, inSequence: ReadonlySet<number>): Figure | null {
  const a = target - 2;
  const b = target - 1;
  if (!walk.joined(a) || !walk.joined(b) || !opposite(walk, a, b, target)) return null;
  if (inSequence.has(a) || inSequence.has(b) || isSpelled(walk, a, b)) return null;
  const onBeat = walk.onBeat(target);
  const isTarget =
    walk.isChordTone(target) || (onBeat && baseTier(walk.context(target), walk.at(target)!.pc) === 'colour');
  if (!isTarget) return null;
  const own = [a, b].filter((place) => isToneOfTarget(walk, place, target)).length;
  if (own === 2 || (!onBeat && own > 0)) return null;
  return { kind: 'enclosure', members: extend(walk, [a, b], target, inSequence), target };
}

/** Are the two tones of their own chord, or part of one arpeggio? Then they spell a chord and enclose nothing (T7.11). */
const isSpelled = (walk: Walk, a: number, b: number): boolean =>
  (walk.isChordTone(a) && walk.isChordTone(b)) || (walk.isInsideArpeggio(a) && isOneWay(walk, a));

/** Does the line come to a place the same way as it goes on? */
const isOneWay = (walk: Walk, place: number): boolean =>
  walk.step(place - 1, place) * walk.step(place, place + 1) > 0;

function opposite(walk: Walk, a: number, b: number, target: number): boolean {
  const da = -walk.step(a, target);
  const db = -walk.step(b, target);
  return da * db < 0 && Math.abs(da) <= 2 && Math.abs(db) <= 2;
}

/** Against the chord the target belongs to. */
function isToneOfTarget(walk: Walk, place: number, target: number): boolean {
  const { chord } = walk.context(target);
  return chord !== null && hasTone(chord, walk.at(place)!.pc);
}

/**
 * Rule T7.2: Extend backwards by up to two linked notes, each within 3 semitones of the target and either on
 * the other side than the member after it or 1–2 semitones farther out on the same side.
 */
function extend(walk: Walk, members: number[], target: number, inSequence: ReadonlySet<number>): number[] {
  for (let more = 0; more < 2; more++) {
    const [place, after] = [defined(members[0]) - 1, defined(members[0])];
    if (place < 0 || !walk.joined(place) || inSequence.has(place) || walk.isChordTone(place)) break;
    const [away, next] = [-walk.step(place, target), -walk.step(after, target)];
    if (away === 0 || Math.abs(away) > 3) break;
    const farther = Math.abs(away) - Math.abs(next);
    if (away * next > 0 && (farther < 1 || farther > 2)) break;
    members = [place, ...members];
  }
  return members;
}

/**
 * Rule T7.3: two or more successive semitone steps one way into a target; the members are the non-chord tones
 * since the last chord tone, at least two of them.
 */
function doubleChromaticOf(walk: Walk, target: number): Figure | null {
  if (!walk.isChordTone(target) || target < 2) return null;
  const way = walk.step(target - 1, target);
  if (Math.abs(way) !== 1) return null;
  const members: number[] = [];
  for (
    let place = target - 1;
    place >= 0 && walk.joined(place) && walk.step(place, place + 1) === way && !walk.isChordTone(place);
    place--
  )
    members.unshift(place);
  return members.length >= 2 ? { kind: 'double-chromatic', members, target } : null;
}

/**
 * Rule T7.5: a chord tone of its chord that sounds at least max(0.25 beat, 150 ms) into a next chord that
 * lacks it, then moves 1–2 semitones to a linked
 * chord tone within 0.5 beat. Names the note though its tier stays 0.
 * @returns the kind, or null
 */
export function suspensionAt(walk: Walk, place: number): 'suspension' | 'retardation' | null {
  const note = walk.at(place)!;
  const next = walk.at(place + 1);
  const { scene } = walk;
  if (!next || !walk.isChordTone(place) || !walk.joined(place) || !walk.isChordTone(place + 1)) return null;
  const into = Math.max(0.25, (0.15 * scene.timeline.tempo) / 60);
  const { changes } = scene;
  const from = Math.max(
    note.onset + scene.windows.tol - EPSILON,
    defined(walk.assignments[place]).sounding.end - 2 * EPSILON,
  );
  const change = changes[firstWhere(changes.length, (at) => defined(changes[at]).at > from)];
  if (!change || note.end < change.at + into - EPSILON || hasTone(change.to, note.pc)) return null;
  const move = walk.step(place, place + 1);
  if (Math.abs(move) < 1 || Math.abs(move) > 2) return null;
  return move < 0 ? 'suspension' : 'retardation';
}
