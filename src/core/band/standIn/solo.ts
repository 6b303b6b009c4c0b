import {
  gaussian,
  modulo,
  type Beats,
  type BeatsPerMinute,
  type Midi,
  type PitchClass,
  type Random,
  elementAt,
} from '../../shared';
import { changesOf, soundingAt, type Timeline } from '../../chart';
import {
  isStrongBeat,
  pitchesThrough,
  rhythmOf,
  type PitchSlot,
  type RhythmNote,
  type RhythmRequest,
} from '../../lines';
import { cellAt, type Plan, type PlanCell } from '../../plan';
import type { StandInProfile } from './profile';

/** A note as it is written: before the hand's timing. */
export type SoloNote = { readonly beat: Beats; readonly duration: Beats; readonly midi: Midi };

type SoloRequest = {
  readonly timeline: Timeline;
  readonly plan: Plan;
  readonly profile: StandInProfile;
  readonly random: Random;
  /** Beats of a bar. */
  readonly bar: Beats;
  readonly tempo: BeatsPerMinute;
  readonly choruses: number;
  readonly seed: number;
};

/** A note of the rhythm, and what it is to do at a change. */
type Planned = RhythmNote & {
  /** By how much it was moved from the change it is for. */
  readonly shift: Beats;
  readonly landing: 'met' | 'missed' | null;
  /** It lies a half step from the landing after it. */
  readonly leads: boolean;
  readonly outside: boolean;
};

const EPS = 1e-6;
/** A hand that is late at a change has left the old chord. */
const LIFT: Beats = 0.1;
/** So far ahead of its change a landing may stand, and a little more. */
const AHEAD: Beats = 0.51;
/** Beats that a missed target stays missed: the four notes within which a landing may still resolve. */
const MISSED_FOR: Beats = 2;
/** Breathing more seldom than this, a player hardly breathes at all. */
const BREATHLESS = 0.08;
/** Phrases begin on their change, or lead into it from up to a beat and a half before. */
const PICKUPS = [0.25, 0.3, 0.25, 0.2];
/** A player stays within this many half steps for a phrase, and moves on with the next. */
const PHRASE_RANGE = 17;

/**
 * A solo as the line generator writes lines (phrases, cells, an answered rhythm, a contour for each phrase), with the
 * habits of a player put into it: targets met or missed, pushed or late, led into, left for outside notes.
 */
export function soloOf(request: SoloRequest): SoloNote[] {
  const notes = plannedOf(request);
  const slots = slotsOf(notes, request);
  const { lowest, highest } = request.profile;
  const pitches = Array.from({ length: highest - lowest + 1 }, (_, n) => lowest + n);
  const line =
    pitchesThrough(slots, pitches, request.seed) ??
    pitchesThrough(
      slots.map(({ between: _, ...slot }) => slot),
      pitches,
      request.seed,
    );
  if (!line) return [];
  return notes.map(({ beat, duration }, index) => ({ beat, duration, midi: elementAt(line, index) }));
}

/** The rhythm of the whole solo with what happens at the changes. */
function plannedOf(request: SoloRequest): Planned[] {
  const { timeline, profile, random, bar, tempo, choruses, seed } = request;
  const changes = changesOf(timeline, choruses);
  const end = choruses * timeline.formBeats;
  const rhythm = rhythmOf({
    end,
    bar,
    tempo,
    ...busyness(profile.density),
    changes: changes.map(({ at }) => at),
    leadIn: 1,
    pickups: PICKUPS,
    ahead: 0,
    ...phrasing(profile.breathe, end),
    seed,
  });
  const at = new Map(changes.map((change) => [Math.round(change.at * 96), change]));
  const planned: Planned[] = [];
  for (const note of rhythm) {
    const change = at.get(Math.round(note.beat * 96));
    const isMet = change ? random() < (profile.changes[change.to.symbol] ?? profile.meet) : true;
    // the first note of all is aimed too
    const landing = landingOf(change !== undefined || planned.length === 0, isMet);
    const shift = change ? shiftOf(profile, change.until - change.at >= 2, random) : 0;
    planned.push({ ...note, beat: note.beat + shift, shift, landing, leads: false, outside: false });
  }
  return withHabits(withoutCollisions(planned), profile, random);
}

function landingOf(isLanding: boolean, isMet: boolean): Planned['landing'] {
  if (!isLanding) return null;
  return isMet ? 'met' : 'missed';
}

/** By how much a landing is pushed ahead of its change, or comes after it. */
function shiftOf({ early, late }: StandInProfile, isRoomy: boolean, random: Random): Beats {
  const chance = random();
  if (chance < early) return -0.5;
  return isRoomy && chance < early + late ? 0.5 : 0;
}

/** A landing that was moved takes the place of what stood there; each note ends where the next begins. */
function withoutCollisions(notes: readonly Planned[]): Planned[] {
  const kept = notes.filter(
    (note) =>
      note.landing !== null ||
      !notes.some((other) => other.landing !== null && isPassedOver(note, other.beat)),
  );
  return kept
    .filter(({ beat }) => beat > -EPS)
    .sort((a, b) => a.beat - b.beat)
    .map((note, index, all) => ({ ...note, duration: lengthOf(note, all[index + 1]) }));
}

/** Inside a phrase a note lasts to the next; before a late landing it is let go in time for the change. */
function lengthOf({ beat, duration, phrase }: Planned, next: Planned | undefined): Beats {
  if (!next) return duration;
  const end = next.shift > 0 ? next.beat - next.shift - LIFT : next.beat;
  return Math.max(0.25, next.phrase === phrase ? end - beat : Math.min(duration, end - beat));
}

/** Within half a beat of a landing that was moved there is no other note. */
const isPassedOver = ({ beat }: Planned, landing: Beats): boolean =>
  Math.abs(landing - beat) < 0.5 - EPS || Math.abs(landing - beat) < EPS;

/** Which notes lead into a landing by half a step, and which leave the material. */
function withHabits(notes: readonly Planned[], profile: StandInProfile, random: Random): Planned[] {
  return notes.map((note, index) => {
    const next = notes[index + 1];
    const leads = note.landing === null && next?.landing === 'met' && random() < profile.approach;
    const outside = note.landing === null && !leads && index > 0 && random() < profile.outside;
    return { ...note, leads, outside };
  });
}

/** How many notes there are. */
function busyness(density: number): { base: 'running' | 'mixed' | 'quarters'; level: 'easy' | 'usual' } {
  if (density >= 0.9) return { base: 'running', level: 'usual' };
  if (density >= 0.55) return { base: 'mixed', level: density >= 0.7 ? 'usual' : 'easy' };
  return { base: 'quarters', level: 'easy' };
}

/** Phrases of one to four bars, the shorter the oftener a player breathes; or one that never ends. */
function phrasing(breathe: number, end: Beats): Pick<RhythmRequest, 'answers' | 'lengths' | 'windows'> {
  if (breathe < BREATHLESS) return { answers: false, windows: [{ from: 0, to: end, start: 0 }] };
  const long = Math.max(0, 0.55 - breathe);
  return { answers: true, lengths: [Math.max(0.05, 2 * breathe - 0.6), 0.6, 0.6 * long, 0.6 * long] };
}

/** What each note may be, by the plan and by what the player does at it. */
function slotsOf(notes: readonly Planned[], request: SoloRequest): PitchSlot[] {
  const { profile, random, bar } = request;
  const registers = registersOf(notes, profile, random);
  let missedAt = -Infinity;
  return notes.map((note, index): PitchSlot => {
    if (note.landing) missedAt = note.landing === 'missed' ? note.beat : -Infinity;
    const between = registers.get(note.phrase);
    const ground = groundOf(note, notes[index + 1], request, note.beat - missedAt <= MISSED_FOR);
    const own = wantedOf(note, ground);
    const isAimed = note.landing !== null || note.leads || note.outside;
    return {
      ...note,
      pcs: own.length > 0 ? own : ground.cell.material,
      tones: isAimed ? own : ground.tones,
      isStrong: note.landing !== null || isStrongBeat(note.beat, bar),
      ...(notes[index - 1]?.leads || note.outside ? { steps: [-1, 1] } : {}),
      ...(between ? { between } : {}),
    };
  });
}

type Ground = {
  readonly cell: PlanCell;
  readonly tones: readonly PitchClass[];
  readonly home: readonly PitchClass[];
  /** What the note after it lands on. */
  readonly next: readonly PitchClass[];
  readonly isMissed: boolean;
};

/** A landing is asked of the chord it is meant for, even when it is pushed ahead of it. */
function groundOf(
  note: Planned,
  next: Planned | undefined,
  { timeline, plan }: SoloRequest,
  isMissed: boolean,
): Ground {
  const { span, chorus } = soundingAt(timeline, note.beat + (note.landing ? AHEAD : 0.01));
  return {
    cell: cellAt(plan, span.index, chorus),
    tones: (span.chord?.tones ?? []).map(({ pc }) => pc),
    home: elementAt(plan.homeScales, span.index).pcs,
    next: note.leads && next ? landingPcs(next, timeline, plan) : [],
    isMissed,
  };
}

function wantedOf(
  { landing, leads, outside }: Planned,
  { cell, tones, home, next, isMissed }: Ground,
): readonly PitchClass[] {
  if (landing === 'met' && cell.targets.length > 0) return cell.targets;
  if (landing) return home.filter((pc) => !tones.includes(pc));
  if (leads) return [...new Set(next.flatMap((pc) => [modulo(pc + 1, 12), modulo(pc - 1, 12)]))];
  if (outside) return ALL.filter((pc) => !cell.material.includes(pc));
  // a player who missed a target does not stumble on it a beat later
  return isMissed ? cell.material.filter((pc) => !cell.targets.includes(pc)) : cell.material;
}

const ALL: readonly PitchClass[] = Array.from({ length: 12 }, (_, pc) => pc);

function landingPcs({ beat }: Planned, timeline: Timeline, plan: Plan): readonly PitchClass[] {
  const { span, chorus } = soundingAt(timeline, beat + AHEAD);
  return cellAt(plan, span.index, chorus).targets;
}

/** Where on a wide range each phrase lies: near the one before it. */
function registersOf(
  notes: readonly Planned[],
  { lowest, highest }: StandInProfile,
  random: Random,
): Map<number, readonly [Midi, Midi]> {
  const registers = new Map<number, readonly [Midi, Midi]>();
  const room = highest - lowest - PHRASE_RANGE;
  if (room <= 8) return registers;
  let low = Math.round(lowest + room / 2);
  for (const { phrase } of notes) {
    if (registers.has(phrase)) continue;
    low = Math.max(lowest, Math.min(highest - PHRASE_RANGE, Math.round(low + gaussian(random) * 7)));
    registers.set(phrase, [low, low + PHRASE_RANGE]);
  }
  return registers;
}
