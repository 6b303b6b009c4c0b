import { isOnBeat, isOnStrongBeat, soundingAfter, chorusAt } from '../../chart';
import { hasTone, toneByRole } from '../../music';
import { cellAt, type Plan } from '../../plan';
import { isSlurred, type Beats, defined } from '../../shared';
import { EPSILON } from '../notes/windows';
import type { LeanEstimate } from '../time/lean';
import { contextAt, soundingFor, type AnalysisScene } from '../harmonicContext/chordAssignment';
import type { NoteEvents } from '../notes/events';
import type { Figure, Walk } from './figures';
import type { AssignedFunction } from './functions';
import {
  baseTier,
  isAlteration,
  isChromatic,
  neutralInterval,
  printedInterval,
  voiceTier,
  type HarmonicContext,
} from '../harmonicContext/harmonicContext';
import type { JudgedNote, NoteReport } from './noteReport';
import { spansOf } from '../harmonicContext/spans';
import {
  TENSION_LEVEL,
  isLinked,
  type ChordAssignment,
  type Flag,
  type NoteFunction,
  type Tier,
  type Voice,
} from '../notes/voice';

/**
 * What judging one note asks for. `pickups` are the notes that make their figure a pickup, `until` the beat
 * after the last chorus.
 */
export type NoteContext = {
  readonly scene: AnalysisScene;
  readonly plan: Plan;
  readonly heard: NoteEvents;
  readonly assignments: readonly ChordAssignment[];
  readonly functions: readonly AssignedFunction[];
  readonly figures: ReadonlyMap<number, readonly Figure[]>;
  readonly walk: Walk;
  readonly pickups: ReadonlySet<number>;
  readonly until: number;
  readonly lean: LeanEstimate;
};

type Mutable<T> = { -readonly [K in keyof T]: T[K] };

/**
 * One voice with its chord, interval, tier, height, function and flags.
 * Rule T6.1: Depend on note, chord and key alone, never on the plan … A `blue` note is never above 2.
 */
export function judgeNote(context: NoteContext, voice: Voice): JudgedNote {
  const { scene, assignments } = context;
  const assignment = voice.grace ? lentBelonging(context, voice) : defined(assignments[voice.event]);
  const { span, start, chorus } = assignment.sounding;
  const ground = contextAt(scene, span.index, chorus);
  const assigned = deedOf(context, voice, ground, assignment);
  const blue = isBlue(ground, voice);
  const isAltered = assigned.tier === 'outside' && isAlteration(ground, voice.pc);
  const flags = flagsOf(context, voice, assignment, assigned, blue, isAltered);
  const isRub = !blue && isRubbed(context, ground, voice, flags);
  const tier = isRub ? 'outside' : softened(assigned.tier, blue, isAltered);
  const { spans, chordSpans } = spansOf(scene, voice, assignment, TENSION_LEVEL[tier], context.until);
  const note: Mutable<NoteReport> = {
    index: voice.index,
    onsetBeat: voice.onset,
    durationBeats: voice.end - voice.onset,
    midi: voice.played.midi,
    event: voice.event,
    top: voice.top,
    chord: assignment.chord?.symbol ?? null,
    interval: printedInterval(ground, voice),
    tier,
    height: TENSION_LEVEL[tier],
    inPlan: isInPlan(context, voice, assignment),
    function: functionOf(assigned.name, isRub, isAltered),
    flags,
    spans,
  };
  if (voice.played.confidence !== undefined) note.confidence = voice.played.confidence;
  if (voice.played.position !== undefined) note.position = voice.played.position;
  const { attack } = voice.played;
  if (isSlurred(attack)) note.slur = attack;
  if (context.lean.lean.takenMs !== 0) note.playedBeat = voice.onset + leanAt(context, voice.onset);
  if (isChromatic(ground, voice.pc)) note.chromatic = true;
  if (assigned.appoggiatura) note.appoggiatura = true;
  if (voice.from !== undefined) note.from = voice.from;
  if (assigned.target !== undefined) note.targetIndex = defined(scene.line[assigned.target]).index;
  const isStrong = isOnStrongBeat(scene.timeline, voice.onset, scene.windows.on);
  return { note, voice, isStrong, homeStart: start, chordSpans };
}

/** The lean that was taken out of an onset, in beats. */
const leanAt = ({ lean, scene }: NoteContext, onset: Beats): Beats =>
  lean.beatsOf(chorusAt(scene.timeline, onset));

/** A blue note and an alteration are never above the scale's level (T3.9, T6.1). */
const softened = (tier: Tier, blue: boolean, isAltered: boolean): Tier =>
  isAltered || (blue && TENSION_LEVEL[tier] > 2) ? 'scale' : tier;

function functionOf(name: NoteFunction, isRub: boolean, isAltered: boolean): NoteFunction {
  if (isRub) return 'outside';
  return isAltered && name === 'outside' ? 'scale' : name;
}

/**
 * An unresolved accent a semitone above the third of a secondary or borrowed chord, held half a beat or more, is
 * outside whatever scale holds it (T6.4).
 */
function isRubbed(
  { scene }: NoteContext,
  { chord, isForeign }: HarmonicContext,
  voice: Voice,
  flags: readonly Flag[],
): boolean {
  if (!voice.top || voice.grace || !isForeign || !chord || hasTone(chord, voice.pc)) return false;
  const third = toneByRole(chord, 'third');
  return (
    third !== undefined &&
    (third.pc + 1) % 12 === voice.pc &&
    isOnBeat(voice.onset, scene.windows.on) &&
    voice.end - voice.onset >= 0.5 - EPSILON &&
    !flags.includes('resolved')
  );
}

/**
 * Does the plan play this note here? Harmonic minor is played from a beat before its dominant (T14.2).
 */
function isInPlan(
  { scene, plan }: NoteContext,
  { pc, onset }: Voice,
  { sounding }: ChordAssignment,
): boolean {
  const cell = cellAt(plan, sounding.span.index, sounding.chorus);
  if (cell.material.includes(pc)) return true;
  if (cell.id !== 'minor-dominant') return false;
  const next = soundingAfter(scene.timeline, sounding);
  return (
    next.start - onset <= 1 + EPSILON && cellAt(plan, next.span.index, next.chorus).material.includes(pc)
  );
}

/** A grace belongs where the note it leads to belongs. */
const lentBelonging = ({ scene, assignments: assignments }: NoteContext, voice: Voice): ChordAssignment =>
  assignments[voice.event] ?? {
    sounding: soundingFor(scene, voice.onset),
    chord: null,
    anticipates: false,
    leadIn: false,
  };

/** Inner voices and graces are named by their tier alone: they are no part of the line. */
function deedOf(
  { functions: noteFunctions, plan }: NoteContext,
  voice: Voice,
  context: HarmonicContext,
  assignment: ChordAssignment,
): AssignedFunction {
  if (voice.top) return defined(noteFunctions[voice.event]);
  const base = voiceTier(context, voice);
  if (voice.grace) return { name: 'grace', tier: base === 'outside' ? 'approach' : base };
  if (base !== 'chord') return { name: base, tier: base };
  const { targets } = cellAt(plan, assignment.sounding.span.index, assignment.sounding.chorus);
  return { name: targets.includes(voice.pc) ? 'target' : 'chord-tone', tier: 'chord' };
}

/**
 * ♭3, ♭5 or ♭7 of the key on a blues against a chord whose own tone lies a semitone higher; anywhere, a
 * neutral pitch.
 */
function isBlue(context: HarmonicContext, voice: Voice): boolean {
  if (neutralInterval(context, voice) !== null) return true;
  const step = (voice.pc - context.tonic + 12) % 12;
  if (
    !context.isBluesy ||
    !context.chord ||
    ![3, 6, 10].includes(step) ||
    baseTier(context, voice.pc) === 'chord'
  )
    return false;
  return context.chord.tones.some(
    (tone) => ['third', 'fifth', 'seventh'].includes(tone.role) && tone.pc === (voice.pc + 1) % 12,
  );
}

function flagsOf(
  context: NoteContext,
  voice: Voice,
  assignment: ChordAssignment,
  assigned: AssignedFunction,
  blue: boolean,
  isAltered: boolean,
): Flag[] {
  const flags: Flag[] = [];
  const { scene, figures, pickups } = context;
  const place = voice.event;
  const own = voice.top ? (figures.get(place) ?? []) : [];
  if (blue) flags.push('blue');
  if (isAltered) flags.push('altered');
  if (voice.played.slide) flags.push('slide');
  if (voice.played.bend?.length) flags.push('bend');
  if (own.some((figure) => pickups.has(defined(scene.line[figure.target]).index))) flags.push('pickup');
  if (voice.top && assignment.leadIn) flags.push('lead-in');
  if (voice.top && (own.length > 0 || resolves(context, place, assigned))) flags.push('resolved');
  return flags;
}

/** A non-chord tone whose next linked note is a chord tone at most 2 semitones away. */
function resolves({ walk, scene }: NoteContext, place: number, assigned: AssignedFunction): boolean {
  const next = scene.line[place + 1];
  if (assigned.tier === 'chord' || !next || !isLinked(scene.line[place], next)) return false;
  return walk.isChordTone(place + 1) && Math.abs(walk.step(place, place + 1)) <= 2;
}
