import { type Beats, defined } from '../../shared';
import { hasTone } from '../../music';
import { soundingAt, type ChordChange, type Timeline } from '../../chart';
import { baseTier, groundedSounding, type HarmonicContext } from './harmonicContext';
import { lineBetween } from '../notes/lineBetween';
import {
  isLinked,
  pitchesIn,
  type ChordAssignment,
  type Event,
  type Line,
  type LineNote,
} from '../notes/voice';
import { EPSILON, type Windows } from '../notes/windows';

/** What the steps that follow one note through the form all need. */
export type AnalysisScene = {
  readonly timeline: Timeline;
  readonly contexts: readonly HarmonicContext[];
  /** Contexts of choruses (from 0) in which the plan has a home scale of its own. */
  readonly contextsByChorus: ReadonlyMap<number, readonly HarmonicContext[]>;
  readonly changes: readonly ChordChange[];
  readonly line: Line;
  readonly windows: Windows;
};

/** What lies under a chord span of the form in one of the choruses, which count from 0. */
export const contextAt = (
  scene: Pick<AnalysisScene, 'contexts' | 'contextsByChorus'>,
  span: number,
  chorus: number,
): HarmonicContext => defined((scene.contextsByChorus.get(chorus) ?? scene.contexts)[span]);

/**
 * Which chord each line note belongs to.
 * Rules T5.1, T5.2, T5.3: The chord sounding at `onset + tol`, except: Anticipation … Lead-in.
 */
export function assignChords(scene: AnalysisScene, events: readonly Event[]): ChordAssignment[] {
  const { changes, windows } = scene;
  // the line is in order of onset, and so are the changes it may anticipate
  let coming = 0;
  const isPast = (change: ChordChange | undefined, { onset }: LineNote) =>
    change !== undefined && change.at - onset <= windows.on + EPSILON;
  const assignments = scene.line.map((note): ChordAssignment => {
    while (isPast(changes[coming], note)) coming++;
    const anticipated = anticipatedChange(scene, note, defined(events[note.event]), changes[coming]);
    const place = anticipated ? soundingAt(scene.timeline, anticipated.at) : soundingFor(scene, note.onset);
    return { sounding: place, chord: place.span.chord, anticipates: anticipated !== null, leadIn: false };
  });
  for (const change of scene.changes)
    for (const place of leadIn(scene, events, change))
      assignments[place] = { ...defined(assignments[place]), ...ownedBy(scene, change) };
  return assignments;
}

function ownedBy(
  scene: AnalysisScene,
  change: ChordChange,
): Pick<ChordAssignment, 'sounding' | 'chord' | 'leadIn'> {
  return { sounding: soundingAt(scene.timeline, change.at), chord: change.to, leadIn: true };
}

/** The chord at onset + tol; before beat 0 and in a short N.C. the coming one (T2.8). */
export function soundingFor(scene: Pick<AnalysisScene, 'timeline' | 'windows'>, onset: Beats) {
  return groundedSounding(scene.timeline, soundingAt(scene.timeline, Math.max(0, onset + scene.windows.tol)));
}

/**
 * The change that comes next, where a note anticipates it; null for most notes.
 * Rule T5.2: onset between min(1.1 beat, max(0.6 beat, 250 ms)) and onWindow before a change; pc a chord or
 * colour tone of the next chord and not a chord tone of the present
 * one; and either (a) it sounds at least 0.25 beat past the change and no line note starts within ±onWindow
 * of the change, or (b) no other line note starts between it and
 * 0.5 beat after the change (boundaries open). It belongs to the next chord; of two changes in reach, the
 * nearer. N.C. cannot be anticipated.
 */
function anticipatedChange(
  scene: AnalysisScene,
  note: LineNote,
  event: Event,
  change: ChordChange | undefined,
): ChordChange | null {
  if (!change || !isWithinReach(scene, note, change.at)) return null;
  const next = contextAt(scene, change.span.index, change.chorus);
  const fits =
    pitchesIn(event) >= FEWEST_IN_HIT
      ? isHitOf(event, change)
      : ['chord', 'colour'].includes(baseTier(next, note.pc)) && !hasTone(change.from, note.pc);
  return fits && (ringsIn(scene, note, change.at) || standsAlone(scene, note, change.at)) ? change : null;
}

/** Fewer pitches are no chord hit. */
const FEWEST_IN_HIT = 3;

/** A chord hit belongs where most of its voices belong (T5.4). */
const isHitOf = ({ voices }: Event, { from, to }: ChordChange): boolean =>
  voices.filter(({ pc }) => hasTone(to, pc)).length > voices.filter(({ pc }) => hasTone(from, pc)).length;

/** Farther than the window of the change, nearer than the reach. */
export const isWithinReach = ({ windows }: AnalysisScene, note: LineNote, at: Beats): boolean =>
  at - note.onset > windows.on + EPSILON && at - note.onset <= windows.reach + EPSILON;

/** (a) It sounds a quarter beat past the change and no line note starts on the change. */
function ringsIn({ line, windows }: AnalysisScene, note: LineNote, at: Beats): boolean {
  return (
    note.end >= at + 0.25 - EPSILON &&
    !lineBetween(line, at - windows.on - 2 * EPSILON, at + windows.on + 2 * EPSILON).some(
      (other) => Math.abs(other.onset - at) <= windows.on + EPSILON,
    )
  );
}

/** (b) No other line note starts between it and half a beat after the change, boundaries open. */
export function standsAlone({ line }: AnalysisScene, note: LineNote, at: Beats): boolean {
  const next = line[note.event + 1];
  return !next || next.onset >= at + 0.5 - EPSILON;
}

/**
 * Places in the line of the notes that lead into a change; empty where they do not count as a lead-in.
 * Rule T5.3: the longest run of linked line notes that ends just before a landing `on` a chord tone of the
 * new chord, starts at most 2 beats before the change and not before
 * the present chord, and lies wholly in the new chord's scale; it counts if at least half of its notes are
 * not in the present chord's scale.
 */
function leadIn(scene: AnalysisScene, events: readonly Event[], change: ChordChange): number[] {
  const { line, windows } = scene;
  const landing = landedOn(scene, events, change);
  if (!landing) return [];
  const next = contextAt(scene, change.span.index, change.chorus);
  const left = soundingAt(scene.timeline, change.at - 1e-3);
  const presentStart = scene.changes[change.index - 1]?.at ?? -Infinity;
  const run: number[] = [];
  for (let place = landing.event - 1; place >= 0; place--) {
    const note = defined(line[place]);
    const starts =
      note.onset >= change.at - 2 - EPSILON && note.onset + windows.tol >= presentStart - EPSILON;
    if (!starts || !isLinked(note, line[place + 1]) || !next.scale.has(note.pc)) break;
    run.unshift(place);
  }
  const own = contextAt(scene, left.span.index, left.chorus);
  const foreign = run.filter((place) => isForeignTo(own, defined(line[place]).pc));
  return run.length > 0 && foreign.length * 2 >= run.length ? run : [];
}

/** In neither the chord's scale nor, on a blues, the home scale (T5.4). */
const isForeignTo = ({ scale, home, isBluesy }: HarmonicContext, pc: number): boolean =>
  !scale.has(pc) && !(isBluesy && home.pcs.includes(pc));

/** The line note that starts on a change with a chord tone among its voices; of several the nearest. */
function landedOn(
  { line, windows }: AnalysisScene,
  events: readonly Event[],
  change: ChordChange,
): LineNote | null {
  const on = lineBetween(
    line,
    change.at - windows.on - 2 * EPSILON,
    change.at + windows.on + 2 * EPSILON,
  ).filter((note) => Math.abs(note.onset - change.at) <= windows.on + EPSILON);
  const tones = on.filter((note) =>
    defined(events[note.event]).voices.some((voice) => hasTone(change.to, voice.pc)),
  );
  return tones.sort((a, b) => Math.abs(a.onset - change.at) - Math.abs(b.onset - change.at))[0] ?? null;
}
