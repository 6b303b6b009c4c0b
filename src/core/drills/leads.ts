import type { PitchSlot } from '../lines';
import { elementAt, type Beats, type PitchClass } from '../shared';
import { tonesOf } from './aims';
import { chordAt, type DrillContext } from './drillContext';
import type { LeadIn } from './recipe';

const ALL: readonly PitchClass[] = Array.from({ length: 12 }, (_, pc) => pc);

/** Does a chord begin on this beat? */
export const startsAt = (scene: DrillContext, beat: Beats): boolean =>
  Math.abs(beat - chordAt(scene, beat + 1e-6).start) < 1e-6;

/** Lays the lead-in before every landing: the notes before it are bound to it by their steps. */
export function led(slots: readonly PitchSlot[], scene: DrillContext): PitchSlot[] {
  const { lead, otherLead, phase = 0, chromatic } = scene.recipe;
  if (!lead) return [...slots];
  const out = [...slots];
  leadTargets(slots, scene, lead.length).forEach((index, landing) => {
    const way = otherLead && (landing + phase) % 4 === 3 ? otherLead : lead;
    // from above and from below in turn, where both sides lead in
    const turned = chromatic === 'only' && landing % 2 === 1 ? turnedRound(way) : way;
    bindTo(out, index, turned, scene);
  });
  return out;
}

const turnedRound = (lead: LeadIn): LeadIn => lead.map((steps) => steps.map((step) => -step));

/** Binds a landing to its tones, and the notes before it to the landing. */
function bindTo(out: PitchSlot[], index: number, lead: LeadIn, scene: DrillContext): void {
  const { chromatic, land } = scene.recipe;
  const { chord } = chordAt(scene, elementAt(out, index).beat).stretch;
  const aims = chord ? tonesOf(chord, land) : [];
  if (aims.length > 0) out[index] = { ...elementAt(out, index), pcs: aims, tones: aims };
  const [first, last] = [elementAt(lead, 0)[0] ?? 0, elementAt(lead, lead.length - 1)[0] ?? 0];
  const encloses = Math.sign(first) !== Math.sign(last);
  lead.forEach((steps, place) => {
    const at = index - lead.length + 1 + place;
    out[at] = { ...elementAt(out, at), steps };
    if (!chromatic) return;
    // of two notes around a target one may belong to the chord it is played over (T7.2)
    const isOutside = chromatic === 'only' && !(place > 0 && encloses);
    const pcs = isOutside ? outsideOf(scene, elementAt(out, at - 1).beat) : ALL;
    out[at - 1] = { ...elementAt(out, at - 1), isStrong: false, pcs };
  });
}

const strongest = (slots: readonly PitchSlot[], indices: readonly number[]): number | undefined =>
  indices.find((index) => elementAt(slots, index).isStrong) ?? indices[0];

/** One note of each run of a chord that has room for a lead-in before it: at the change where that can be. */
function leadTargets(slots: readonly PitchSlot[], scene: DrillContext, room: number): number[] {
  return chordRuns(slots, scene).flatMap((run, number) => {
    const open = run.filter((index) => {
      const first = slots[index - room];
      const { phrase, beat } = elementAt(slots, index);
      return first !== undefined && first.phrase === phrase && beat > 0;
    });
    const isAtChange = (index: number) => startsAt(scene, elementAt(slots, index).beat);
    // inside the bar every second time, where there is a place for it
    const later = open.filter((index) => !isAtChange(index));
    const inside = scene.recipe.inside && number % 2 === 1 ? strongest(slots, later) : undefined;
    const target = inside ?? open.find(isAtChange) ?? strongest(slots, open);
    return target === undefined ? [] : [target];
  });
}

/** Every pitch class that is no tone of the chord sounding at a beat. */
function outsideOf(scene: DrillContext, beat: Beats): PitchClass[] {
  const tones = chordAt(scene, beat).stretch.chord?.tones.map(({ pc }) => pc) ?? [];
  return ALL.filter((pc) => !tones.includes(pc));
}

/** Notes by the chord they are played over, one run of a chord after the other. */
export function chordRuns(slots: readonly PitchSlot[], scene: DrillContext): number[][] {
  const runs: number[][] = [];
  slots.forEach(({ beat }, index) => {
    const run = runs[runs.length - 1];
    const before = run && slots[elementAt(run, run.length - 1)];
    const symbol = (at: Beats) => chordAt(scene, at).stretch.chord?.symbol;
    if (run && before && symbol(before.beat) === symbol(beat) && beat - before.beat < 4) run.push(index);
    else runs.push([index]);
  });
  return runs;
}
