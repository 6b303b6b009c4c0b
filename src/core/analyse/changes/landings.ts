import { soundingAt, type ChordChange } from '../../chart';
import { hasTone, type IntervalName } from '../../music';
import { cellAt, type Plan } from '../../plan';
import { type Beats, type Midi, type PitchClass, type Semitones, defined } from '../../shared';
import {
  contextAt,
  isWithinReach,
  standsAlone,
  type AnalysisScene,
} from '../harmonicContext/chordAssignment';
import { isNeutralThird, printedInterval, restingTier, voiceTier } from '../harmonicContext/harmonicContext';
import { lineBetween, longestSounding, soundsBetween } from '../notes/lineBetween';
import { type ChordAssignment, type Event, type LineNote, type Voice } from '../notes/voice';
import type { Figure } from '../noteFunctions/figures';
import type { Phrase } from '../phrases/phrases';
import { EPSILON } from '../notes/windows';
import { asPickup, isMeant, resolutionOf, restatedNotes, settledByFigure } from './settling';
import { turnedAt } from './turned';

export type Timing = 'on' | 'early' | 'held' | 'late' | 'none';
export type Verdict = 'target' | 'chord-tone' | 'colour' | 'scale' | 'outside' | 'none';

export type Landing = {
  readonly noteIndex: number | null;
  readonly interval: IntervalName | null;
  readonly timing: Timing;
  readonly verdict: Verdict;
  readonly rest?: true;
  readonly delayed?: true;
  /** Passed inside a step-out that the plan means: not judged (T7.15). */
  readonly excused?: true;
  readonly resolutionIndex?: number;
  readonly resolvedAfterBeats?: Beats;
};

export type NearestTarget = { readonly midi: Midi; readonly semitones: Semitones };
export type Connection = {
  readonly semitones: Semitones | null;
  readonly kind: 'common' | 'step' | 'skip' | 'leap' | 'fresh' | null;
  readonly nearestTarget: NearestTarget | null;
};

/** A change with what the player made of it. `chorus` and `bar` count from 1. */
export type ChangeReport = {
  readonly index: number;
  readonly chorus: number;
  readonly bar: number;
  readonly beat: Beats;
  readonly from: string;
  readonly to: string;
  readonly landing: Landing;
  readonly connection: Connection;
  readonly fix: { readonly noteIndex: number; readonly toMidi: Midi } | null;
  /** Where the line itself changed chord; absent where nothing was played around the change. */
  readonly turnedAtBeat?: Beats;
};

/** The lowest and highest pitch a fix may ask for: open low E to the 22nd fret. */
const UNDER_THE_HAND: readonly [Midi, Midi] = [40, 86];

export type JudgedLanding = {
  readonly scene: AnalysisScene;
  readonly events: readonly Event[];
  readonly voices: readonly Voice[];
  readonly assignments: readonly ChordAssignment[];
  readonly plan: Plan;
  /** Figures of the line by the places of their members. */
  readonly figures: ReadonlyMap<number, readonly Figure[]>;
  readonly phrases: readonly Phrase[];
};

/**
 * Every change with its landing, the way into it and the one-note fix.
 * Rule T8.1: For a change at `c`, its chord lasting until `c2`, the first that exists of on, early, held,
 * late, none.
 */
export function landingsOf(judged: JudgedLanding): ChangeReport[] {
  const restated = restatedNotes(judged.phrases);
  const starts = judged.phrases.map(({ startBeat }) => startBeat);
  return judged.scene.changes.map((change, place, all) => {
    const found = arrive(judged, change);
    const landing = describe(judged, change, found);
    const connection = connect(judged, change, found);
    const split = turnedAt(judged.scene, change, all[place - 1], all[place + 1]);
    const turned = split === null ? null : asPickup(split, change.at, starts);
    return {
      index: change.index,
      chorus: change.chorus + 1,
      bar: change.bar + 1,
      beat: change.at,
      from: change.from.symbol,
      to: change.to.symbol,
      landing,
      connection,
      fix: isMeant(landing, restated) ? null : fixFor(judged, change, found, landing, connection),
      ...(turned === null ? {} : { turnedAtBeat: turned }),
    };
  });
}

type Arrival = { readonly voice: Voice; readonly line: LineNote; readonly timing: Exclude<Timing, 'none'> };

/** The first that exists of on, early, held, late; null where nothing landed. */
function arrive(judged: JudgedLanding, change: ChordChange): Arrival | null {
  return (
    onTheChange(judged, change) ??
    pushedAhead(judged, change) ??
    heldOver(judged, change) ??
    arrivedLate(judged, change)
  );
}

/** In an event the best voice: target, chord tone, colour, scale, outside; ties the upper. */
function arrival(
  judged: JudgedLanding,
  change: ChordChange,
  line: LineNote,
  timing: Arrival['timing'],
  voices: readonly Voice[] = defined(judged.events[line.event]).voices,
): Arrival {
  let best = defined(voices[voices.length - 1]);
  for (const voice of [...voices].reverse())
    if (rank(judged, change, voice) < rank(judged, change, best)) best = voice;
  return { voice: best, line, timing };
}

const RANK: Record<Verdict, number> = {
  target: 0,
  'chord-tone': 1,
  colour: 2,
  scale: 3,
  outside: 4,
  none: 5,
};
const rank = (judged: JudgedLanding, change: ChordChange, voice: Voice): number =>
  RANK[verdictOf(judged, change, voice)];

/** Rule T8.2. */
function verdictOf({ plan, scene }: JudgedLanding, change: ChordChange, voice: Voice): Verdict {
  const context = contextAt(scene, change.span.index, change.chorus);
  const { targets, tones } = cellAt(plan, change.span.index, change.chorus);
  if (targets.includes(voice.pc) || isNeutralTarget(context, targets, voice)) return 'target';
  if (tones?.includes(voice.pc)) return 'chord-tone';
  if (tones && context.chord && hasTone(context.chord, voice.pc)) return 'colour';
  const tier = restingTier(context, voice);
  return tier === 'chord' ? 'chord-tone' : tier;
}

/** A neutral third counts as the third where the plan targets thirds. */
function isNeutralTarget(
  context: AnalysisScene['contexts'][number],
  targets: readonly PitchClass[],
  voice: Voice,
): boolean {
  const third = context.chord?.tones.find((tone) => tone.role === 'third');
  return third !== undefined && targets.includes(third.pc) && isNeutralThird(context, voice);
}

/**
 * Rule T8.1, 1: a note starting within ±onWindow of c; of several, the chord tone nearest c, else the nearest;
 * in an event the best voice (target, chord tone, colour, scale, outside; ties the upper).
 */
function onTheChange(judged: JudgedLanding, change: ChordChange): Arrival | null {
  const context = contextAt(judged.scene, change.span.index, change.chorus);
  const { line, windows } = judged.scene;
  const on = lineBetween(line, change.at - windows.on - EPSILON, change.at + windows.on + 2 * EPSILON)
    .filter((note) => Math.abs(note.onset - change.at) <= windows.on + EPSILON)
    .map((note) => arrival(judged, change, note, 'on'))
    .sort((a, b) => Math.abs(a.line.onset - change.at) - Math.abs(b.line.onset - change.at));
  return on.find(({ voice }) => voiceTier(context, voice) === 'chord') ?? on[0] ?? null;
}

/** Rule T8.1, 2: the last anticipation (also by a chord tone common to both chords under (b)). */
function pushedAhead(judged: JudgedLanding, change: ChordChange): Arrival | null {
  const { scene, assignments: assignments } = judged;
  const early = lineBetween(scene.line, change.at - scene.windows.reach - 2 * EPSILON, change.at).findLast(
    (note) => {
      if (!isWithinReach(scene, note, change.at)) return false;
      const own = defined(assignments[note.event]);
      const anticipates =
        own.anticipates &&
        Math.abs(soundingAt(scene.timeline, change.at).start - own.sounding.start) < EPSILON;
      const common = hasTone(change.to, note.pc) && hasTone(change.from, note.pc);
      return anticipates || (common && standsAlone(scene, note, change.at));
    },
  );
  return early ? arrival(judged, change, early, 'early') : null;
}

/**
 * Rule T8.1, 3: the last note that started earlier and is still sounding min(0.5 beat, half the chord) after
 * c.
 */
function heldOver(judged: JudgedLanding, change: ChordChange): Arrival | null {
  const still = change.at + Math.min(0.5, (change.until - change.at) / 2) - EPSILON;
  const { line } = judged.scene;
  const { events } = judged;
  const held = lineBetween(line, still - longestSounding(events) - EPSILON, change.at).findLast(
    (note) => defined(events[note.event]).end >= still,
  );
  return held
    ? arrival(
        judged,
        change,
        held,
        'held',
        defined(events[held.event]).voices.filter((voice) => voice.end >= still),
      )
    : null;
}

function arrivedLate(judged: JudgedLanding, change: ChordChange): Arrival | null {
  const { line, windows } = judged.scene;
  const late = lineBetween(line, change.at, change.at + 1 + 2 * EPSILON).find(
    (note) => note.onset > change.at && note.onset <= change.at + 1 + EPSILON,
  );
  return late && late.onset < change.until - windows.on - EPSILON
    ? arrival(judged, change, late, 'late')
    : null;
}

function describe(judged: JudgedLanding, change: ChordChange, found: Arrival | null): Landing {
  if (!found) {
    const sounds = soundsBetween(judged.events, change.at - 1, change.at + 1);
    return {
      noteIndex: null,
      interval: null,
      timing: 'none',
      verdict: 'none',
      ...(sounds ? {} : { rest: true }),
    };
  }
  const { voice, timing } = found;
  const verdict = verdictOf(judged, change, voice);
  const context = contextAt(judged.scene, change.span.index, change.chorus);
  const landing = { noteIndex: voice.index, interval: printedInterval(context, voice), timing, verdict };
  if (voiceTier(context, voice) === 'chord' || verdict === 'target') return landing;
  const settled = settledByFigure(judged, change, found.line, (note) => verdictOf(judged, change, note));
  return { ...landing, ...(settled ?? resolutionOf(judged, change, found.line)) };
}

/** Rule T8.4. */
function connect({ plan, scene }: JudgedLanding, change: ChordChange, found: Arrival | null): Connection {
  if (!found) return { semitones: null, kind: null, nearestTarget: null };
  const targets = cellAt(plan, change.span.index, change.chorus).targets;
  if (found.timing === 'held')
    return { semitones: 0, kind: 'common', nearestTarget: nearestTarget(found.line.pitch, targets) };
  const before = scene.line[found.line.event - 1];
  if (!before) return { semitones: null, kind: 'fresh', nearestTarget: null };
  const semitones = found.voice.pitch - before.pitch;
  const kind = found.line.onset - before.end > 1 + EPSILON ? 'fresh' : kindOf(Math.abs(semitones));
  return { semitones, kind, nearestTarget: nearestTarget(before.pitch, targets) };
}

const kindOf = (distance: number): 'common' | 'step' | 'skip' | 'leap' => {
  if (distance === 0) return 'common';
  if (distance <= 2) return 'step';
  if (distance <= 4) return 'skip';
  return 'leap';
};

/** The target nearest a pitch, ties upward. */
function nearestTarget(from: Midi, targets: readonly PitchClass[]): NearestTarget | null {
  for (let distance = 0; distance <= 11; distance++)
    for (const semitones of [distance, -distance])
      if (targets.includes((((from + semitones) % 12) + 12) % 12))
        return { midi: from + semitones, semitones };
  return null;
}

/**
 * Rule T8.5: for a landing that missed its target, that nearest target (from the held note itself where it is
 * held), if within 4 semitones and under the hand.
 */
function fixFor(
  { voices, plan }: JudgedLanding,
  change: ChordChange,
  found: Arrival | null,
  landing: Landing,
  { nearestTarget: near }: Connection,
): ChangeReport['fix'] {
  if (!found || !near || landing.verdict === 'target' || Math.abs(near.semitones) > 4) return null;
  const resolution = landing.resolutionIndex === undefined ? undefined : voices[landing.resolutionIndex];
  if (resolution && cellAt(plan, change.span.index, change.chorus).targets.includes(resolution.pc))
    return null;
  const reachable = near.midi >= UNDER_THE_HAND[0] && near.midi <= UNDER_THE_HAND[1];
  return reachable ? { noteIndex: found.voice.index, toMidi: near.midi } : null;
}
