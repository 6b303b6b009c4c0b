import type { IntervalName } from '../../music';
import { ENOUGH_TO_JUDGE, type IntervalCount } from './coverage';
import type { AnalysisScene } from '../harmonicContext/chordAssignment';
import type { JudgedNote } from '../noteFunctions/noteReport';
import { type Beats, type Midi, type PitchClass, defined } from '../../shared';

type Counts = Record<IntervalName, IntervalCount>;
/** What was used over every chord of one Roman numeral. */
export type FunctionCoverage = {
  readonly function: string;
  readonly count: number;
  readonly judged: boolean;
  readonly byInterval: Readonly<Counts>;
};

/**
 * The take as a whole: intervals over whatever chord, time at each height, the home scale's tones and the
 * range.
 */
export type WholeCoverage = {
  readonly count: number;
  readonly byInterval: Readonly<Counts>;
  /** Beats at heights 0 to 4. */
  readonly beatsAtHeight: readonly [Beats, Beats, Beats, Beats, Beats];
  /** Pitch classes of the home scale, sounded and not. */
  readonly homeUsed: readonly PitchClass[];
  readonly homeUnused: readonly PitchClass[];
  readonly range: { readonly lowest: Midi; readonly highest: Midi } | null;
};

const isCounted = ({ note }: JudgedNote): boolean => note.function !== 'grace';

type Entry = { readonly counts: Record<string, IntervalCount>; count: number };
const emptyEntry = (): Entry => ({ counts: {}, count: 0 });

/** Adds a note's count where it belongs and its time where it sounds; `entryOf` by chord span of the form. */
function add({ note, chordSpans, isStrong }: JudgedNote, entryOf: (chordSpan: number) => Entry | undefined) {
  note.spans.forEach((span, place) => {
    const entry = entryOf(defined(chordSpans[place]));
    if (!entry) return;
    if (place === 0 && note.chord !== null) entry.count++;
    if (span.interval === null) return;
    const cell = (entry.counts[span.interval] ??= { count: 0, beats: 0, strong: 0 });
    cell.beats += span.beats;
    if (place > 0) return;
    cell.count++;
    if (isStrong) cell.strong++;
  });
}

/** Rule T9.1: Per chord symbol, per function, overall. In form order. */
export function coverageByFunction(scene: AnalysisScene, notes: readonly JudgedNote[]): FunctionCoverage[] {
  const degrees = scene.contexts.map(({ degree }) => degree);
  const entries = new Map(
    [...new Set(degrees)].flatMap((degree) => (degree === null ? [] : [[degree, emptyEntry()] as const])),
  );
  const under = degrees.map((degree) => (degree === null ? undefined : entries.get(degree)));
  for (const judged of notes) if (isCounted(judged)) add(judged, (span) => under[span]);
  return [...entries].map(([degree, { counts, count }]) => ({
    function: degree,
    count,
    judged: count >= ENOUGH_TO_JUDGE,
    byInterval: counts,
  }));
}

/** The same over every chord, with heights, the home scale's tones and the range. */
export function coverageOverall(scene: AnalysisScene, notes: readonly JudgedNote[]): WholeCoverage {
  const whole = emptyEntry();
  const beatsAtHeight: [Beats, Beats, Beats, Beats, Beats] = [0, 0, 0, 0, 0];
  let [lowest, highest] = [Infinity, -Infinity];
  const sounded = new Set<PitchClass>();
  for (const judged of notes) {
    if (!isCounted(judged)) continue;
    add(judged, () => whole);
    for (const span of judged.note.spans) beatsAtHeight[span.height] += span.beats;
    sounded.add(judged.voice.pc);
    lowest = Math.min(lowest, judged.voice.pitch);
    highest = Math.max(highest, judged.voice.pitch);
  }
  const contexts = [scene.contexts, ...scene.contextsByChorus.values()].flat();
  const home = [...new Set(contexts.flatMap((context) => context.home.pcs))];
  return {
    count: whole.count,
    byInterval: whole.counts,
    beatsAtHeight,
    homeUsed: home.filter((pc) => sounded.has(pc)),
    homeUnused: home.filter((pc) => !sounded.has(pc)),
    range: Number.isFinite(lowest) ? { lowest, highest } : null,
  };
}
