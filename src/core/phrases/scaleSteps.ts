import { soundingAt } from '../chart';
import { rootPc } from '../music';
import { elementAt, modulo, type Beats, type Midi, type PitchClass } from '../shared';
import { NEAR, type FormScene } from './formula';

/** The scale that stands over a beat, from its chord's root up; the chromatic one without a chord. */
export type ScaleThere = {
  readonly root: PitchClass;
  readonly pcs: readonly PitchClass[];
  readonly tones: readonly PitchClass[];
};

const CHROMATIC = Array.from({ length: 12 }, (_, pc) => pc);

export function scaleAt({ timeline, harmony }: FormScene, onset: Beats): ScaleThere {
  const { span } = soundingAt(timeline, Math.max(0, onset + NEAR));
  if (!span.chord) return { root: 0, pcs: CHROMATIC, tones: [] };
  const root = rootPc(span.chord);
  const tones = span.chord.tones.map(({ pc }) => pc);
  const pcs = harmony.readings[span.index]?.scale.pcs ?? tones;
  const above = (pc: PitchClass) => modulo(pc - root, 12);
  return { root, pcs: [...new Set([...pcs, root])].sort((a, b) => above(a) - above(b)), tones };
}

/** A pitch as steps of a scale over the root below middle C's octave, and what it lies above that step. */
export function stepOf(
  midi: Midi,
  { root, pcs }: ScaleThere,
): { readonly step: number; readonly alter: number } {
  const octave = Math.floor((midi - root) / 12);
  const above = modulo(midi - root, 12);
  const offsets = pcs.map((pc) => modulo(pc - root, 12));
  const step = offsets.findLastIndex((offset) => offset <= above);
  return { step: octave * pcs.length + step, alter: above - elementAt(offsets, step) };
}

/** The pitch of a step of a scale. */
export function pitchAtStep(step: number, { root, pcs }: ScaleThere): Midi {
  const octave = Math.floor(step / pcs.length);
  return root + 12 * octave + modulo(elementAt(pcs, modulo(step, pcs.length)) - root, 12);
}

/** The pitch of some classes that lies nearest to another pitch; the lower of two. */
export function nearestOf(pcs: readonly PitchClass[], to: Midi): Midi {
  for (let away = 0; away < 12; away++)
    for (const midi of [to - away, to + away]) if (pcs.includes(modulo(midi, 12))) return midi;
  return to;
}
