import { type Beats, defined } from '../../shared';
import { beatsPerBar, formPositionOf, type Timeline } from '../../chart';
import type { AnalysisScene } from '../harmonicContext/chordAssignment';
import type { NoteEvents } from '../notes/events';
import type { ChangeReport } from '../changes/landings';
import { lineBetween } from '../notes/lineBetween';
import type { Phrase } from '../phrases/phrases';
import { EPSILON } from '../notes/windows';

/**
 * Targets that make their figure a pickup. Note indices.
 * Rule T7.7: `pickup` (member of a figure whose target is in an `on` landing or starts beat 1 of the
 * phrase's first full bar).
 */
export function pickupTargets(
  { timeline, line, windows }: AnalysisScene,
  { voices }: NoteEvents,
  changes: readonly ChangeReport[],
  phrases: readonly Phrase[],
): Set<number> {
  const found = new Set(
    changes
      .filter(({ landing }) => landing.timing === 'on')
      .map(({ landing }) => defined(line[defined(voices[landing.noteIndex!]).event]).index),
  );
  for (const { startBeat, noteIndices } of phrases) {
    const bar = firstFullBar(timeline, startBeat, windows.on);
    const first = lineBetween(
      line,
      Math.max(startBeat, bar - windows.on) - EPSILON,
      bar + windows.on + EPSILON,
    )[0];
    if (first && noteIndices.includes(first.index)) found.add(first.index);
  }
  return found;
}

function firstFullBar(timeline: Timeline, start: Beats, window: Beats): Beats {
  const length = beatsPerBar(defined(timeline.bars[0]).meter);
  if (start < window) return Math.min(0, Math.ceil((start - window) / length - EPSILON) * length);
  const { bar, chorus } = formPositionOf(timeline, start - window);
  return chorus * timeline.formBeats + defined(timeline.bars[bar]).end;
}
