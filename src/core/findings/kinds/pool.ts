import type { Report } from '../../analyse';
import { timelineOf } from '../../chart';
import type { FindingsRequest } from './finding';
import { elementAt } from '../../shared';

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

function joined(a: Report, b: Report, { firstBar, fromBeat }: PooledTake): Report {
  const [notes, events, phrases, changes, choruses] = [
    a.notes.length,
    a.events.length,
    a.phrases.length,
    a.changes.length,
    a.summary.choruses,
  ];
  const note = (index: number) => index + notes;
  const all = (indices: readonly number[]) => indices.map(note);
  const weigh = (x: number | null, y: number | null): number | null =>
    x === null || y === null
      ? (x ?? y)
      : (x * notes + y * b.notes.length) / Math.max(1, notes + b.notes.length);
  const motifs = 1 + Math.max(-1, ...a.phrases.flatMap(({ motif, theme }) => [motif ?? -1, theme ?? -1]));
  return {
    ...b,
    notes: [
      ...a.notes,
      ...b.notes.map((one) => ({
        ...one,
        index: note(one.index),
        onsetBeat: one.onsetBeat + fromBeat,
        event: one.event + events,
        ...(one.targetIndex === undefined ? {} : { targetIndex: note(one.targetIndex) }),
        ...(one.from === undefined ? {} : { from: note(one.from) }),
      })),
    ],
    events: [
      ...a.events,
      ...b.events.map((one) => ({
        ...one,
        index: one.index + events,
        onsetBeat: one.onsetBeat + fromBeat,
        noteIndices: all(one.noteIndices),
      })),
    ],
    figures: [
      ...a.figures,
      ...b.figures.map((one) => ({
        ...one,
        noteIndices: all(one.noteIndices),
        targetIndex: note(one.targetIndex),
      })),
    ],
    shapes: [...a.shapes, ...b.shapes.map((one) => ({ ...one, noteIndices: all(one.noteIndices) }))],
    changes: [
      ...a.changes,
      ...b.changes.map((one) => ({
        ...one,
        index: one.index + changes,
        chorus: one.chorus + choruses,
        beat: one.beat + fromBeat,
        ...(one.turnedAtBeat === undefined ? {} : { turnedAtBeat: one.turnedAtBeat + fromBeat }),
        landing: {
          ...one.landing,
          noteIndex: one.landing.noteIndex === null ? null : note(one.landing.noteIndex),
          ...(one.landing.resolutionIndex === undefined
            ? {}
            : { resolutionIndex: note(one.landing.resolutionIndex) }),
        },
      })),
    ],
    coverage: a.coverage.map((one, index) => {
      const other = elementAt(b.coverage, index);
      const byInterval = Object.fromEntries(
        [...new Set([...Object.keys(one.byInterval), ...Object.keys(other.byInterval)])].map((name) => {
          const [x, y] = [one.byInterval[name], other.byInterval[name]];
          return [
            name,
            {
              count: (x?.count ?? 0) + (y?.count ?? 0),
              beats: (x?.beats ?? 0) + (y?.beats ?? 0),
              strong: (x?.strong ?? 0) + (y?.strong ?? 0),
            },
          ];
        }),
      );
      return {
        ...one,
        count: one.count + other.count,
        judged: one.judged || other.judged,
        byInterval,
        missing: one.missing.filter((name) => other.missing.includes(name)),
      };
    }),
    phrases: [
      ...a.phrases,
      ...b.phrases.map((one) => ({
        ...one,
        startBeat: one.startBeat + fromBeat,
        endBeat: one.endBeat + fromBeat,
        noteIndices: all(one.noteIndices),
        ...(one.answers === undefined ? {} : { answers: one.answers + phrases }),
        ...(one.changed
          ? { changed: one.changed.map((varied) => ({ ...varied, noteIndex: note(varied.noteIndex) })) }
          : {}),
        ...(one.motif === undefined ? {} : { motif: one.motif + motifs }),
        ...(one.theme === undefined ? {} : { theme: one.theme + motifs }),
      })),
    ],
    stepOuts: [
      ...a.stepOuts,
      ...b.stepOuts.map((one) => ({
        ...one,
        noteIndices: all(one.noteIndices),
        homeIndex: one.homeIndex === null ? null : note(one.homeIndex),
      })),
    ],
    place: [
      ...a.place,
      ...b.place.map((one) => ({ ...one, fromBeat: one.fromBeat + fromBeat, toBeat: one.toBeat + fromBeat })),
    ],
    time: {
      ...b.time,
      medianMs: weigh(a.time.medianMs, b.time.medianMs),
      spreadMs: weigh(a.time.spreadMs, b.time.spreadMs),
      offsetMs: weigh(a.time.offsetMs, b.time.offsetMs),
      upbeats: weigh(a.time.upbeats, b.time.upbeats),
      lagBeats: Math.abs(a.time.lagBeats) < Math.abs(b.time.lagBeats) ? a.time.lagBeats : b.time.lagBeats,
    },
    line: Object.fromEntries(
      Object.entries(b.line).map(([name, value]) => [
        name,
        name === 'longestRun'
          ? Math.max(a.line.longestRun, value)
          : a.line[name as keyof Report['line']] + value,
      ]),
    ) as Report['line'],
    arc: [...a.arc, ...b.arc.map((one) => ({ ...one, chorus: one.chorus + choruses }))],
    bars: [...a.bars, ...b.bars.map((one) => ({ ...one, bar: one.bar + firstBar }))],
    handovers: [
      ...a.handovers,
      ...b.handovers.map((one) => ({ ...one, bar: one.bar + firstBar, beat: one.beat + fromBeat })),
    ],
    summary: Object.fromEntries(
      Object.entries(b.summary).map(([name, value]) => [
        name,
        a.summary[name as keyof Report['summary']] + value,
      ]),
    ) as Report['summary'],
  };
}
