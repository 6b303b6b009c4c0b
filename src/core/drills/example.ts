import type { PlayedNote } from '../analyse';
import { lineFaults, pitchesThrough, type Level, type PitchSlot } from '../lines';
import { placesOf, placesSounding, STANDARD_INSTRUMENT } from '../neck';
import { planOn } from '../plan';
import { elementAt, present, type Midi } from '../shared';
import { attemptSize } from './attemptSize';
import { CATALOGUE, DRILL_KINDS, type CatalogueEntry, type DrillKind } from './catalogue';
import { groundOf, judgeDrill, type Drill } from './drill';
import { chordAt, type DrillContext } from './drillContext';
import type { Recipe } from './recipe';
import { mainPart, partsOf, recipeFor, type MustRule, type Rule } from './rules';
import { slotsOf } from './slots';
import { writtenLine } from './written';

/** D3 to the twelfth fret of the high string: where examples lie unless a place is asked for. */
const RANGE: readonly [Midi, Midi] = [50, 76];
const TRIES = 16;
/** Where no rhythm has room to breathe, the chords come too fast for it: so many lines that pass are enough. */
const BREATHLESS = 3;

/** A string of the guitar sounds it: a hand that may move then reaches it, whatever came before. */
const isOnNeck = ({ midi }: PlayedNote): boolean =>
  placesSounding(Math.round(midi), STANDARD_INSTRUMENT).length > 0;

/**
 * A line that passes a drill and is worth copying: seeded, within the hand's range, in phrases. Lines are made
 * and held against the rule, the hand and the faults of a line; the best of them is taken.
 * @returns null where none of them passed: the bars may hold nothing the drill can be played on
 */
export function exampleOf(
  drill: Drill,
  seed: number,
  choruses = 1,
  level: Level = 'usual',
): PlayedNote[] | null {
  const scene = sceneOf(drill, choruses, level);
  const tries = Array.from({ length: TRIES }, (_, at) => ({ at: turned(scene, at), seed: seed + at * 101 }));
  const [breathing, others] = partition(tries, (one) => breathes(one.at, one.seed));
  let best: { readonly line: PlayedNote[]; readonly faults: number } | null = null;
  let breathless = 0;
  for (const one of [...breathing, ...others]) {
    const line = lineOf(one.at, one.seed);
    if (!line || !line.every(isOnNeck) || !judgeDrill(drill, line, choruses).passed) continue;
    const faults = lineFaults(withoutChords(line), scene.end);
    if (best === null || faults.length < best.faults) best = { line, faults: faults.length };
    if (faults.includes('never-breathes')) breathless++;
    if (faults.length === 0 || breathless === BREATHLESS) break;
  }
  return best?.line ?? null;
}

/** A line of as few passes as the drill needs: some rules have no place in one pass over two bars. */
export function exampleFor(
  drill: Drill,
  seed: number,
  level: Level = 'usual',
): { readonly line: PlayedNote[]; readonly passes: number } | null {
  const { passes: most } = attemptSize(drill);
  for (const passes of new Set([1, Math.min(2, most), most])) {
    const line = exampleOf(drill, seed, passes, level);
    if (line) return { line, passes };
  }
  return null;
}

function sceneOf(drill: Drill, choruses: number, level: Level): DrillContext {
  const { chart, timeline, plan: choice } = groundOf(drill);
  const { plan, harmony } = planOn(chart, timeline, choice);
  return {
    chart,
    timeline,
    tempo: drill.tempo,
    level,
    plan,
    harmony,
    recipe: recipeOf(drill),
    end: choruses * timeline.formBeats,
    choruses,
    musts: partsOf(drill.rule).filter((rule): rule is MustRule => rule.kind === 'must'),
  };
}

/** Has the rhythm of a try a breath in it, whatever its pitches will be? */
function breathes(scene: DrillContext, seed: number): boolean {
  if (scene.recipe.written) return true;
  const rhythm = slotsOf(scene, seed).map(({ beat, duration, place }) => ({
    onsetBeat: beat,
    durationBeats: place === 'last' ? duration : duration * DETACHED,
    midi: 60,
  }));
  return !lineFaults(rhythm, scene.end).includes('never-breathes');
}

function partition<T>(all: readonly T[], holds: (one: T) => boolean): readonly [T[], T[]] {
  const held = all.map(holds);
  return [all.filter((_, index) => held[index]), all.filter((_, index) => !held[index])];
}

/** A lead-in from below where one from above finds no line, and the other way round. */
function turned(scene: DrillContext, tries: number): DrillContext {
  const { recipe } = scene;
  if (recipe.chromatic !== 'only') return scene;
  const turn = tries % 2 === 0 ? 1 : -1;
  const lead = present(recipe.lead).map((steps) => steps.map((step) => turn * step));
  return { ...scene, recipe: { ...recipe, lead, phase: tries >> 1 } };
}

/** The single notes of a line: what is struck together is left out. */
export const withoutChords = (line: readonly PlayedNote[]): readonly PlayedNote[] =>
  line.filter(
    (note, index) =>
      line[index - 1]?.onsetBeat !== note.onsetBeat && line[index + 1]?.onsetBeat !== note.onsetBeat,
  );

function lineOf(scene: DrillContext, seed: number): PlayedNote[] | null {
  const { written, glide } = scene.recipe;
  const pitches = pitchesOf(scene.recipe);
  const fill = (slots: readonly PitchSlot[], from: number) =>
    lineThrough(bound(slots, scene.recipe), pitches, from);
  if (written) return writtenLine(scene, written, seed, fill);
  const line = fill(slotsOf(scene, seed), seed);
  return line && glide
    ? line.map((note) =>
        landsOn(scene, note.onsetBeat)
          ? { ...note, slide: { fromMidi: note.midi - 1 - (seed % 2), seconds: 0.09 } }
          : note,
      )
    : line;
}

/** Moves no wider than the recipe lets them be. */
function bound(slots: readonly PitchSlot[], { widest }: Recipe): readonly PitchSlot[] {
  if (widest === undefined) return slots;
  const open = Array.from({ length: 2 * widest + 1 }, (_, index) => index - widest);
  return slots.map((slot) => ({ ...slot, ...(slot.place !== 'first' && { steps: slot.steps ?? open }) }));
}

/** A gap this short between two notes of a phrase is not left by a hand. */
const DETACHED = 0.95;

function lineThrough(
  slots: readonly PitchSlot[],
  pitches: readonly Midi[],
  seed: number,
): PlayedNote[] | null {
  const line = pitchesThrough(slots, pitches, seed);
  return (
    line &&
    slots.map(({ beat, duration, place }, index) => ({
      onsetBeat: beat,
      durationBeats: place === 'last' ? duration : duration * DETACHED,
      midi: elementAt(line, index),
    }))
  );
}

const landsOn = (scene: DrillContext, beat: number): boolean =>
  Math.abs(beat - chordAt(scene, beat).start) < 1e-6;

/** The recipe of the catalogue; for a drill of the player's own the one that its rule asks for. */
function recipeOf({ kind, rule }: Drill): Recipe {
  const nearest = kind === 'own' ? (nearestKind(mainPart(rule)) ?? 'chord-tones') : kind;
  const { recipe }: CatalogueEntry = CATALOGUE[nearest];
  return kind === 'own' || rule.kind === 'motif' ? recipeFor(rule, recipe) : recipe;
}

/** The drill of the catalogue whose rule is most like one: the same kind, then the same parts. */
function nearestKind(rule: Rule): DrillKind | undefined {
  const likeness = (kind: DrillKind): number => {
    const other = mainPart(CATALOGUE[kind].rule);
    if (other.kind !== rule.kind) return -1;
    const [own, theirs] = [rule, other].map((one) =>
      Object.entries(one).map(([name, value]) => `${name} ${JSON.stringify(value)}`),
    );
    // a part that is there at all weighs more than its being the same
    return (
      present(own).filter((part) => present(theirs).includes(part)).length +
      3 * Object.keys(rule).filter((name) => name in other).length -
      3 * Object.keys(other).filter((name) => !(name in rule)).length +
      100
    );
  };
  const best = DRILL_KINDS.reduce((found, kind) => (likeness(kind) > likeness(found) ? kind : found));
  return likeness(best) < 0 ? undefined : best;
}

function pitchesOf({ place, register = RANGE }: Recipe): Midi[] {
  const [low, high] = register;
  const range = Array.from({ length: high - low + 1 }, (_, index) => low + index);
  if (place === undefined) return range;
  const all = Array.from({ length: 12 }, (_, pc) => pc);
  return [
    ...new Set(placesOf(all, place, place + 3, STANDARD_INSTRUMENT.tuning).map(({ midi }) => midi)),
  ].sort((a, b) => a - b);
}
