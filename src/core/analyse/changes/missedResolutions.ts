import { type Midi, defined } from '../../shared';
import { guideTones, intervalOver, type IntervalName } from '../../music';
import type { JudgedLanding, ChangeReport } from './landings';
import { lineBetween } from '../notes/lineBetween';

/**
 * A half step from a guide tone of the old chord to one of the new that lay under the hand and was passed by.
 */
export type MissedResolution = {
  readonly changeIndex: number;
  readonly fromMidi: Midi;
  readonly toMidi: Midi;
  readonly fromInterval: IntervalName;
  readonly toInterval: IntervalName;
};

/** Under the hand: as near as a one-note fix reaches. */
const REACH = 4;

/**
 * Missed resolutions, one at most per change.
 * Rule T8.8: the half-step moves of guide tones that lay within reach at a change and were passed by.
 * Within reach is a guide tone of the old chord at most four
 * semitones from the last line note before the change (itself, where it is one), in the bar before it; it
 * was passed by where the landing, on or late, is not the tone it leads to.
 */
export function missedResolutionsOf(
  { scene, voices }: JudgedLanding,
  changes: readonly ChangeReport[],
): MissedResolution[] {
  return scene.changes.flatMap((change, place): MissedResolution[] => {
    const { landing } = defined(changes[place]);
    const before = lineBetween(scene.line, change.at - 4, change.at - scene.windows.on).at(-1);
    if (landing.noteIndex === null || landing.timing === 'held' || !before) return [];
    const landed = defined(voices[landing.noteIndex]).pc;
    const halfSteps = guideTones(change.from).flatMap((from) =>
      guideTones(change.to).flatMap((to) => {
        const move = ((to.pc - from.pc + 18) % 12) - 6;
        if (Math.abs(move) !== 1) return [];
        const fromMidi = before.pitch + ((from.pc - before.pc + 18) % 12) - 6;
        return Math.abs(fromMidi - before.pitch) <= REACH
          ? [{ fromMidi, toMidi: fromMidi + move, from: from.pc, to: to.pc }]
          : [];
      }),
    );
    if (halfSteps.length === 0 || halfSteps.some(({ to }) => to === landed)) return [];
    const nearest = halfSteps.reduce((best, halfStep) =>
      Math.abs(halfStep.fromMidi - before.pitch) < Math.abs(best.fromMidi - before.pitch) ? halfStep : best,
    );
    return [
      {
        changeIndex: change.index,
        fromMidi: nearest.fromMidi,
        toMidi: nearest.toMidi,
        fromInterval: intervalOver(change.from, nearest.from),
        toInterval: intervalOver(change.to, nearest.to),
      },
    ];
  });
}
