import { defined } from '../../shared';
import { isAdjacentIn, semitonesAboveRoot, toneByRole } from '../../music';
import { byMember, figuresOf, suspensionAt, type Figure, type FigureKind, type Walk } from './figures';
import { baseTier } from '../harmonicContext/harmonicContext';
import type { NoteFunction, Tier } from '../notes/voice';
import { EPSILON } from '../notes/windows';

/**
 * What a line note did, and where it led. `figures` that the naming brought to light are collected beside it.
 */
export type AssignedFunction = {
  readonly name: NoteFunction;
  readonly tier: Tier;
  readonly target?: number;
  readonly appoggiatura?: boolean;
};

export type NoteFunctions = {
  readonly functions: readonly AssignedFunction[];
  readonly figures: readonly Figure[];
};

/**
 * Names each line note's deed and lists the figures that have a target.
 * Rule T7.1: For each line note that is not a chord tone, the first that fits names its `function` … 8.
 * else its tier's name. Chord tones
 * are `anticipation`, `target` (named by the plan) or `chord-tone`.
 * @param isTarget does the plan name this note, given its place in the line?
 */
export function noteFunctionsOf(walk: Walk, isTarget: (place: number) => boolean): NoteFunctions {
  const figures = figuresOf(walk);
  const wide = byMember(figures);
  const named: Figure[] = [];
  const noteFunctions = walk.scene.line.map((_, place) => {
    const assigned = walk.isChordTone(place)
      ? chordToneDeed(walk, place, isTarget, wide)
      : otherDeed(walk, place, wide);
    if (!wide.has(place) && isMinorToMajor(walk, place))
      named.push({ kind: 'minor-to-major-third', members: [place], target: place + 1 });
    else if (isSingleFigure(assigned.name) && assigned.target !== undefined)
      named.push({ kind: assigned.name, members: [place], target: assigned.target });
    return assigned;
  });
  return { functions: noteFunctions, figures: [...figures, ...named] };
}

const isSingleFigure = (name: NoteFunction): name is Exclude<FigureKind, 'minor-to-major-third'> =>
  name === 'approach-below' || name === 'approach-above' || name === 'suspension' || name === 'retardation';

function chordToneDeed(
  walk: Walk,
  place: number,
  isTarget: (place: number) => boolean,
  wide: Members,
): AssignedFunction {
  const suspended = suspensionAt(walk, place);
  if (suspended) return { name: suspended, tier: 'chord', target: place + 1 };
  const figure = figureOf(wide, place, 'enclosure');
  let name: 'anticipation' | 'target' | 'chord-tone';
  if (defined(walk.assignments[place]).anticipates) name = 'anticipation';
  else if (isTarget(place)) name = 'target';
  else name = 'chord-tone';
  return figure ? { name, tier: 'chord', target: figure.target } : { name, tier: 'chord' };
}

type Members = ReadonlyMap<number, readonly Figure[]>;
const figureOf = (wide: Members, place: number, kind: FigureKind): Figure | undefined =>
  wide.get(place)?.find((figure) => figure.kind === kind);

function otherDeed(walk: Walk, place: number, wide: Members): AssignedFunction {
  const base = baseTier(walk.context(place), walk.at(place)!.pc);
  const led: Tier = base === 'outside' ? 'approach' : base;
  for (const kind of ['enclosure', 'double-chromatic'] as const) {
    const member = figureOf(wide, place, kind);
    if (member) return { name: kind, tier: led, target: member.target };
  }
  if (isAppoggiatura(walk, place) && neighbour(walk, place, led) === null)
    return approach(walk, place, led, true);
  if (walk.isChromatic(place) && leadsBy(walk, place, 1) && isStruckToLead(walk, place))
    return approach(walk, place, led, false);
  return (
    passing(walk, place, base) ??
    neighbour(walk, place, led) ??
    (leadsBy(walk, place, 2)
      ? approach(walk, place, led, walk.onBeat(place))
      : { name: base === 'chord' ? 'chord-tone' : base, tier: base })
  );
}

/** ♭3 to 3 of a chord with a major third, within a beat, anywhere in the bar (T7.12). */
function isMinorToMajor(walk: Walk, place: number): boolean {
  const [note, next] = [walk.at(place)!, walk.at(place + 1)];
  const { chord } = walk.context(place);
  if (!next || !chord || !walk.joined(place) || walk.step(place, place + 1) !== 1) return false;
  if (walk.context(place + 1).chord !== chord) return false;
  const third = toneByRole(chord, 'third');
  return third?.semitones === 4 && next.pc === third.pc && next.onset - note.onset <= 1 + EPSILON;
}

/** An accented 4–3 or 7–1 into a chord tone (T7.11). */
function isAppoggiatura(walk: Walk, place: number): boolean {
  if (!walk.onBeat(place) || !leadsBy(walk, place, 2)) return false;
  const { chord } = walk.context(place + 1);
  if (!chord) return false;
  const [above, step] = [semitonesAboveRoot(chord, walk.at(place)!.pc), walk.step(place, place + 1)];
  const isFourToThree = above === 5 && step < 0 && toneByRole(chord, 'third')?.pc === walk.at(place + 1)!.pc;
  return isFourToThree || (above === 11 && step === 1);
}

/**
 * A chromatic note leads where it was leapt to or struck on the upbeat before its target; between two scale tones a
 * step apart it passes (T7.11).
 */
function isStruckToLead(walk: Walk, place: number): boolean {
  const isStepwise = place > 0 && walk.joined(place - 1) && Math.abs(walk.step(place - 1, place)) <= 2;
  if (!isStepwise) return true;
  const isBetween =
    walk.step(place - 1, place) === walk.step(place, place + 1) &&
    !walk.isChromatic(place - 1) &&
    !walk.isChromatic(place + 1);
  return !isBetween && !walk.onBeat(place) && walk.onBeat(place + 1);
}

/** The linked note that follows is a chord tone at most so many semitones away. */
function leadsBy(walk: Walk, place: number, semitones: number): boolean {
  if (!walk.at(place + 1) || !walk.joined(place) || !walk.isChordTone(place + 1)) return false;
  const step = Math.abs(walk.step(place, place + 1));
  return step >= 1 && step <= semitones;
}

/**
 * Rule T7.4: not in the chord-scale, one semitone from the linked target that follows. Rule T7.6: the next
 * linked note is a target 1–2 semitones away (`chromatic` as it is;
 * accented on a beat also `appoggiatura`); the half-step approaches of T7.4 are not called so.
 */
function approach(walk: Walk, place: number, tier: Tier, accented: boolean): AssignedFunction {
  const name = walk.step(place, place + 1) > 0 ? 'approach-below' : 'approach-above';
  return accented ? { name, tier, target: place + 1, appoggiatura: true } : { name, tier, target: place + 1 };
}

/**
 * Rule T7.6: linked neighbours lie on either side, each within 2 semitones (3 where the note and that
 * neighbour are adjacent tones of the home scale). In neither scale: … height 3 if a semitone from both, else
 * 4.
 */
function passing(walk: Walk, place: number, base: Tier): AssignedFunction | null {
  if (!hasNeighbours(walk, place)) return null;
  const before = walk.step(place - 1, place);
  const after = walk.step(place, place + 1);
  if (before * after <= 0 || !closeEnough(walk, place, place - 1) || !closeEnough(walk, place, place + 1))
    return null;
  const chromatic = base === 'outside';
  return {
    name: 'passing',
    tier: chromatic && Math.abs(before) === 1 && Math.abs(after) === 1 ? 'approach' : base,
  };
}

const hasNeighbours = (walk: Walk, place: number): boolean =>
  place > 0 && walk.at(place + 1) !== undefined && walk.joined(place - 1) && walk.joined(place);

function closeEnough(walk: Walk, place: number, other: number): boolean {
  const distance = Math.abs(walk.step(place, other));
  if (distance !== 3) return distance === 1 || distance === 2;
  return isAdjacentIn(walk.context(place).home, walk.at(place)!.pc, walk.at(other)!.pc);
}

/**
 * Rule T7.6: linked neighbours are the same pitch, this one within 2 semitones of it (chromatic ones have
 * height 3).
 */
function neighbour(walk: Walk, place: number, tier: Tier): AssignedFunction | null {
  if (!hasNeighbours(walk, place) || walk.step(place - 1, place + 1) !== 0) return null;
  const distance = Math.abs(walk.step(place, place + 1));
  return distance >= 1 && distance <= 2 ? { name: 'neighbour', tier } : null;
}
