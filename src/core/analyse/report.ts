import { lazily, once, type Beats, type BeatsPerMinute, defined } from '../shared';
import type { IntervalName } from '../music';
import { changesOf, type Chart, type Harmony, type Timeline } from '../chart';
import { cellAt, planOn, type PlanChoice } from '../plan';
import { answersOf } from './phrases/answers';
import { tensionCurveOf, type ChorusCurve } from './statistics/tensionCurve';
import { assignChords, contextAt, type AnalysisScene } from './harmonicContext/chordAssignment';
import { coverageOf, type ChordCoverage } from './statistics/coverage';
import {
  coverageByFunction,
  coverageOverall,
  type FunctionCoverage,
  type WholeCoverage,
} from './statistics/coverageWhole';
import { missedResolutionsOf, type MissedResolution } from './changes/missedResolutions';
import type { NoteEvents } from './notes/events';
import { byMember, Walk, type FigureKind } from './noteFunctions/figures';
import { noteFunctionsOf } from './noteFunctions/functions';
import { harmonicContextsOf } from './harmonicContext/harmonicContext';
import { handoversOf, type BarReport, type Handover } from './impliedHarmony/handovers';
import { hitFitOf, type HitFit } from './impliedHarmony/hitFit';
import { hitName } from './impliedHarmony/hitNames';
import { judgeNote, type NoteContext } from './noteFunctions/judgedNotes';
import { landingsOf, type ChangeReport } from './changes/landings';
import { excused } from './changes/settling';
import { lineShapeOf, type LineReport } from './statistics/lineShape';
import { mutedBandOf, type HeardBy, type MutedBand } from './impliedHarmony/mutedBand';
import type { NoteReport } from './noteFunctions/noteReport';
import { phrasesOf, type Phrase } from './phrases/phrases';
import { pickupTargets } from './noteFunctions/pickups';
import { placesLost, type LostPlace } from './statistics/placeInForm';
import type { PlayedNote } from './notes/played';
import { shapesOf, type ShapeKind } from './noteFunctions/shapes';
import { outRuns, stepOutsOf, type StepOut } from './noteFunctions/stepOuts';
import { summaryOf, type Summary } from './statistics/summary';
import { thirdsPalette, type ThirdHeard } from './statistics/thirds';
import { thirdGlides } from './noteFunctions/thirdGlides';
import { timingOf, type TimeReport } from './statistics/timing';
import { onForm } from './onForm';
import { turningsOf, type Turning } from './changes/turnings';
import { pitchesIn, type ChordAssignment } from './notes/voice';

/**
 * Raised whenever the same notes would get another report, or what is kept beside it another shape: what older
 * engines stored is made anew.
 */
export const ENGINE_VERSION = 14;

export type EventReport = {
  readonly index: number;
  readonly onsetBeat: Beats;
  readonly noteIndices: readonly number[];
  readonly kind: 'single' | 'dyad' | 'chord';
  readonly name?: string;
  /** Of a chord hit over a chord: is it the chart's chord, a substitute for it (`as`), or another one? */
  readonly fit?: HitFit;
  readonly as?: string;
};
export type FigureReport = {
  readonly kind: FigureKind;
  readonly noteIndices: readonly number[];
  readonly targetIndex: number;
  readonly resolved: true;
};
export type ShapeReport = {
  readonly kind: ShapeKind;
  readonly noteIndices: readonly number[];
  readonly name: string;
  readonly relation?: IntervalName;
};

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
  readonly arc: readonly ChorusCurve[];
  readonly mutedBand: MutedBand;
  readonly heardBy: HeardBy;
  readonly turnings: readonly Turning[];
  readonly missedDoors: readonly MissedResolution[];
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
  /** Was the device's latency measured, so that what lies off the grid is the player's own? */
  readonly isLatencyMeasured?: boolean | undefined;
  /** The take's lean in ms, where it is known; estimated where not (T1.6). */
  readonly leanMs?: number | undefined;
};

/**
 * Notes held against the chords: the report of docs/architecture.md.
 * Pure: the same request gives the same report; the plan changes verdicts, `inPlan`, targets and `missing`,
 * never a height; its home scale stands beside the chords like the chart's own (T6.1).
 * @example
 * analyse({
 *   chart: unwrap(readChart('| G7 | Cmaj7 |')),
 *   tempo: 120,
 *   plan: { id: 'outline' },
 *   notes: [{ onsetBeat: 4, durationBeats: 1, midi: 64 }],
 * }).changes[0].landing.interval // '3'
 */
export function analyse(request: AnalysisRequest): Report {
  const groundwork = layGroundwork(request);
  const { timeline, plan, scene, events, assignments, walk, functions, figures, changes, phrases } =
    groundwork;
  const { notesJudged, choruses } = groundwork;
  const noteReports = notesJudged.map(({ note }) => note);
  const indexOf = (place: number) => defined(scene.line[place]).index;
  const figureReports = [
    ...figures.map(({ kind, members, target }): FigureReport => ({
      kind,
      noteIndices: members.map(indexOf),
      targetIndex: indexOf(target),
      resolved: true,
    })),
    ...thirdGlides(scene, notesJudged).map((glide): FigureReport => ({
      ...glide,
      kind: 'minor-to-major-third',
      resolved: true,
    })),
  ];
  const heightsInLine = () => scene.line.map(({ index }) => defined(noteReports[index]).height);
  const muted = once(() => mutedBandOf(scene, notesJudged, changes, choruses));
  const handed = once(() => handoversOf(scene, events, assignments, choruses));
  // notes, figures and landings are what every screen draws; the rest is worked out for the board that shows it
  return lazily<Report>({
    schema: () => 'idle-wander/report@1',
    notes: () => noteReports,
    events: () => events.map((event) => eventReport(event, defined(assignments[event.index]), groundwork)),
    figures: () => figureReports,
    shapes: () =>
      shapesOf(walk, walk.moved).map(({ places, ...shape }) => ({
        ...shape,
        noteIndices: places.map(indexOf),
      })),
    changes: () => changes,
    coverage: () => coverageOf(scene, plan, notesJudged),
    coverageByFunction: () => coverageByFunction(scene, notesJudged),
    coverageOverall: () => coverageOverall(scene, notesJudged),
    phrases: () => answering(phrases, timeline),
    stepOuts: () => stepOutsOf(walk, functions, heightsInLine(), walk.moved),
    place: () => placesLost(scene, events, choruses),
    time: () => timingOf(scene, events, groundwork.lean),
    line: () => lineShapeOf(scene),
    arc: () => tensionCurveOf(scene, notesJudged, choruses),
    mutedBand: () => muted().mutedBand,
    heardBy: () => muted().heardBy,
    turnings: () => turningsOf(changes),
    missedDoors: () => missedResolutionsOf(groundwork.judged, changes),
    thirds: () => thirdsPalette(scene, notesJudged),
    bars: () => handed().bars,
    handovers: () => handed().handovers,
    summary: () => summaryOf(timeline, plan, notesJudged, changes, figureReports, choruses),
  });
}

/** What every part of the report is made of: notes in groups, chords under them, functions, landings, phrases. */
function layGroundwork(request: AnalysisRequest) {
  const { timeline, lean, plan, harmony, heard, choruses, scene } = sceneOf(request);
  const assignments = assignChords(scene, heard.events);
  const walk = new Walk(scene, assignments);
  const { functions, figures } = noteFunctionsOf(walk, (place) => {
    const { span, chorus } = defined(assignments[place]).sounding;
    return cellAt(plan, span.index, chorus).targets.includes(defined(scene.line[place]).pc);
  });
  const phrases = phrasesOf(scene, heard.events, assignments);
  const judged = {
    scene,
    events: heard.events,
    voices: heard.voices,
    assignments,
    plan,
    phrases,
    figures: byMember(figures),
  };
  const landed = landingsOf(judged);
  const context: NoteContext = {
    scene,
    plan,
    heard,
    assignments,
    functions,
    figures: judged.figures,
    walk,
    pickups: pickupTargets(scene, heard, landed, phrases),
    until: choruses * timeline.formBeats,
    lean,
  };
  const notesJudged = heard.voices.map((voice) => judgeNote(context, voice));
  const heightsOf = () => scene.line.map(({ index }) => defined(notesJudged[index]).note.height);
  const changes =
    plan.id === 'step-out'
      ? excused(landed, scene, outRuns(walk, functions, heightsOf(), walk.moved))
      : landed;
  const { events } = heard;
  return {
    timeline,
    plan,
    harmony,
    scene,
    events,
    assignments,
    walk,
    functions,
    figures,
    judged,
    changes,
    phrases,
    notesJudged,
    choruses,
    lean,
  };
}

/** The notes in groups, without their lean, over the form with its harmony. */
function sceneOf(request: AnalysisRequest) {
  const { chart, plan: choice } = request;
  const { timeline, lean, windows, heard, choruses } = onForm(request);
  const { plan, harmony } = planOn(chart, timeline, choice);
  const scene: AnalysisScene = {
    timeline,
    windows,
    line: heard.line,
    contexts: harmonicContextsOf(timeline, harmony),
    contextsByChorus: new Map(
      [...plan.homesByChorus].map(([chorus, homeScales]) => [
        chorus,
        harmonicContextsOf(timeline, { ...harmony, homeScales }),
      ]),
    ),
    changes: changesOf(timeline, choruses),
  };
  return { timeline, lean, plan, harmony, heard, choruses, scene };
}

/** Phrases with the one each answers. */
function answering(phrases: readonly Phrase[], timeline: Timeline): Phrase[] {
  const answers = answersOf(phrases, timeline);
  return phrases.map((phrase, index) => {
    const question = answers[index] ?? null;
    return question === null ? phrase : { ...phrase, answers: question };
  });
}

function eventReport(
  event: NoteEvents['events'][number],
  { chord, sounding }: ChordAssignment,
  { scene, harmony }: { readonly scene: AnalysisScene; readonly harmony: Harmony },
): EventReport {
  const { index, onset, voices } = event;
  const pitches = pitchesIn(event);
  let kind: 'single' | 'dyad' | 'chord';
  if (pitches === 1) kind = 'single';
  else if (pitches === 2) kind = 'dyad';
  else kind = 'chord';
  const context = contextAt(scene, sounding.span.index, sounding.chorus);
  const name = kind === 'chord' ? hitName(event, chord, context.keyScale) : null;
  const fitted = kind === 'chord' ? hitFitOf(event, context, harmony) : null;
  return {
    index,
    onsetBeat: onset,
    noteIndices:
      voices.length === 1
        ? [defined(voices[0]).index]
        : voices.map((voice) => voice.index).sort((a, b) => a - b),
    kind,
    ...(name === null ? {} : { name }),
    ...fitted,
  };
}
