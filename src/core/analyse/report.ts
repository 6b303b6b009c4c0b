import type { Beats, BeatsPerMinute } from '../vocabulary';
import type { IntervalName } from '../music';
import { changesOf, harmonyOf, timelineOf, type Chart, type Timeline } from '../chart';
import { cellAt, planOf, type PlanChoice } from '../plan';
import { answersOf } from './answers';
import { arcOf, type ChorusArc } from './arc';
import { belongingsOf, type Scene } from './belonging';
import { coverageOf, type ChordCoverage } from './coverage';
import { coverageByFunction, coverageOverall, type FunctionCoverage, type WholeCoverage } from './coverageWhole';
import { missedDoors, type MissedDoor } from './doors';
import { hear, type Heard } from './events';
import { byMember, Walk, type FigureKind } from './figures';
import { deedsOf } from './functions';
import { groundsOf } from './ground';
import { handoversOf, type BarReport, type Handover } from './handovers';
import { hitName } from './hitNames';
import { judgeNote, type NoteContext } from './judgedNotes';
import { landingsOf, type ChangeReport } from './landings';
import { lineShapeOf, type LineReport } from './lineShape';
import { movedShapesOf } from './movedShapes';
import { mutedBandOf, type HeardBy, type MutedBand } from './mutedBand';
import type { NoteReport } from './noteReport';
import { phrasesOf, type Phrase } from './phrases';
import { pickupTargets } from './pickups';
import { placesLost, type LostPlace } from './place';
import type { PlayedNote } from './played';
import { shapesOf, type ShapeKind } from './shapes';
import { stepOutsOf, type StepOut } from './stepOuts';
import { summaryOf, type Summary } from './summary';
import { thirdsPalette, type ThirdHeard } from './thirds';
import { timingOf, type TimeReport } from './timing';
import { turningsOf, type Turning } from './turnings';
import { pitchesIn, type Belonging } from './voice';
import { EPSILON, windowsAt } from './windows';

/** Raised whenever the same notes would get another report: stored reports of older engines are made anew. */
export const ENGINE_VERSION = 3;

export type EventReport = { readonly index: number; readonly onsetBeat: Beats; readonly noteIndices: readonly number[]; readonly kind: 'single' | 'dyad' | 'chord'; readonly name?: string };
export type FigureReport = { readonly kind: FigureKind; readonly noteIndices: readonly number[]; readonly targetIndex: number; readonly resolved: true };
export type ShapeReport = { readonly kind: ShapeKind; readonly noteIndices: readonly number[]; readonly name: string; readonly relation?: IntervalName };

export type Report = {
  readonly schema: 'idle-wander/report@1';
  readonly notes: readonly NoteReport[];
  readonly events: readonly EventReport[];
  readonly figures: readonly FigureReport[];
  readonly shapes: readonly ShapeReport[];
  readonly changes: readonly ChangeReport[];
  readonly coverage: readonly ChordCoverage[];
  /** The same by Roman numeral, and of the whole take. */
  readonly coverageByFunction: readonly FunctionCoverage[];
  readonly coverageOverall: WholeCoverage;
  readonly phrases: readonly Phrase[];
  readonly stepOuts: readonly StepOut[];
  readonly place: readonly LostPlace[];
  readonly time: TimeReport;
  readonly line: LineReport;
  readonly arc: readonly ChorusArc[];
  readonly mutedBand: MutedBand;
  readonly heardBy: HeardBy;
  readonly turnings: readonly Turning[];
  readonly missedDoors: readonly MissedDoor[];
  readonly thirds: readonly ThirdHeard[];
  readonly bars: readonly BarReport[];
  readonly handovers: readonly Handover[];
  readonly summary: Summary;
};

export type AnalysisRequest = {
  readonly chart: Chart;
  readonly tempo: BeatsPerMinute;
  readonly notes: readonly PlayedNote[];
  readonly plan: PlanChoice;
  /** How often the form was played; by default until the last onset. */
  readonly choruses?: number | undefined;
};

/**
 * Notes held against the chords: the report of 4-architecture.
 * Pure: the same request gives the same report; the plan changes verdicts, `inPlan`, targets and `missing`, never a height.
 */
export function analyse({ chart, tempo, notes, plan: choice, choruses: given }: AnalysisRequest): Report {
  const timeline = timelineOf(chart, tempo);
  const harmony = harmonyOf(chart, timeline);
  const windows = windowsAt(tempo);
  const plan = planOf(choice, harmony, timeline);
  // where the number of choruses is told, what begins after the last one is no part of the take
  const inside = given === undefined ? notes : notes.filter((note) => note.onsetBeat + windows.tol < given * timeline.formBeats);
  const heard = hear(inside, tempo, windows);
  const choruses = given ?? chorusesOf(timeline, heard);
  const scene: Scene = { timeline, windows, line: heard.line, grounds: groundsOf(timeline, harmony), changes: changesOf(timeline, choruses) };
  const belongings = belongingsOf(scene, heard.events);
  const walk = new Walk(scene, belongings);
  const { deeds, figures } = deedsOf(walk, (place) => cellAt(plan, belongings[place]!.sounding.stretch.index, belongings[place]!.sounding.chorus).targets.includes(scene.line[place]!.pc));
  const judged = { scene, events: heard.events, voices: heard.voices, belongings, plan };
  const changes = landingsOf(judged);
  const phrases = phrasesOf(scene, heard.events, belongings);
  const answers = answersOf(phrases, timeline);
  const context: NoteContext = { scene, plan, heard, belongings, deeds, figures: byMember(figures), walk, pickups: pickupTargets(scene, heard, changes, phrases), until: choruses * timeline.formBeats };
  const notesJudged = heard.voices.map((voice) => judgeNote(context, voice));
  const noteReports = notesJudged.map(({ note }) => note);
  const moved = movedShapesOf(scene.line);
  const heights = scene.line.map(({ index }) => noteReports[index]!.height);
  const indexOf = (place: number) => scene.line[place]!.index;
  return {
    schema: 'idle-wander/report@1', notes: noteReports, events: heard.events.map((event) => eventReport(event, belongings[event.index]!)),
    figures: figures.map(({ kind, members, target }) => ({ kind, noteIndices: members.map(indexOf), targetIndex: indexOf(target), resolved: true })),
    shapes: shapesOf(walk, moved).map(({ places, ...shape }) => ({ ...shape, noteIndices: places.map(indexOf) })),
    changes, coverage: coverageOf(scene, plan, notesJudged), coverageByFunction: coverageByFunction(scene, notesJudged), coverageOverall: coverageOverall(scene, notesJudged),
    phrases: phrases.map((phrase, index) => (answers[index] === null ? phrase : { ...phrase, answers: answers[index]! })), stepOuts: stepOutsOf(walk, deeds, heights, moved),
    place: placesLost(scene, heard.events, choruses), time: timingOf(scene, heard.events), line: lineShapeOf(scene), arc: arcOf(scene, noteReports, choruses), ...mutedBandOf(scene, notesJudged, changes, choruses), turnings: turningsOf(changes),
    missedDoors: missedDoors(judged, changes), thirds: thirdsPalette(scene, notesJudged), ...handoversOf(scene, heard.events, choruses), summary: summaryOf(timeline, plan, notesJudged, changes, choruses),
  };
}

/** The form repeats until the last onset. */
const chorusesOf = (timeline: Timeline, { line }: Heard): number =>
  Math.max(1, Math.floor(((line[line.length - 1]?.onset ?? 0) + EPSILON) / timeline.formBeats) + 1);

function eventReport(event: Heard['events'][number], { chord }: Belonging): EventReport {
  const { index, onset, voices } = event;
  const pitches = pitchesIn(event);
  const kind = pitches === 1 ? 'single' : pitches === 2 ? 'dyad' : 'chord';
  const name = kind === 'chord' ? hitName(event, chord) : null;
  return { index, onsetBeat: onset, noteIndices: voices.length === 1 ? [voices[0]!.index] : voices.map((voice) => voice.index).sort((a, b) => a - b), kind, ...(name === null ? {} : { name }) };
}
