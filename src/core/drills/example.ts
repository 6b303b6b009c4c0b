import type { PlayedNote } from '../analyse';
import { beatsPerBar, readChart, timelineOf } from '../chart';
import { placesOf, STANDARD_INSTRUMENT } from '../neck';
import { cellAt, planFromWords, planOn } from '../plan';
import { isDominant, type Chord } from '../music';
import { unwrap, type Midi, type PitchClass, present, elementAt } from '../shared';
import { CATALOGUE, DRILL_KINDS, type CatalogueEntry, type DrillKind } from './catalogue';
import { judgeDrill, type Drill } from './drill';
import { lineThrough, type Slot } from './line';
import { tonesOf } from './aims';
import type { Recipe } from './recipe';
import { recipeFor, type Rule } from './rules';
import { chordAt, type DrillContext } from './drillContext';
import { writtenLine } from './written';

/** E2 to the twelfth fret of the high string: where examples lie unless a place is asked for. */
const RANGE: readonly [Midi, Midi] = [50, 76];

/**
 * A line that passes a drill: seeded, within the hand's range, in the drill's rhythm. Lines are made and
 * held against the rule until one passes.
 * @returns null where none of a few did: the bars may hold nothing the drill can be played on
 */
export function exampleOf(drill: Drill, seed: number, choruses = 1): PlayedNote[] | null {
  const chart = unwrap(readChart(drill.chartText));
  const timeline = timelineOf(chart, drill.tempo);
  const { plan, harmony } = planOn(chart, timeline, unwrap(planFromWords(drill.plan)));
  const recipe = recipeOf(drill);
  const scene: DrillContext = {
    chart,
    timeline,
    plan,
    harmony,
    recipe,
    end: choruses * timeline.formBeats,
    choruses,
  };
  for (let tries = 0; tries < TRIES; tries++) {
    // a lead-in from below where one from above finds no line, and the other way round
    const turned =
      recipe.chromatic === 'only' && tries % 2 === 1
        ? {
            ...scene,
            recipe: { ...recipe, lead: present(recipe.lead).map((steps) => steps.map((step) => -step)) },
          }
        : scene;
    const line = lineOf(turned, seed + tries * 101);
    if (line && judgeDrill(drill, line, choruses).passed) return line;
  }
  return null;
}

const TRIES = 8;

function lineOf(scene: DrillContext, seed: number): PlayedNote[] | null {
  const { written, glide } = scene.recipe;
  if (written)
    return writtenLine(scene, written, seed, (slots, from) =>
      lineThrough(slots, pitchesOf(scene.recipe), from),
    );
  const line = lineThrough(slotsOf(scene), pitchesOf(scene.recipe), seed);
  return line && glide
    ? line.map((note) =>
        landsOn(scene, note.onsetBeat)
          ? { ...note, slide: { fromMidi: note.midi - 1 - (seed % 2), seconds: 0.09 } }
          : note,
      )
    : line;
}

const landsOn = (scene: DrillContext, beat: number): boolean =>
  Math.abs(beat - chordAt(scene, beat).start) < 1e-6;

/** The recipe of the catalogue; for a drill of the player's own the one that its rule asks for. */
function recipeOf({ kind, rule }: Drill): Recipe {
  const nearest = kind === 'own' ? (nearestKind(rule) ?? 'chord-tones') : kind;
  const { recipe }: CatalogueEntry = CATALOGUE[nearest];
  return kind === 'own' || rule.kind === 'motif' ? recipeFor(rule, recipe) : recipe;
}

/** The drill of the catalogue whose rule is most like one: the same kind, then the same parts. */
function nearestKind(rule: Rule): DrillKind | undefined {
  const likeness = (kind: DrillKind): number => {
    const other = CATALOGUE[kind].rule as Rule;
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

function pitchesOf({ place }: Recipe): Midi[] {
  const range = Array.from({ length: RANGE[1] - RANGE[0] + 1 }, (_, index) => RANGE[0] + index);
  if (place === undefined) return range;
  const all = Array.from({ length: 12 }, (_, pc) => pc);
  return [
    ...new Set(placesOf(all, place, place + 3, STANDARD_INSTRUMENT.tuning).map(({ midi }) => midi)),
  ].sort((a, b) => a - b);
}

/** Where notes are to be struck, in order: beat and duration. */
function rhythmOf(scene: DrillContext): [number, number][] {
  const { recipe, end, chart, timeline } = scene;
  const bar = beatsPerBar(chart.meter);
  const every = (step: number, from = 0, length = step * 0.95): [number, number][] =>
    Array.from({ length: Math.max(0, Math.ceil((end - from) / step - 1e-9)) }, (_, index) => [
      from + index * step,
      length,
    ]);
  switch (recipe.rhythm) {
    case 'quarters':
      return every(1);
    case 'eighths':
      return every(0.5);
    case 'offbeats':
      return every(1, 0.5, 0.45);
    case 'changes':
      return timeline.chordSpans.map(({ start, end: until }): [number, number] => [
        start,
        (until - start) * 0.9,
      ]);
    case 'anticipate': {
      const pushed = new Set<number>();
      for (let chorus = 0; chorus * timeline.formBeats < end; chorus++)
        for (const { start } of timeline.chordSpans)
          pushed.add(Math.round((chorus * timeline.formBeats + start) * 2) / 2);
      // an eighth ahead of each change and held over it, quarters between
      return every(0.5)
        .filter(([beat]) => !pushed.has(beat) || beat === 0)
        .flatMap(([beat]): [number, number][] => {
          if (pushed.has(beat + 0.5) && beat + 0.5 < end) return [[beat, 1.2]];
          if (Number.isInteger(beat) && !pushed.has(beat + 0.5))
            return [[beat, pushed.has(beat + 1) ? 0.45 : 0.9]];
          return [];
        });
    }
    case 'phrases': {
      const { beat, bars, rest, turn } = present(recipe.phrase);
      // a phrase leaves a beat and a half before the next one, which it ends on where it comes to rest
      const length = Math.min(bars * bar - 0.5, (bars + rest) * bar - (recipe.rests ? 2.5 : 1.5));
      const notes: [number, number][] = [];
      for (
        let from = beat - 1, number = 0;
        from < end - 0.5;
        number++, from = beat - 1 + number * Math.ceil(bars + rest) * bar + (turn ? number % bar : 0)
      )
        for (
          let step = 0;
          step / 2 < length - (rest >= 1 ? (beat - 1) / 2 : 0) && from + step / 2 < end;
          step++
        )
          notes.push([from + step / 2, 0.47]);
      return notes;
    }
  }
}

function slotsOf(scene: DrillContext): Slot[] {
  const rhythm = rhythmOf(scene);
  const { recipe } = scene;
  const slots = rhythm.map(([beat, duration]): Slot => {
    const early = recipe.rhythm === 'anticipate' && duration > 1;
    const at = chordAt(scene, early ? beat + 0.5 : beat);
    const { chord } = at.stretch;
    if (!chord) return { beat, duration, pcs: Array.from({ length: 12 }, (_, pc) => pc) };
    const tones = chord.tones.map(({ pc }) => pc);
    const cell = cellAt(scene.plan, at.stretch.index, at.chorus);
    const lands = early || Math.abs(beat - at.start) < 1e-6;
    const aims = tonesOf(chord, recipe.land);
    if (recipe.out !== undefined && isOut(scene, beat))
      return { beat, duration, pcs: nonEmpty(aboveTheScales(scene, beat), cell.material) };
    if (recipe.high && Math.abs((beat % beatsPerBar(scene.chart.meter)) - 1.5) < 1e-6)
      return {
        beat,
        duration,
        pcs: nonEmpty(
          cell.material.filter((pc) => !tones.includes(pc) && !tones.includes((pc + 10) % 12)),
          cell.material.filter((pc) => !tones.includes(pc)),
        ),
      };
    if (lands && aims.length > 0)
      return {
        beat,
        duration,
        pcs:
          recipe.material === 'plan' && !recipe.chromatic
            ? nonEmpty(
                aims.filter((pc) => cell.material.includes(pc)),
                aims,
              )
            : aims,
      };
    return recipe.material === 'chord'
      ? { beat, duration, pcs: tones }
      : { beat, duration, pcs: nonEmpty(cell.material, tones), liked: tones };
  });
  return shaped(led(settled(slots, scene), scene), scene);
}

/** The first three quarters of every bar that leads home. */
function isOut({ chart, recipe }: DrillContext, beat: number): boolean {
  const bar = beatsPerBar(chart.meter);
  return (
    Math.floor(beat / bar) % present(recipe.out) === present(recipe.out) - 1 && beat % bar < bar * 0.75 - 1e-6
  );
}

/** Pitch classes that neither the chord-scale nor the home scale holds. */
function aboveTheScales(scene: DrillContext, beat: number): number[] {
  const { stretch } = chordAt(scene, beat);
  const inside = [
    ...present(scene.harmony.readings[stretch.index]).scale.pcs,
    ...elementAt(scene.harmony.homeScales, stretch.index).pcs,
    ...(stretch.chord?.tones.map(({ pc }) => pc) ?? []),
  ];
  return Array.from({ length: 12 }, (_, pc) => pc).filter((pc) => !inside.includes(pc));
}

const LOW: readonly [Midi, Midi] = [50, 60];
const HIGH: readonly [Midi, Midi] = [64, 76];

/** Where a phrase may come to rest: over a dominant on its way the root alone does not ask (T10.6). */
function restingTones(scene: DrillContext, beat: number, chord: Chord): PitchClass[] {
  const { index } = chordAt(scene, beat).stretch;
  const reading = scene.harmony.readings[index];
  const isHome = reading?.degree === 'I' || reading?.degree === 'i';
  return tonesOf(chord, isHome || !isDominant(chord) ? ['root', 'third'] : ['root']);
}

/** Phrase ends that rest, and bars that lie low or high. */
function settled(slots: readonly Slot[], scene: DrillContext): Slot[] {
  const { rests, wide } = scene.recipe;
  const bar = beatsPerBar(scene.chart.meter);
  return slots.map((slot, index) => {
    const next = slots[index + 1];
    if (wide) return { ...slot, between: Math.floor(slot.beat / bar) % 2 === 0 ? LOW : HIGH };
    if (!rests || (next && next.beat - slot.beat < 1 - 1e-6)) return slot;
    const { chord } = chordAt(scene, slot.beat).stretch;
    return chord ? { ...slot, duration: 1.05, pcs: restingTones(scene, slot.beat, chord) } : slot;
  });
}

const nonEmpty = <T>(values: readonly T[], otherwise: readonly T[]): readonly T[] =>
  values.length > 0 ? values : otherwise;

/** Lays the lead-in before every landing on a change: the notes before it are bound to it by their steps. */
function led(slots: readonly Slot[], scene: DrillContext): Slot[] {
  const { lead, chromatic } = scene.recipe;
  if (!lead) return [...slots];
  const out = [...slots];
  const all = Array.from({ length: 12 }, (_, pc) => pc);
  slots.forEach((slot, index) => {
    const { start } = chordAt(scene, slot.beat);
    if (index < lead.length || slot.beat === 0 || Math.abs(slot.beat - start) > 1e-6) return;
    lead.forEach((steps, place) => {
      const at = index - lead.length + 1 + place;
      out[at] = { ...elementAt(out, at), steps };
      if (chromatic && at - 1 > 0)
        out[at - 1] = {
          ...elementAt(out, at - 1),
          pcs: chromatic === 'only' ? outsideOf(scene, elementAt(out, at - 1).beat) : all,
        };
    });
  });
  return out;
}

/** Every pitch class that is no tone of the chord sounding at a beat. */
function outsideOf(scene: DrillContext, beat: number): number[] {
  const tones = chordAt(scene, beat).stretch.chord?.tones.map(({ pc }) => pc) ?? [];
  return Array.from({ length: 12 }, (_, pc) => pc).filter((pc) => !tones.includes(pc));
}

/** Binds the notes of each bar into a shape: runs by step, arpeggios by skips of the chord. */
function shaped(slots: readonly Slot[], scene: DrillContext): Slot[] {
  const { shape } = scene.recipe;
  if (!shape) return [...slots];
  const bar = beatsPerBar(scene.chart.meter);
  return slots.map((slot) => {
    const place = Math.round((slot.beat % bar) * 2);
    if (place === 0 || place > (shape === 'run' ? 4 : 3)) return slot;
    return { ...slot, steps: shape === 'run' ? [1, 2] : [3, 4, 5] };
  });
}
