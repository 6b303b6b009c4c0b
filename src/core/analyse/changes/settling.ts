import { beatsPerBar, type ChordChange } from '../../chart';
import { hasTone } from '../../music';
import { defined } from '../../shared';
import type { AnalysisScene } from '../harmonicContext/chordAssignment';
import type { OutRun } from '../noteFunctions/stepOuts';
import { isLinked, type LineNote } from '../notes/voice';
import { EPSILON } from '../notes/windows';
import type { Phrase } from '../phrases/phrases';
import type { Beats } from '../../shared';
import type { ChangeReport, JudgedLanding, Landing, Verdict } from './landings';

/** What a landing becomes by the tone it settles on. */
export type SettledLanding = Pick<Landing, 'verdict' | 'delayed' | 'resolutionIndex' | 'resolvedAfterBeats'>;

/**
 * A landing that is a member of a figure which settles on a chord tone within a beat is judged by that tone; it is
 * late by name only.
 * Rule T8.9.
 */
export function settledByFigure(
  { scene, figures }: JudgedLanding,
  change: ChordChange,
  note: LineNote,
  verdictOf: (settled: LineNote) => Verdict,
): SettledLanding | null {
  for (const { kind, target } of figures.get(note.event) ?? []) {
    // a tone held over from the old chord has a verdict of its own
    if (kind === 'suspension' || kind === 'retardation') continue;
    const settled = defined(scene.line[target]);
    const isSoon = settled.onset - Math.max(note.onset, change.at) <= 1 + EPSILON;
    if (!isSoon || settled.onset >= change.until - EPSILON || !hasTone(change.to, settled.pc)) continue;
    return {
      verdict: verdictOf(settled),
      delayed: true,
      resolutionIndex: settled.index,
      resolvedAfterBeats: Math.max(0, settled.onset - change.at),
    };
  }
  return null;
}

/**
 * A landing on a non-chord tone that an unbroken linked line brings home.
 * Rule T8.3: A landing on a non-chord tone is `delayed: true` … when the first chord tone that an unbroken
 * linked line from it reaches is at most the fourth
 * line note after it, within two bars and before c2, and is reached by a step of at most 2 semitones.
 */
export function resolutionOf(
  { scene }: JudgedLanding,
  change: ChordChange,
  from: LineNote,
): Pick<Landing, 'delayed' | 'resolutionIndex' | 'resolvedAfterBeats'> {
  const bar = defined(scene.timeline.bars[change.bar]);
  for (let place = from.event + 1; place <= from.event + 4; place++) {
    const [before, note] = [scene.line[place - 1], scene.line[place]];
    if (!note || !isLinked(before, note) || note.onset >= change.until - EPSILON) return {};
    if (note.onset - change.at > 2 * beatsPerBar(bar.meter) + EPSILON) return {};
    if (!hasTone(change.to, note.pc)) continue;
    if (Math.abs(note.pitch - before!.pitch) > 2) return {};
    return { delayed: true, resolutionIndex: note.index, resolvedAfterBeats: note.onset - change.at };
  }
  return {};
}

/** Notes of phrases that state a theme again: what they repeat is meant (T8.9). */
export function restatedNotes(phrases: readonly Phrase[]): ReadonlySet<number> {
  const said = new Set<number>();
  return new Set(
    phrases.flatMap(({ theme, noteIndices }) => {
      if (theme === undefined) return [];
      if (said.has(theme)) return noteIndices;
      said.add(theme);
      return [];
    }),
  );
}

/** A pickup phrase that plays the coming chord up to a beat ahead has turned on time (T8.9). */
export const asPickup = (split: Beats, change: Beats, starts: readonly Beats[]): Beats =>
  split < change && change - split <= 1 + EPSILON && starts.some((start) => Math.abs(start - split) < EPSILON)
    ? change
    : split;

/** A landing that resolves within a beat, or that repeats a theme, asks for no other note (T8.9). */
export const isMeant = (landing: Landing, restated: ReadonlySet<number>): boolean =>
  landing.noteIndex !== null &&
  ((landing.resolvedAfterBeats !== undefined && landing.resolvedAfterBeats <= 1 + EPSILON) ||
    restated.has(landing.noteIndex));

/** Under a plan that steps out, the changes passed inside one are not judged (T7.15). */
export const excused = (
  changes: readonly ChangeReport[],
  { line }: AnalysisScene,
  runs: readonly OutRun[],
): ChangeReport[] =>
  changes.map((change) => {
    const isInside = runs.some(
      ({ first, last }) =>
        defined(line[first]).onset <= change.beat + EPSILON &&
        defined(line[last]).end > change.beat + EPSILON,
    );
    return isInside
      ? { ...change, fix: null, landing: { ...change.landing, verdict: 'none', excused: true } }
      : change;
  });
