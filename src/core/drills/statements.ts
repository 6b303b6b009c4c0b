import type { PlayedNote } from '../analyse';
import { beatsPerBar } from '../chart';
import { isStrongBeat, type PitchSlot } from '../lines';
import { elementAt, pitchClassOf, present, type Beats, type Midi } from '../shared';
import { chordAt, heldFor, type DrillContext } from './drillContext';
import { pitchOf, rootNear, type FormulaNote } from '../phrases';
import type { Fill } from './musicBars';
import type { Motif } from './rules';

/** Shapes to begin with: rhythm and contour, short enough for a held end and a breath in two bars of four. */
export const MOTIFS: readonly Motif[] = [
  { gaps: [0.5, 0.5, 1], moves: [2, 2, -3] },
  { gaps: [1, 0.5, 0.5, 1.5], moves: [-2, -2, 4, -2] },
  { gaps: [1.5, 0.5, 0.5], moves: [3, -2, -2] },
  { gaps: [0.5, 0.5, 1, 0.5, 0.5], moves: [3, 4, -2, -2, 2] },
];
const HELD: Beats = 1.5;
const BREATH: Beats = 1.25;

/**
 * One phrase on every bar that has room for it, its moves fitted to the chord and its end on one of its tones.
 */
export function motifs(scene: DrillContext, motif: Motif, seed: number, fill: Fill): PlayedNote[] | null {
  const { gaps } = motif;
  const length = gaps.reduce((sum, gap) => sum + gap, 0);
  const bar = beatsPerBar(scene.chart.meter);
  const every = Math.ceil((length + 1 + BREATH) / bar) * bar;
  const held = Math.min(HELD + 0.5, every - length - BREATH);
  const slots: PitchSlot[] = [];
  for (let start = 0, phrase = 0; start + length < scene.end - 1 + 1e-6; start += every, phrase++)
    slots.push(...statement(scene, motif, start, held, phrase, seed));
  return fill(slots, seed);
}

/** Where the root has to lie for a formula to stay in the middle of the neck. */
function registerFor(formula: readonly FormulaNote[]): Midi {
  const heights = formula.map(({ degree, octave }) => 12 * octave + (degree - 1) * 1.75);
  return Math.round(62 - (Math.min(...heights) + Math.max(...heights)) / 2);
}

function statement(
  scene: DrillContext,
  { gaps, moves, formula }: Motif,
  start: Beats,
  held: Beats,
  phrase: number,
  seed: number,
): PitchSlot[] {
  // by its formula every note is known; the register moves from statement to statement
  const root = formula ? rootNear(scene, start, registerFor(formula) + ((phrase + seed) % 3) - 1) : null;
  const bar = beatsPerBar(scene.chart.meter);
  let beat = start;
  return [...gaps, held].map((gap, index): PitchSlot => {
    const at = beat;
    beat += gap;
    const { chord, index: span } = chordAt(scene, at).stretch;
    const tones = chord?.tones.map(({ pc }) => pc) ?? [];
    const isLast = index === gaps.length;
    const scale = [...new Set([...present(scene.harmony.readings[span]).scale.pcs, ...tones])];
    const move = moves[index - 1];
    const own = formula && root !== null ? pitchOf(elementAt(formula, index), scene, at, root) : null;
    const inner = index === 0 ? 'first' : 'inner';
    return {
      beat: at,
      duration: isLast ? heldFor(scene, at, held) : Math.min(1, gap),
      phrase,
      place: isLast ? 'last' : inner,
      pcs: chord && isLast ? tones : scale,
      tones,
      isStrong: isLast || isStrongBeat(at, bar),
      ...(own !== null && { pcs: [pitchClassOf(own)], between: [own, own] as const }),
      ...(move !== undefined &&
        own === null && {
          steps: [0, 1, -1, 2, -2].map((by) => move + by).filter((to) => Math.sign(to) === Math.sign(move)),
        }),
    };
  });
}
