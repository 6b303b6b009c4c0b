import { soundingAfter, type SoundingChord } from '../../chart';
import type { Beats } from '../../shared';
import { isChange, type Chord } from '../../music';
import { contextAt, type AnalysisScene } from './chordAssignment';
import { printedInterval, restingTier } from './harmonicContext';
import {
  TENSION_LEVEL,
  type ChordAssignment,
  type TensionLevel,
  type NoteSpan,
  type Voice,
} from '../notes/voice';
import { EPSILON } from '../notes/windows';

/** The spans of one note and the chord span under each. */
export type LaidSpans = { readonly spans: readonly NoteSpan[]; readonly chordSpans: readonly number[] };

/**
 * A note cut where the chord under it changes; its first part belongs with the note, the later ones are
 * judged anew.
 * Rule T6.2: A note held across a change is two spans in height and time, one in counts.
 * @param until what rings past the last chorus is cut there
 */
export function spansOf(
  scene: AnalysisScene,
  voice: Voice,
  assignment: ChordAssignment,
  height: TensionLevel,
  until: number,
): LaidSpans {
  const spans: NoteSpan[] = [];
  const chordSpans: number[] = [];
  const end = Math.min(voice.end, until);
  let now = assignment.sounding;
  let from = voice.onset;
  for (;;) {
    const next = now.end < end - EPSILON ? borderAfter(scene, now, end) : null;
    const to = next?.start ?? end;
    const context = contextAt(scene, now.span.index, now.chorus);
    spans.push({
      chord: now.span.chord?.symbol ?? null,
      interval: printedInterval(context, voice),
      height: spans.length === 0 ? height : TENSION_LEVEL[restingTier(context, voice)],
      beats: Math.max(0, to - from),
    });
    chordSpans.push(now.span.index);
    if (next === null) return { spans, chordSpans };
    [now, from] = [next, to];
  }
}

/** The next chord that differs from the one sounding, where it begins before an end; null where none does. */
function borderAfter({ timeline }: AnalysisScene, now: SoundingChord, end: Beats): SoundingChord | null {
  let next = soundingAfter(timeline, now);
  while (next.start < end - EPSILON && !isBorder(now.span.chord, next.span.chord))
    next = soundingAfter(timeline, next);
  return next.start < end - EPSILON ? next : null;
}

const isBorder = (before: Chord | null, now: Chord | null): boolean =>
  before && now ? isChange(before, now) : before !== now;
