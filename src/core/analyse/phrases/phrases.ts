import { lowerQuartile, median, secondsToBeats, type Beats, defined } from '../../shared';
import { toneByRole, type IntervalName } from '../../music';
import { beatsPerBar, isOnStrongBeat, formPositionOf, type Timeline } from '../../chart';
import { contextAt, type AnalysisScene } from '../harmonicContext/chordAssignment';
import { printedInterval, voiceTier, type HarmonicContext } from '../harmonicContext/harmonicContext';
import { firstWhere } from '../notes/lineBetween';
import { likenessOf } from './motifs';
import type { ChordAssignment, Event, LineNote } from '../notes/voice';
import { EPSILON } from '../notes/windows';

export type PhraseEnd = 'home' | 'floats' | 'asks';

export type Phrase = {
  readonly startBeat: Beats;
  readonly endBeat: Beats;
  readonly noteIndices: readonly number[];
  /** Beats from the start to the next bar line, where that is at most 2; else 0. */
  readonly pickupBeats: Beats;
  /** Against the nearest change, negative = before; null where the form has none. */
  readonly startVsChange: Beats | null;
  readonly endVsChange: Beats | null;
  readonly changesCrossed: number;
  readonly endInterval: IntervalName | null;
  readonly end: PhraseEnd;
  /** Held a beat or on a strong beat: how firmly it ends (T10.6). */
  readonly firm: boolean;
  /** Comes home, and firmly. */
  readonly rests: boolean;
  /** Phrases of one number share an interval-and-rhythm shape. */
  readonly motif?: number;
  /** Phrases of one number share rhythm and contour. */
  readonly theme?: number;
  /** What a theme's statement changed of the one before. */
  readonly changed?: readonly { readonly noteIndex: number; readonly toChordTone: boolean }[];
  /** The phrase this one answers, by its place among the phrases. */
  readonly answers?: number;
};

/**
 * Where the line breathes and how each phrase ends.
 * A border of the player's own stands before them (T10.7).
 * Rules T10.1, T10.2, T10.5 and T10.6: a phrase ends before a rest ≥ max(0.75 beat, 300 ms, min(1.6 q, ¾ bar)), or after a
 * note ≥ 2 beats and ≥ 3 m, where q is the lower quartile and m the median of the onset
 * gaps ≤ 2 beats (of all, if fewer than 3).
 */
export function phrasesOf(
  scene: AnalysisScene,
  events: readonly Event[],
  assignments: readonly ChordAssignment[],
): Phrase[] {
  const phrases = groupPhrases(scene, events).map((group) => describe(scene, group, assignments));
  const likeness = likenessOf(
    phrases,
    scene.line,
    (place) =>
      voiceTier(contextOf(scene, defined(assignments[place])), defined(scene.line[place])) === 'chord',
  );
  return phrases.map((phrase, index) => ({ ...phrase, ...likeness[index] }));
}

const contextOf = (scene: AnalysisScene, { sounding }: ChordAssignment): HarmonicContext =>
  contextAt(scene, sounding.span.index, sounding.chorus);

function groupPhrases(scene: AnalysisScene, events: readonly Event[]): Event[][] {
  const gaps = onsetGaps(events);
  const [pulse, quick] = [median(gaps) ?? 1, lowerQuartile(gaps) ?? 1];
  const phrases: Event[][] = [];
  let end = -Infinity;
  events.forEach((event, index) => {
    const before = events[index - 1];
    const breaks =
      !before ||
      (ownBorder(event) ??
        (endsBefore(scene, event.onset - end, event.onset, quick) || isLong(before, pulse)));
    if (breaks) phrases.push([]);
    defined(phrases[phrases.length - 1]).push(event);
    end = Math.max(end, event.end);
  });
  return phrases;
}

/** Does a phrase begin here by the player's own word? Null where nothing was said (T10.7). */
function ownBorder({ voices }: Event): boolean | null {
  const said = voices.find(({ played }) => played.phrase)?.played.phrase;
  return said === undefined ? null : said === 'begins';
}

/** The onset gaps of at most 2 beats; all gaps, if fewer than three are. */
function onsetGaps(events: readonly Event[]): Beats[] {
  const gaps = events.slice(1).map((event, index) => event.onset - defined(events[index]).onset);
  const short = gaps.filter((gap) => gap <= 2 + EPSILON);
  return short.length < 3 ? gaps : short;
}

const SHORTEST_REST: Beats = 0.75;

/** A rest of at least max(0.75 beat, 300 ms, min(1.6 q, ¾ bar)). */
function endsBefore({ timeline }: AnalysisScene, rest: Beats, onset: Beats, quick: Beats): boolean {
  if (rest < SHORTEST_REST - EPSILON) return false;
  const bar = defined(timeline.bars[formPositionOf(timeline, Math.max(0, onset)).bar]);
  const least = Math.max(
    SHORTEST_REST,
    secondsToBeats(0.3, timeline.tempo),
    Math.min(1.6 * quick, 0.75 * beatsPerBar(bar.meter)),
  );
  return rest >= least - EPSILON;
}

/** A note of at least 2 beats and three times the median. */
const isLong = (event: Event, pulse: Beats): boolean =>
  event.end - event.onset >= 2 - EPSILON && event.end - event.onset >= 3 * pulse - EPSILON;

function describe(
  scene: AnalysisScene,
  group: readonly Event[],
  assignments: readonly ChordAssignment[],
): Phrase {
  const startBeat = defined(group[0]).onset;
  const endBeat = group.reduce((latest, event) => Math.max(latest, event.end), -Infinity);
  const last = defined(group[group.length - 1]);
  const { endInterval, end, firm } = endOf(scene, last.index, defined(assignments[last.index]));
  return {
    startBeat,
    endBeat,
    noteIndices: indicesIn(group),
    pickupBeats: pickup(scene, startBeat),
    startVsChange: nearestChange(scene, startBeat),
    endVsChange: nearestChange(scene, endBeat),
    changesCrossed: changeFrom(scene, endBeat - EPSILON) - changeFrom(scene, startBeat + 2 * EPSILON),
    endInterval,
    end,
    firm,
    rests: end === 'home' && firm,
  };
}

/** The notes of events, in order. */
function indicesIn(events: readonly Event[]): number[] {
  const indices: number[] = [];
  for (const { voices } of events) for (const { index } of voices) indices.push(index);
  return indices.sort((a, b) => a - b);
}

function pickup({ timeline, windows }: AnalysisScene, start: Beats): Beats {
  const chorus = Math.floor(start / timeline.formBeats) * timeline.formBeats;
  const length = beatsPerBar(defined(timeline.bars[0]).meter);
  const next =
    start < 0
      ? Math.ceil((start - windows.on) / length - EPSILON) * length
      : chorus + barLineFrom(timeline, start - chorus - windows.on - EPSILON);
  const beats = next - start;
  return beats > windows.on && beats <= 2 + EPSILON ? beats : 0;
}

/** The first bar line at or after a beat of the form; the end of the form is the last one. */
const barLineFrom = ({ bars, formBeats }: Timeline, inForm: Beats): Beats =>
  bars[firstWhere(bars.length, (index) => defined(bars[index]).start >= inForm)]?.start ?? formBeats;

/** Index of the first change at or after a beat. */
const changeFrom = ({ changes }: AnalysisScene, beat: Beats): number =>
  firstWhere(changes.length, (index) => defined(changes[index]).at >= beat);

/** Beats from the nearest change, the earlier of two as near; negative before it. */
function nearestChange(scene: AnalysisScene, beat: Beats): Beats | null {
  const after = changeFrom(scene, beat);
  const offsets = [after - 1, after].flatMap((index) =>
    scene.changes[index] ? [beat - scene.changes[index].at] : [],
  );
  return offsets.reduce<Beats | null>(
    (nearest, offset) => (nearest === null || Math.abs(offset) < Math.abs(nearest) ? offset : nearest),
    null,
  );
}

/**
 * How the last line note leaves the phrase over the chord it belongs to: pitch decides, length says how firmly.
 * Rule T10.6: `home` (1, 3, 5, and 6 on a sixth chord, over I, i or a temporary tonic; the key's tonic over IV7 of a
 * blues; 1, 3 or 5 of any other chord that is no dominant on its way), `asks` (any tone but the root over a dominant
 * that falls a fifth, the leading tone, a tone that is neither of the chord nor its colour, and where no chord
 * sounds), `floats` (the rest).
 */
function endOf(
  scene: AnalysisScene,
  place: number,
  assignment: ChordAssignment,
): { endInterval: IntervalName | null; end: PhraseEnd; firm: boolean } {
  const note = defined(scene.line[place]);
  const context = contextOf(scene, assignment);
  const firm =
    note.end - note.onset >= 1 - EPSILON || isOnStrongBeat(scene.timeline, note.onset, scene.windows.on);
  return { endInterval: printedInterval(context, note), end: pitchEnd(context, note), firm };
}

function pitchEnd(context: HarmonicContext, note: LineNote): PhraseEnd {
  const { chord } = context;
  if (!chord) return 'asks';
  const is = (...roles: Parameters<typeof toneByRole>[1][]) => toneByRole(chord, ...roles)?.pc === note.pc;
  const isRestful = is('root') || is('third') || is('fifth');
  if (isTonicChord(context) && (isRestful || is('sixth'))) return 'home';
  if (context.isBluesy && context.degree === 'IV' && note.pc === context.tonic) return 'home';
  if (context.isOnItsWay) return is('root') ? 'floats' : 'asks';
  return isRestful ? 'home' : unrestfulEnd(context, note);
}

const isTonicChord = ({ degree }: HarmonicContext): boolean => degree === 'I' || degree === 'i';

/** What is left once no root, third or fifth comes to rest. */
function unrestfulEnd(context: HarmonicContext, note: LineNote): PhraseEnd {
  const tier = voiceTier(context, note);
  if (tier === 'chord') return 'floats';
  if (note.pc === (context.tonic + 11) % 12) return 'asks';
  return tier === 'colour' ? 'floats' : 'asks';
}
