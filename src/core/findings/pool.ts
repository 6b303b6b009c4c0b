import type { Report } from '../analyse';
import { timelineOf } from '../chart';
import type { FindingsRequest } from './finding';
import { elementAt } from '../shared';

/** A take in the pool: bars before its first one, how many it has, where its beats begin. */
export type PooledTake = {
  readonly firstBar: number;
  readonly bars: number;
  readonly fromBeat: number;
  readonly tempo: number;
};
export type Pool = {
  readonly report: Report;
  readonly takes: readonly PooledTake[];
  readonly takeAt: (beat: number) => PooledTake;
};

/**
 * Reports of several takes of one chart laid one after the other, as if the choruses had been played in a
 * row: all counts add up, and whatever counts bars, beats or choruses
 * goes on counting. One take is left as it is. What is no count (swing, offset, share) is weighed by the
 * takes' notes.
 */
export function poolReports(takes: readonly FindingsRequest[]): Pool {
  const pooled: PooledTake[] = [];
  let [beats, bars] = [0, 0];
  for (const { chart, tempo, report } of takes) {
    const { formBeats, bars: inForm } = timelineOf(chart, tempo);
    pooled.push({ firstBar: bars, bars: inForm.length * report.summary.choruses, fromBeat: beats, tempo });
    beats += formBeats * report.summary.choruses;
    bars += inForm.length * report.summary.choruses;
  }
  const takeAt = (beat: number) =>
    pooled.findLast(({ fromBeat }) => fromBeat <= beat + 1e-6) ?? elementAt(pooled, 0);
  return {
    takes: pooled,
    takeAt,
    report:
      takes.length === 1
        ? elementAt(takes, 0).report
        : takes
            .slice(1)
            .reduce(
              (sum, { report }, index) => joined(sum, report, elementAt(pooled, index + 1)),
              elementAt(takes, 0).report,
            ),
  };
}

function joined(a: Report, b: Report, take: PooledTake): Report {
  const shift = shiftBy(a, take);
  return {
    ...b,
    notes: [...a.notes, ...b.notes.map((note) => shiftedNote(note, shift))],
    events: [
      ...a.events,
      ...b.events.map((event) => ({
        ...event,
        index: event.index + shift.events,
        onsetBeat: event.onsetBeat + shift.beats,
        noteIndices: shift.notesOf(event.noteIndices),
      })),
    ],
    figures: [
      ...a.figures,
      ...b.figures.map((figure) => ({
        ...figure,
        noteIndices: shift.notesOf(figure.noteIndices),
        targetIndex: shift.note(figure.targetIndex),
      })),
    ],
    shapes: [
      ...a.shapes,
      ...b.shapes.map((shape) => ({ ...shape, noteIndices: shift.notesOf(shape.noteIndices) })),
    ],
    changes: [...a.changes, ...b.changes.map((change) => shiftedChange(change, shift))],
    coverage: a.coverage.map((chord, index) => joinedCoverage(chord, elementAt(b.coverage, index))),
    phrases: [...a.phrases, ...b.phrases.map((phrase) => shiftedPhrase(phrase, shift))],
    stepOuts: [
      ...a.stepOuts,
      ...b.stepOuts.map((one) => ({
        ...one,
        noteIndices: shift.notesOf(one.noteIndices),
        homeIndex: one.homeIndex === null ? null : shift.note(one.homeIndex),
      })),
    ],
    place: [
      ...a.place,
      ...b.place.map((one) => ({
        ...one,
        fromBeat: one.fromBeat + shift.beats,
        toBeat: one.toBeat + shift.beats,
      })),
    ],
    time: joinedTime(a, b),
    line: summed(a.line, b.line, (name, x, y) => (name === 'longestRun' ? Math.max(x, y) : x + y)),
    arc: [...a.arc, ...b.arc.map((one) => ({ ...one, chorus: one.chorus + shift.choruses }))],
    bars: [...a.bars, ...b.bars.map((one) => ({ ...one, bar: one.bar + shift.bars }))],
    handovers: [
      ...a.handovers,
      ...b.handovers.map(({ hit, lastNote, ...one }) => ({
        ...one,
        bar: one.bar + shift.bars,
        beat: one.beat + shift.beats,
        ...(hit !== undefined && { hit: hit + shift.events }),
        ...(lastNote && { lastNote: { ...lastNote, noteIndex: shift.note(lastNote.noteIndex) } }),
      })),
    ],
    summary: summed(a.summary, b.summary, (_name, x, y) => x + y),
  };
}

/** By how much what a report numbers goes on where it is laid behind another one. */
type Shift = {
  readonly note: (index: number) => number;
  readonly notesOf: (indices: readonly number[]) => number[];
  readonly events: number;
  readonly phrases: number;
  readonly changes: number;
  readonly choruses: number;
  readonly motifs: number;
  readonly beats: number;
  readonly bars: number;
};

function shiftBy(a: Report, { firstBar, fromBeat }: PooledTake): Shift {
  const note = (index: number) => index + a.notes.length;
  return {
    note,
    notesOf: (indices) => indices.map(note),
    events: a.events.length,
    phrases: a.phrases.length,
    changes: a.changes.length,
    choruses: a.summary.choruses,
    motifs: 1 + Math.max(-1, ...a.phrases.flatMap(({ motif, theme }) => [motif ?? -1, theme ?? -1])),
    beats: fromBeat,
    bars: firstBar,
  };
}

const shiftedNote = (note: Report['notes'][number], shift: Shift): Report['notes'][number] => ({
  ...note,
  index: shift.note(note.index),
  onsetBeat: note.onsetBeat + shift.beats,
  event: note.event + shift.events,
  ...(note.targetIndex !== undefined && { targetIndex: shift.note(note.targetIndex) }),
  ...(note.from !== undefined && { from: shift.note(note.from) }),
});

function shiftedChange(change: Report['changes'][number], shift: Shift): Report['changes'][number] {
  const { landing, turnedAtBeat } = change;
  return {
    ...change,
    index: change.index + shift.changes,
    chorus: change.chorus + shift.choruses,
    beat: change.beat + shift.beats,
    ...(turnedAtBeat !== undefined && { turnedAtBeat: turnedAtBeat + shift.beats }),
    landing: {
      ...landing,
      noteIndex: landing.noteIndex === null ? null : shift.note(landing.noteIndex),
      ...(landing.resolutionIndex !== undefined && { resolutionIndex: shift.note(landing.resolutionIndex) }),
    },
  };
}

function shiftedPhrase(phrase: Report['phrases'][number], shift: Shift): Report['phrases'][number] {
  const { answers, changed, motif, theme } = phrase;
  return {
    ...phrase,
    startBeat: phrase.startBeat + shift.beats,
    endBeat: phrase.endBeat + shift.beats,
    noteIndices: shift.notesOf(phrase.noteIndices),
    ...(answers !== undefined && { answers: answers + shift.phrases }),
    ...(changed && {
      changed: changed.map((one) => ({ ...one, noteIndex: shift.note(one.noteIndex) })),
    }),
    ...(motif !== undefined && { motif: motif + shift.motifs }),
    ...(theme !== undefined && { theme: theme + shift.motifs }),
  };
}

type Coverage = Report['coverage'][number];

function joinedCoverage(a: Coverage, b: Coverage): Coverage {
  const names = [...new Set([...Object.keys(a.byInterval), ...Object.keys(b.byInterval)])];
  const byInterval = names.map((name) => {
    const [x, y] = [a.byInterval[name], b.byInterval[name]];
    const sum = (part: 'count' | 'beats' | 'strong') => (x?.[part] ?? 0) + (y?.[part] ?? 0);
    return [name, { count: sum('count'), beats: sum('beats'), strong: sum('strong') }] as const;
  });
  return {
    ...a,
    count: a.count + b.count,
    judged: a.judged || b.judged,
    byInterval: Object.fromEntries(byInterval),
    missing: a.missing.filter((name) => b.missing.includes(name)),
  };
}

/** What is no count is weighed by the notes it was measured on. */
function joinedTime(a: Report, b: Report): Report['time'] {
  const [own, others] = [a.notes.length, b.notes.length];
  const weigh = (x: number | null, y: number | null): number | null =>
    x === null || y === null ? (x ?? y) : (x * own + y * others) / Math.max(1, own + others);
  return {
    ...b.time,
    medianMs: weigh(a.time.medianMs, b.time.medianMs),
    spreadMs: weigh(a.time.spreadMs, b.time.spreadMs),
    offsetMs: weigh(a.time.offsetMs, b.time.offsetMs),
    byChorus: [
      ...a.time.byChorus,
      ...b.time.byChorus.map((one) => ({ ...one, chorus: one.chorus + a.summary.choruses })),
    ],
    upbeats: weigh(a.time.upbeats, b.time.upbeats),
    lagBeats: Math.abs(a.time.lagBeats) < Math.abs(b.time.lagBeats) ? a.time.lagBeats : b.time.lagBeats,
  };
}

function summed<T extends Record<keyof T, number>>(
  a: T,
  b: T,
  add: (name: keyof T, x: number, y: number) => number,
): T {
  const names = Object.keys(b) as (keyof T)[];
  return Object.fromEntries(names.map((name) => [name, add(name, a[name], b[name])])) as T;
}
