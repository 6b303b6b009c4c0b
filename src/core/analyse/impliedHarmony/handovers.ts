import { hasTone, intervalOver, type Chord, type IntervalName } from '../../music';
import { defined, type Beats, type Semitones } from '../../shared';
import type { AnalysisScene } from '../harmonicContext/chordAssignment';
import { firstWhere } from '../notes/lineBetween';
import type { ChordAssignment, Event } from '../notes/voice';
import { EPSILON } from '../notes/windows';

export type BarKind = 'chords' | 'line' | 'rest';
/** A bar through all choruses, counted from 1, with the events that begin in it. */
export type BarReport = { readonly bar: number; readonly kind: BarKind; readonly events: number };
/**
 * From chords to line or back. `lateBeats`: the first event of the new kind against the bar line it takes over
 * at, negative before it; `gapBeats`: the silence between, negative where they overlap.
 */
export type Handover = {
  readonly bar: number;
  readonly to: 'chords' | 'line';
  readonly beat: Beats;
  readonly lateBeats: Beats;
  readonly gapBeats: Beats;
  /** Into chords: the first hit, among the events, and what the line's last note is in its chord (T11.4). */
  readonly hit?: number;
  readonly lastNote?: { readonly noteIndex: number; readonly interval: IntervalName | null };
};

const LATE: Beats = 0.5;
const GAP: Beats = 2;

/** The new kind comes in late, or the music stops for two beats (common practice, no source). */
export const isLateHandover = ({ lateBeats, gapBeats }: Handover): boolean =>
  (lateBeats > LATE && gapBeats >= LATE) || gapBeats >= GAP;

const PITCHES_OF_A_HIT = 3;
/** Two chord tones as far apart as shell voicings have them: lines in thirds and sixths lie closer or wider. */
const SHELL: ReadonlySet<Semitones> = new Set([5, 6, 7, 10, 11]);

/** Three pitches or more struck together, or a shell of the chord. Rule T11.4. */
function isHit({ voices }: Event, chord: Chord | null): boolean {
  const pitches = [...new Set(voices.map(({ pitch }) => pitch))];
  if (pitches.length >= PITCHES_OF_A_HIT) return true;
  if (pitches.length < 2 || !chord) return false;
  const apart = Math.max(...pitches) - Math.min(...pitches);
  return SHELL.has(apart) && voices.every(({ pc }) => hasTone(chord, pc));
}

/**
 * Bars as chords, line or rest, by what most of their events are, and the handovers between.
 * Rule T11.4: Bars are classed chords, line or rest; handovers are timed. An event belongs to the bar it
 * begins in, one within the window before a
 * bar line to the bar that follows; a bar in which nothing begins is as the one before it while that rings
 * for half the bar, else a rest.
 * @param choruses how often the form was played
 */
export function handoversOf(
  { timeline, windows }: AnalysisScene,
  events: readonly Event[],
  assignments: readonly ChordAssignment[],
  choruses: number,
): { readonly bars: readonly BarReport[]; readonly handovers: readonly Handover[] } {
  const bars: (BarReport & { readonly start: Beats; readonly inside: readonly Event[] })[] = [];
  let rung = -Infinity;
  const chordUnder = ({ index }: Event) => defined(assignments[index]).chord;
  for (let chorus = 0; chorus < choruses; chorus++)
    for (const span of timeline.bars) {
      const [start, end] = [span.start + chorus * timeline.formBeats, span.end + chorus * timeline.formBeats];
      const from = (beat: Beats) =>
        firstWhere(events.length, (place) => events[place]!.onset >= beat - windows.on - EPSILON);
      // what begins just before the end has no next bar to belong to
      const isLast = chorus === choruses - 1 && span === timeline.bars[timeline.bars.length - 1];
      const inside = events.slice(from(start), isLast ? events.length : from(end));
      const hits = inside.filter((event) => isHit(event, chordUnder(event))).length;
      const rings = rung >= start + (end - start) / 2;
      let kind: BarKind;
      if (inside.length > 0) {
        if (hits * 2 >= inside.length) kind = 'chords';
        else kind = 'line';
      } else if (rings) kind = bars[bars.length - 1]?.kind ?? 'rest';
      else kind = 'rest';
      bars.push({ bar: bars.length + 1, kind, events: inside.length, start, inside });
      rung = inside.reduce((last, event) => Math.max(last, event.end), rung);
    }
  return {
    bars: bars.map(({ bar, kind, events: count }) => ({ bar, kind, events: count })),
    handovers: bars.flatMap((_, place) => handoverAt(bars, place, assignments) ?? []),
  };
}

/** Chords after line or line after chords, with at most one bar of rest between. */
function handoverAt(
  bars: readonly (BarReport & { readonly start: Beats; readonly inside: readonly Event[] })[],
  place: number,
  assignments: readonly ChordAssignment[],
): Handover | null {
  const now = bars[place]!;
  const before = bars[place - 1]?.kind === 'rest' ? bars[place - 2] : bars[place - 1];
  if (!before || now.kind === 'rest' || before.kind === 'rest' || before.kind === now.kind) return null;
  const isNew = (event: Event) =>
    isHit(event, defined(assignments[event.index]).chord) === (now.kind === 'chords');
  // a pickup: new events at the end of the bar before, with no old one after them
  const old = before.inside.findLastIndex((event) => !isNew(event));
  const first = before.inside.slice(old + 1).find(isNew) ?? now.inside.find(isNew);
  const last = before.inside[old];
  if (!first || !last) return null;
  return {
    bar: now.bar,
    to: now.kind,
    beat: first.onset,
    lateBeats: first.onset - now.start,
    gapBeats: first.onset - last.end,
    ...(now.kind === 'chords' && intoChords(last, first, assignments)),
  };
}

function intoChords(
  last: Event,
  hit: Event,
  assignments: readonly ChordAssignment[],
): Pick<Handover, 'hit' | 'lastNote'> {
  const top = defined(last.voices[last.voices.length - 1]);
  const { chord } = defined(assignments[hit.index]);
  return {
    hit: hit.index,
    lastNote: { noteIndex: top.index, interval: chord ? intervalOver(chord, top.pc) : null },
  };
}
