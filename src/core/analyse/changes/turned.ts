import { type Beats, defined } from '../../shared';
import { beatsPerBar, type ChordChange } from '../../chart';
import type { AnalysisScene } from '../harmonicContext/chordAssignment';
import { lineBetween } from '../notes/lineBetween';
import type { LineNote } from '../notes/voice';
import { EPSILON } from '../notes/windows';

/**
 * Where the line itself turned to the new chord.
 * Rule T8.6: per change, the time within ±1 bar that best splits the line into old chord before and new
 * chord after. A split between two
 * notes is at the change where that lies between them, else at the first note of the new chord; of equals
 * the one nearest the change.
 * @returns beats from bar 1, or null where no line note starts within a bar of the change
 */
export function turnedAt(
  scene: AnalysisScene,
  change: ChordChange,
  before: ChordChange | undefined,
  after: ChordChange | undefined,
): Beats | null {
  const bar = beatsPerBar(defined(scene.timeline.bars[change.bar]).meter);
  const [from, to] = [
    Math.max(change.at - bar, before?.at ?? -Infinity),
    Math.min(change.at + bar, after?.at ?? Infinity),
  ];
  const notes = lineBetween(scene.line, from - scene.windows.on, to - scene.windows.on);
  if (notes.length === 0) return null;
  const next = defined(scene.contexts[change.span.index]);
  const old = defined(
    scene.contexts[(change.span.index - 1 + scene.contexts.length) % scene.contexts.length],
  );
  const weigh = (note: LineNote, gains: readonly number[]) =>
    Math.min(1, note.end - note.onset) * defined(gains[note.pc]);
  // what all notes say for the new chord; then one note after the other goes over to the old
  let score = notes.reduce((sum, note) => sum + weigh(note, next.gains), 0);
  let best: { at: Beats; score: number } | null = null;
  for (let split = 0; split <= notes.length; split++) {
    const at = splitTime(notes, split, change.at, scene.windows.on, to);
    if (
      !best ||
      score > best.score + EPSILON ||
      (score > best.score - EPSILON && Math.abs(at - change.at) < Math.abs(best.at - change.at) - EPSILON)
    )
      best = { at, score };
    const over = notes[split];
    if (over) score += weigh(over, old.gains) - weigh(over, next.gains);
  }
  return best!.at;
}

function splitTime(
  notes: readonly LineNote[],
  split: number,
  change: Beats,
  window: Beats,
  end: Beats,
): Beats {
  const [last, first] = [notes[split - 1]?.onset ?? -Infinity, notes[split]?.onset ?? Infinity];
  if (last < change - window + EPSILON && first >= change - window - EPSILON) return change;
  return Number.isFinite(first) ? first : end;
}
