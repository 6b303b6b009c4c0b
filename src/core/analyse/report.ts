import type { Beats, BeatsPerMinute } from '../vocabulary';
import type { IntervalName } from '../music';
import { beatsPerBar, changesOf, harmonyOf, placeOf, soundingAt, timelineOf, type Chart, type Timeline } from '../chart';
import { cellAt, planOf, type Plan, type PlanChoice } from '../plan';
import { belongingsOf, soundingFor, type Scene } from './belonging';
import { coverageOf, type ChordCoverage } from './coverage';
import { hear, type Heard } from './events';
import { byMember, Walk, type Figure, type FigureKind } from './figures';
import { deedsOf, type Deed } from './functions';
import { baseTier, groundsOf, isChromatic, neutralInterval, printedInterval, voiceTier, type Ground } from './ground';
import { lineBetween } from './lineBetween';
import { landingsOf, type ChangeReport } from './landings';
import { mutedBandOf, type MutedBand } from './mutedBand';
import type { JudgedNote, NoteReport } from './noteReport';
import { arcOf, type ChorusArc } from './arc';
import { lineShapeOf, type LineReport } from './lineShape';
import { phrasesOf, type Phrase } from './phrases';
import { placesLost, type LostPlace } from './place';
import type { PlayedNote } from './played';
import { shapesOf, type ShapeKind } from './shapes';
import { spansOf, type LaidSpan } from './spans';
import { stepOutsOf, type StepOut } from './stepOuts';
import { timingOf, type TimeReport } from './timing';
import { HEIGHT, isLinked, type Belonging, type Flag, type Tier, type Voice } from './voice';
import { EPSILON, windowsAt } from './windows';

/** Raised whenever the same notes would get another report: stored reports of older engines are made anew. */
export const ENGINE_VERSION = 2;

export type EventReport = { readonly index: number; readonly onsetBeat: Beats; readonly noteIndices: readonly number[]; readonly kind: 'single' | 'dyad' | 'chord' };
export type FigureReport = { readonly kind: FigureKind; readonly noteIndices: readonly number[]; readonly targetIndex: number; readonly resolved: true };
export type ShapeReport = { readonly kind: ShapeKind; readonly noteIndices: readonly number[]; readonly name: string; readonly relation?: IntervalName };

export type Summary = {
  readonly notes: number; readonly choruses: number; readonly changes: number;
  /** Changes with something sounding near them, and how many of those landed on a target or reached one late. */
  readonly judgedChanges: number; readonly targetsMet: number; readonly targetsMetLate: number;
};

export type Report = {
  readonly schema: 'idle-wander/report@1';
  readonly notes: readonly NoteReport[];
  readonly events: readonly EventReport[];
  readonly figures: readonly FigureReport[];
  readonly shapes: readonly ShapeReport[];
  readonly changes: readonly ChangeReport[];
  readonly coverage: readonly ChordCoverage[];
  readonly phrases: readonly Phrase[];
  readonly stepOuts: readonly StepOut[];
  readonly place: readonly LostPlace[];
  readonly time: TimeReport;
  readonly line: LineReport;
  readonly arc: readonly ChorusArc[];
  readonly mutedBand: MutedBand;
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
  const { deeds, figures } = deedsOf(walk, (place) => targetsAt(plan, belongings[place]!).includes(scene.line[place]!.pc));
  const changes = landingsOf({ scene, events: heard.events, voices: heard.voices, belongings, plan });
  const phrases = phrasesOf(scene, heard.events, belongings);
  const noteSpans: LaidSpan[][] = [];
  const context: Context = { scene, plan, heard, belongings, deeds, figures: byMember(figures), walk, pickups: pickupTargets(scene, heard, changes, phrases), until: choruses * timeline.formBeats };
  const noteReports = heard.voices.map((voice) => noteReport(context, voice, noteSpans));
  const indexOf = (place: number) => scene.line[place]!.index;
  return {
    schema: 'idle-wander/report@1', notes: noteReports.map(({ pitch: _pitch, homeStart: _homeStart, ...note }) => note), events: heard.events.map(eventReport),
    figures: figures.map(({ kind, members, target }) => ({ kind, noteIndices: members.map(indexOf), targetIndex: indexOf(target), resolved: true })),
    shapes: shapesOf(walk).map(({ places, ...shape }) => ({ ...shape, noteIndices: places.map(indexOf) })),
    changes, coverage: coverageOf(scene, plan, noteReports, noteSpans), phrases, stepOuts: stepOutsOf(walk, deeds),
    place: placesLost(scene, choruses), time: timingOf(scene, heard.events), line: lineShapeOf(scene), arc: arcOf(scene, noteReports, choruses), mutedBand: mutedBandOf(scene, noteReports, changes, choruses),
    summary: summaryOf(noteReports, changes, choruses, (change, note) => cellAt(plan, soundingAt(timeline, change.beat).stretch.index, change.chorus - 1).targets.includes(note.pitch % 12)),
  };
}

/** The form repeats until the last onset. */
const chorusesOf = (timeline: Timeline, { line }: Heard): number =>
  Math.max(1, Math.floor(((line[line.length - 1]?.onset ?? 0) + EPSILON) / timeline.formBeats) + 1);

const targetsAt = (plan: Plan, belonging: Belonging) => cellAt(plan, belonging.sounding.stretch.index, belonging.sounding.chorus).targets;

type Context = {
  readonly scene: Scene; readonly plan: Plan; readonly heard: Heard; readonly belongings: readonly Belonging[]; readonly deeds: readonly Deed[];
  readonly figures: ReadonlyMap<number, readonly Figure[]>; readonly walk: Walk; readonly pickups: ReadonlySet<number>; readonly until: Beats;
};

/** Targets that make their figure a pickup: in the event that landed on the change, or on beat 1 of the phrase's first full bar. Note indices. */
function pickupTargets({ timeline, line, windows }: Scene, { voices }: Heard, changes: readonly ChangeReport[], phrases: readonly Phrase[]): Set<number> {
  const found = new Set(changes.filter(({ landing }) => landing.timing === 'on').map(({ landing }) => line[voices[landing.noteIndex!]!.event]!.index));
  for (const { startBeat, noteIndices } of phrases) {
    const bar = firstFullBar(timeline, startBeat, windows.on);
    const first = lineBetween(line, Math.max(startBeat, bar - windows.on) - EPSILON, bar + windows.on + EPSILON)[0];
    if (first && noteIndices.includes(first.index)) found.add(first.index);
  }
  return found;
}

function firstFullBar(timeline: Timeline, start: Beats, window: Beats): Beats {
  const length = beatsPerBar(timeline.bars[0]!.meter);
  if (start < window) return Math.min(0, Math.ceil((start - window) / length - EPSILON) * length);
  const { bar, chorus } = placeOf(timeline, start - window);
  return chorus * timeline.formBeats + timeline.bars[bar]!.end;
}

function noteReport(context: Context, voice: Voice, noteSpans: LaidSpan[][]): JudgedNote {
  const { scene, plan, belongings } = context;
  const belonging = voice.grace ? lentBelonging(context, voice) : belongings[voice.event]!;
  const ground = scene.grounds[belonging.sounding.stretch.index]!;
  const deed = deedOf(context, voice, ground, belonging);
  const blue = isBlue(ground, voice);
  const tier: Tier = blue && HEIGHT[deed.tier] > 2 ? 'scale' : deed.tier;
  const spans = spansOf(scene, voice, belonging, HEIGHT[tier], context.until);
  noteSpans.push(spans);
  const target = deed.target === undefined ? undefined : scene.line[deed.target]!.index;
  return {
    index: voice.index, onsetBeat: voice.onset, durationBeats: voice.end - voice.onset, midi: voice.played.midi, event: voice.event, top: voice.top,
    chord: belonging.chord?.symbol ?? null, interval: printedInterval(ground, voice), tier, height: HEIGHT[tier],
    inPlan: cellAt(plan, belonging.sounding.stretch.index, belonging.sounding.chorus).material.includes(voice.pc), function: deed.name,
    ...(isChromatic(ground, voice.pc) ? { chromatic: true } : {}), ...(deed.appoggiatura ? { appoggiatura: true } : {}),
    ...(voice.from === undefined ? {} : { from: voice.from }), flags: flagsOf(context, voice, belonging, deed, blue),
    ...(target === undefined ? {} : { targetIndex: target }),
    spans: spans.map(({ chord, interval, height, beats }) => ({ chord, interval, height, beats })),
    pitch: voice.pitch, homeStart: belonging.sounding.start,
  };
}

/** A grace belongs where the note it leads to belongs. */
const lentBelonging = ({ scene, belongings }: Context, voice: Voice): Belonging =>
  belongings[voice.event] ?? { sounding: soundingFor(scene, voice.onset), chord: null, anticipates: false, leadIn: false };

/** Inner voices and graces are named by their tier alone: they are no part of the line. */
function deedOf({ deeds, plan }: Context, voice: Voice, ground: Ground, belonging: Belonging): Deed {
  if (voice.top) return deeds[voice.event]!;
  const base = voiceTier(ground, voice);
  if (voice.grace) return { name: 'grace', tier: base === 'outside' ? 'approach' : base };
  if (base !== 'chord') return { name: base, tier: base };
  return { name: targetsAt(plan, belonging).includes(voice.pc) ? 'target' : 'chord-tone', tier: 'chord' };
}

/** ♭3, ♭5 or ♭7 of the key on a blues against a chord whose own tone lies a semitone higher; anywhere, a neutral pitch. */
function isBlue(ground: Ground, voice: Voice): boolean {
  if (neutralInterval(ground, voice) !== null) return true;
  const bluesy = ground.home.kind === 'blues';
  const step = (voice.pc - ground.tonic + 12) % 12;
  if (!bluesy || !ground.chord || ![3, 6, 10].includes(step) || baseTier(ground, voice.pc) === 'chord') return false;
  return ground.chord.tones.some((tone) => ['third', 'fifth', 'seventh'].includes(tone.role) && tone.pc === (voice.pc + 1) % 12);
}

function flagsOf(context: Context, voice: Voice, belonging: Belonging, deed: Deed, blue: boolean): Flag[] {
  const flags: Flag[] = [];
  const { scene, figures, pickups } = context;
  const place = voice.event;
  const own = voice.top ? (figures.get(place) ?? []) : [];
  if (blue) flags.push('blue');
  if (voice.played.slide) flags.push('slide');
  if (voice.played.bend) flags.push('bend');
  if (own.some((figure) => pickups.has(scene.line[figure.target]!.index))) flags.push('pickup');
  if (voice.top && belonging.leadIn) flags.push('lead-in');
  if (voice.top && (own.length > 0 || resolves(context, place, deed))) flags.push('resolved');
  return flags;
}

/** A non-chord tone whose next linked note is a chord tone at most 2 semitones away. */
function resolves({ walk, scene }: Context, place: number, deed: Deed): boolean {
  const next = scene.line[place + 1];
  if (deed.tier === 'chord' || !next || !isLinked(scene.line[place], next)) return false;
  return walk.isChordTone(place + 1) && Math.abs(walk.step(place, place + 1)) <= 2;
}

const eventReport = ({ index, onset, voices }: Heard['events'][number]): EventReport => ({
  index, onsetBeat: onset, noteIndices: voices.map((voice) => voice.index).sort((a, b) => a - b),
  kind: voices.length === 1 ? 'single' : voices.length === 2 ? 'dyad' : 'chord',
});

function summaryOf(notes: readonly JudgedNote[], changes: readonly ChangeReport[], choruses: number, isTarget: (change: ChangeReport, note: JudgedNote) => boolean): Summary {
  const judged = changes.filter(({ landing }) => !landing.rest);
  const late = judged.filter((change) => change.landing.verdict !== 'target' && change.landing.resolutionIndex !== undefined && isTarget(change, notes[change.landing.resolutionIndex]!));
  return {
    notes: notes.length, choruses, changes: changes.length, judgedChanges: judged.length,
    targetsMet: judged.filter(({ landing }) => landing.verdict === 'target').length, targetsMetLate: late.length,
  };
}

