import { isOnBeat, chorusAt } from '../../chart';
import { type Beats, type PitchClass, present, defined } from '../../shared';
import type { ChangeReport } from '../changes/landings';
import type { AnalysisScene } from '../harmonicContext/chordAssignment';
import type { HarmonicContext } from '../harmonicContext/harmonicContext';
import type { JudgedNote, NoteReport } from '../noteFunctions/noteReport';
import { firstWhere } from '../notes/lineBetween';
import { EPSILON } from '../notes/windows';
import { candidatesOf, isFamily, judge, round, type ChordCandidate } from './chordScores';

export type Segment = {
  readonly beat: Beats;
  readonly chord: string;
  readonly verdict: 'heard' | 'unclear' | 'not-heard' | 'silent';
  readonly best: string;
  readonly margin: number;
  /** The chord the line itself spells here, or its notes where they are fewer than three. */
  readonly said?: string;
};

/**
 * The same by chorus (from 1) and by kind of change into the chord, and for each segment the notes that
 * decided, the weightiest first. Silent segments are left out of counts.
 */
export type HeardBy = {
  readonly byChorus: readonly { readonly chorus: number; readonly heard: number; readonly of: number }[];
  readonly byChange: readonly { readonly change: string; readonly heard: number; readonly of: number }[];
  readonly decidedBy: readonly (readonly number[])[];
};

export type MutedBand = {
  readonly share: number | null;
  readonly chance: number;
  readonly segments: readonly Segment[];
};

/**
 * With the band muted, could the chords be told apart from the line alone?
 * Rule T12.2: Per run of one symbol inside a chorus … Score = Σ weight·gain / Σ weight. `heard` if the true
 * chord beats the best outside its family
 * (0 if none) by ≥ 0.05; within ±0.05 `unclear` (not counted as heard); total weight under 0.5 `silent`,
 * left out; else `not-heard`.
 * @param choruses how often the form was played
 */
export function mutedBandOf(
  scene: AnalysisScene,
  notes: readonly JudgedNote[],
  changes: readonly ChangeReport[],
  choruses: number,
): { readonly mutedBand: MutedBand; readonly heardBy: HeardBy } {
  const candidates = candidatesOf(scene.contexts);
  const landedAt = new Map(changes.map((change) => [beatKey(change.beat), change.landing.noteIndex]));
  const longest = notes.reduce((most, { note }) => Math.max(most, note.durationBeats), 0);
  const from = (beat: Beats) =>
    firstWhere(notes.length, (place) => defined(notes[place]).note.onsetBeat >= beat);
  const around = (run: SymbolRun) => notes.slice(from(run.start - longest), from(run.end));
  const outside = new Map<string, readonly ChordCandidate[]>();
  for (const { chord } of scene.contexts)
    if (chord && !outside.has(chord.symbol))
      outside.set(
        chord.symbol,
        candidates.filter((one) => one.symbol !== chord.symbol && !isFamily(chord, one)),
      );
  const weighed = runsOf(scene, choruses).map((run) => ({
    run,
    weights: weigh(scene, run, around(run), landedAt.get(beatKey(run.start)) ?? null),
  }));
  const segments = weighed.map(({ run, weights }) =>
    judge(run, toldBy(weights), present(outside.get(present(run.context.chord).symbol))),
  );
  const counted = segments.filter((segment) => segment.verdict !== 'silent');
  const heard = counted.filter((segment) => segment.verdict === 'heard').length;
  return {
    mutedBand: {
      share: counted.length ? round(heard / counted.length) : null,
      chance: candidates.length ? round(1 / candidates.length) : 0,
      segments,
    },
    heardBy: {
      ...counts(counted, changes, scene.timeline.formBeats),
      decidedBy: weighed.map(({ weights }) => decided(weights)),
    },
  };
}

const MOST_DECIDING = 4;
const decided = (weights: readonly Weight[]): number[] =>
  [...weights]
    .sort((a, b) => b.weight - a.weight)
    .slice(0, MOST_DECIDING)
    .map(({ index }) => index);

function counts(
  segments: readonly Segment[],
  changes: readonly ChangeReport[],
  formBeats: Beats,
): Omit<HeardBy, 'decidedBy'> {
  const kinds = new Map(changes.map((change) => [beatKey(change.beat), `${change.from}→${change.to}`]));
  const tally = <K>(keyOf: (segment: Segment) => K | undefined) => {
    const found = new Map<K, { heard: number; of: number }>();
    for (const segment of segments) {
      const key = keyOf(segment);
      if (key === undefined) continue;
      const cell = found.get(key) ?? { heard: 0, of: 0 };
      found.set(key, { heard: cell.heard + (segment.verdict === 'heard' ? 1 : 0), of: cell.of + 1 });
    }
    return [...found];
  };
  return {
    byChorus: tally(({ beat }) => chorusAt({ formBeats }, beat + EPSILON) + 1).map(([chorus, cell]) => ({
      chorus,
      ...cell,
    })),
    byChange: tally(({ beat }) => kinds.get(beatKey(beat))).map(([change, cell]) => ({ change, ...cell })),
  };
}

/** Change and run begin at the same beat, but for rounding. */
const beatKey = (beat: Beats): number => Math.round(beat * 1e4);

export type SymbolRun = { readonly context: HarmonicContext; readonly start: Beats; readonly end: Beats };

function runsOf(scene: AnalysisScene, choruses: number): SymbolRun[] {
  const runs: SymbolRun[] = [];
  for (let chorus = 0; chorus < choruses; chorus++) {
    let previous: string | null = null;
    for (const ground of scene.contextsByChorus.get(chorus) ?? scene.contexts) {
      const offset = chorus * scene.timeline.formBeats;
      const [start, end] = [ground.span.start + offset, ground.span.end + offset];
      const symbol = ground.chord?.symbol ?? null;
      if (symbol !== null && symbol === previous)
        runs[runs.length - 1] = { ...defined(runs[runs.length - 1]), end };
      else if (symbol !== null) runs.push({ context: ground, start, end });
      previous = symbol;
    }
  }
  return runs;
}

type Weight = { readonly index: number; readonly pc: PitchClass; readonly weight: number };

/**
 * Rule T12.1: Weight = min(beats inside, 1) × (1 on a beat, else 0.6) × (1.5 the landing, 0.6 carried in, else
 * 1). A note weighs by its beats inside; more on a beat and as the landing of this chord (a held one too),
 * less when carried in.
 */
function weigh(
  scene: AnalysisScene,
  run: SymbolRun,
  notes: readonly JudgedNote[],
  landed: number | null,
): Weight[] {
  const weights: Weight[] = [];
  for (const { note, voice, homeStart } of notes) {
    const end = note.onsetBeat + note.durationBeats;
    const inside = Math.min(end, run.end) - Math.max(note.onsetBeat, run.start);
    if (inside <= EPSILON || isLeftOut(note)) continue;
    const belongs = homeStart >= run.start - EPSILON && homeStart < run.end - EPSILON;
    if (!belongs && homeStart > run.start) continue; // an anticipation or lead-in never weighs in the chord it leaves
    const beat = isOnBeat(note.onsetBeat, scene.windows.on) ? 1 : 0.6;
    let place: 1.5 | 1 | 0.6;
    if (landed === note.index) place = 1.5;
    else if (belongs) place = 1;
    else place = 0.6;
    weights.push({ index: note.index, pc: voice.pc, weight: Math.min(inside, 1) * beat * place });
  }
  return weights;
}

/**
 * Non-chord tones in resolved figures, passing and neighbour notes, graces and blue notes say nothing of the
 * chord.
 */
function isLeftOut(note: NoteReport): boolean {
  if (note.function === 'grace' || note.flags.includes('blue')) return true;
  if (note.tier === 'chord') return false;
  return note.function === 'passing' || note.function === 'neighbour' || note.targetIndex !== undefined;
}

/** Weights summed by pitch class: all that scoring asks for. */
export type Told = { readonly byPc: readonly number[]; readonly total: number };

function toldBy(weights: readonly Weight[]): Told {
  const byPc = new Array<number>(12).fill(0);
  let total = 0;
  for (const { pc, weight } of weights) {
    byPc[pc]! += weight;
    total += weight;
  }
  return { byPc, total };
}
