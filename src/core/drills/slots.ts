import { beatsPerBar, changesOf } from '../chart';
import { isStrongBeat, rhythmOf, type PhraseWindow, type PitchSlot, type RhythmNote } from '../lines';
import { isDominant, type Chord } from '../music';
import { cellAt } from '../plan';
import { elementAt, present, type Beats, type Midi, type PitchClass } from '../shared';
import { tonesOf } from './aims';
import { chordAt, outsideAt, type DrillContext } from './drillContext';
import { chordRuns, led, startsAt } from './leads';
import { mustAt } from './rules';

const ALL: readonly PitchClass[] = Array.from({ length: 12 }, (_, pc) => pc);

/** The rhythm of an example, and what each of its notes may be by the recipe. */
export function slotsOf(scene: DrillContext, seed: number): PitchSlot[] {
  const slots = rhythmIn(scene, seed).map((note) => slotOf(scene, note));
  const placed = lifted(settled(slots, scene), scene);
  return shaped(led(demanded(placed, scene), scene), scene, seed);
}

/** An eighth ahead of its change a note belongs to the chord that comes. */
const AHEAD: Beats = 0.5;

function rhythmIn(scene: DrillContext, seed: number): RhythmNote[] {
  const { recipe, end, chart, timeline, choruses, tempo } = scene;
  const changes = changesOf(timeline, choruses).map(({ at }) => at);
  const { phrase } = recipe;
  return rhythmOf({
    end,
    bar: beatsPerBar(chart.meter),
    tempo,
    level: scene.level,
    base: BASES[recipe.rhythm],
    changes,
    leadIn: recipe.lands ? (recipe.lead?.length ?? 0) : null,
    ahead: recipe.rhythm === 'anticipate' ? AHEAD : 0,
    ...(phrase && {
      phrase: {
        start: phrase.beat - 1,
        bars: phrase.bars,
        rest: phrase.rest,
        ...(phrase.turn && { turn: true }),
        ...(phrase.varied && { varied: true }),
      },
    }),
    ...(recipe.out !== undefined && { windows: windowsHome(scene, recipe.out) }),
    ...(recipe.shape && { runs: 4 }),
    ...(recipe.plain && { plain: true }),
    answers: recipe.varies !== true,
    seed,
  });
}

const BASES = {
  eighths: 'mixed',
  running: 'running',
  triplets: 'triplets',
  quarters: 'quarters',
  offbeats: 'offbeats',
  anticipate: 'mixed',
  phrases: 'mixed',
} as const;

/** Phrases that go out of the chords and end on the bar line they come home at. */
function windowsHome({ chart, end }: DrillContext, every: number): PhraseWindow[] {
  const bar = beatsPerBar(chart.meter);
  const windows: PhraseWindow[] = [];
  for (let home = every * bar; home < end - 1e-6; home += every * bar) {
    const from = home - every * bar;
    // the note that comes home is held for a beat, then a beat of breath
    const start = windows.length === 0 ? 0 : from + Math.min(2, bar - 1);
    if (every <= 2) windows.push({ from: start, to: home + 1, start, last: home });
    else {
      const half = home - 2 * bar;
      windows.push({ from: start, to: half, start, last: half - bar + Math.min(2, bar - 1) });
      windows.push({ from: half, to: home + 1, start: half, last: home });
    }
  }
  const last = windows[windows.length - 1]?.last ?? 0;
  const start = windows.length === 0 ? 0 : last + Math.min(2, bar - 1);
  if (end - start >= 2) windows.push({ from: start, to: end, start });
  return windows;
}

function slotOf(scene: DrillContext, note: RhythmNote): PitchSlot {
  const { recipe, chart } = scene;
  const bar = beatsPerBar(chart.meter);
  const { beat } = note;
  const pushed = recipe.rhythm === 'anticipate' && startsAt(scene, beat + AHEAD);
  const at = chordAt(scene, pushed ? beat + AHEAD : beat);
  const { chord } = at.stretch;
  const base = { ...note, isStrong: isStrongBeat(beat, bar) || note.place === 'last' };
  if (!chord) return { ...base, pcs: ALL, tones: ALL };
  const tones = chord.tones.map(({ pc }) => pc);
  const cell = cellAt(scene.plan, at.stretch.index, at.chorus);
  if (recipe.out !== undefined && isOut(scene, beat))
    return {
      ...base,
      isStrong: false,
      pcs: nonEmpty(outsideAt(scene, beat), cell.material),
      tones: ALL,
    };
  const aims = tonesOf(chord, recipe.inside ? ['third', 'seventh', 'root', 'fifth'] : recipe.land);
  const lands = pushed || Math.abs(beat - at.start) < 1e-6;
  const inPlan = aims.filter((pc) => cell.material.includes(pc));
  if (lands && aims.length > 0)
    return {
      ...base,
      isStrong: true,
      tones: aims,
      pcs: recipe.material === 'plan' && !recipe.chromatic ? nonEmpty(inPlan, aims) : aims,
    };
  const material = recipe.material === 'chord' ? tones : nonEmpty(cell.material, tones);
  return {
    ...base,
    pcs: material,
    tones: nonEmpty(
      tones.filter((pc) => material.includes(pc)),
      material,
    ),
  };
}

/** The first three quarters of every bar that leads home. */
function isOut({ chart, recipe, end }: DrillContext, beat: Beats): boolean {
  const bar = beatsPerBar(chart.meter);
  const every = present(recipe.out);
  const home = (Math.floor(beat / bar) + 1) * bar;
  return Math.floor(beat / bar) % every === every - 1 && beat % bar < bar * 0.75 - 1e-6 && home < end - 1e-6;
}

const LOW: readonly [Midi, Midi] = [48, 60];
const HIGH: readonly [Midi, Midi] = [64, 77];

/** Where a phrase may come to rest: over a dominant on its way the root alone does not ask (T10.6). */
function restingTones(scene: DrillContext, beat: Beats, chord: Chord): PitchClass[] {
  const { index } = chordAt(scene, beat).stretch;
  const degree = scene.harmony.readings[index]?.degree;
  const isHome = degree === 'I' || degree === 'i';
  return tonesOf(chord, isHome || !isDominant(chord) ? ['root', 'third'] : ['root']);
}

/** Phrase ends that rest, and phrases that lie low or high. */
const settled = (slots: readonly PitchSlot[], scene: DrillContext): PitchSlot[] =>
  slots.map((slot) => {
    const { rests, wide, endsOn } = scene.recipe;
    const placed = wide ? { ...slot, between: slot.phrase % 2 === 0 ? LOW : HIGH } : slot;
    const { chord } = chordAt(scene, slot.beat).stretch;
    if (slot.place !== 'last' || !chord || !(rests || endsOn)) return placed;
    const pcs = endsOn ? tonesOf(chord, endsOn) : restingTones(scene, slot.beat, chord);
    return { ...placed, pcs, tones: pcs };
  });

/**
 * Where a rule asks for tones over each chord: one note of each run of a chord is bound to them, on a strong
 * beat where there is one.
 */
function demanded(slots: readonly PitchSlot[], scene: DrillContext): PitchSlot[] {
  const out = [...slots];
  for (const rule of scene.musts)
    for (const run of chordRuns(slots, scene)) {
      const asked = mustAt(rule, scene, elementAt(slots, elementAt(run, 0)).beat);
      if (asked.length === 0) continue;
      const strong = run.filter((index) => elementAt(slots, index).isStrong);
      for (const index of [...strong, ...run].slice(0, rule.least ?? 1))
        out[index] = { ...elementAt(out, index), pcs: asked, tones: asked };
    }
  return out;
}

/** Once in each bar a tone of the scale that lies off the chord, not on a strong beat where that can be helped. */
function lifted(slots: readonly PitchSlot[], scene: DrillContext): PitchSlot[] {
  if (!scene.recipe.high) return [...slots];
  const bar = beatsPerBar(scene.chart.meter);
  const chosen = new Map<number, number>();
  slots.forEach((slot, index) => {
    const number = Math.floor(slot.beat / bar + 1e-6);
    const held = chosen.get(number);
    if (held === undefined || weakness(slot) > weakness(elementAt(slots, held))) chosen.set(number, index);
  });
  const lifts = new Set(chosen.values());
  return slots.map((slot, index) => {
    const { stretch, chorus } = chordAt(scene, slot.beat);
    const { material } = cellAt(scene.plan, stretch.index, chorus);
    const tones = stretch.chord?.tones.map(({ pc }) => pc) ?? [];
    const off = material.filter((pc) => !tones.includes(pc));
    if (!lifts.has(index) || off.length === 0) return slot;
    const high = off.filter((pc) => !tones.includes((pc + 10) % 12));
    const pcs = slot.place === 'last' ? off : nonEmpty(high, off);
    return { ...slot, pcs, tones: pcs };
  });
}

const weakness = ({ isStrong, place }: PitchSlot): number => (isStrong ? 0 : 2) + (place === 'last' ? 0 : 1);

const nonEmpty = <T>(values: readonly T[], otherwise: readonly T[]): readonly T[] =>
  values.length > 0 ? values : otherwise;

/**
 * Binds the first notes of each bar, or of each chord, into a shape: runs by step, arpeggios by skips, up or
 * down; borrowed ones from a chord that is laid over the one that sounds.
 */
function shaped(slots: readonly PitchSlot[], scene: DrillContext, seed: number): PitchSlot[] {
  const { shape, borrows } = scene.recipe;
  if (!shape) return [...slots];
  const bar = beatsPerBar(scene.chart.meter);
  const sizes = shape === 'run' ? [1, 2] : [3, 4, 5];
  const last = shape === 'run' ? 4 : 3;
  return slots.map((slot) => {
    const number = Math.floor(slot.beat / bar + 1e-6);
    const from = borrows ? Math.max(number * bar, chordAt(scene, slot.beat).start) : number * bar;
    const place = Math.round((slot.beat - from) * 2);
    if (place > last) return slot;
    const laid = borrows ? borrowedAt(scene, slot, number + seed) : slot;
    if (place === 0) return laid;
    const way = (number + seed) % 2 === 0 ? 1 : -1;
    return { ...laid, steps: sizes.map((size) => way * size) };
  });
}

/** The tones of one of the shapes that the plan lays over a chord, another root under it. */
function borrowedAt(scene: DrillContext, slot: PitchSlot, choice: number): PitchSlot {
  const { stretch, chorus } = chordAt(scene, slot.beat);
  const root = stretch.chord?.tones[0]?.pc;
  const { shapes } = cellAt(scene.plan, stretch.index, chorus);
  const others = shapes.filter(({ pcs }) => root !== undefined && !pcs.includes(root));
  const chosen = (others.length > 0 ? others : shapes)[choice % Math.max(1, others.length || shapes.length)];
  return chosen ? { ...slot, pcs: chosen.pcs, tones: chosen.pcs } : slot;
}
