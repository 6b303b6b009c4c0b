import type { Report } from '../analyse';
import { formPositionOf, type Timeline } from '../chart';

/** A line of CSV (RFC 4180): quoted where a comma, quote or line end stands in it. */
const line = (cells: readonly (string | number | boolean | null | undefined)[]): string =>
  cells
    .map((cell) => {
      let text: string;
      if (cell === null || cell === undefined) text = '';
      else if (typeof cell === 'number') text = String(Math.round(cell * 1e6) / 1e6);
      else text = String(cell);
      return /[",\r\n]/.test(text) ? `"${text.replaceAll('"', '""')}"` : text;
    })
    .join(',');

const place = (timeline: Timeline, beat: number) => {
  if (beat < 0) return { chorus: 1, bar: 0, beat: beat + 1 };
  const at = formPositionOf(timeline, beat);
  return { chorus: at.chorus + 1, bar: at.bar + 1, beat: at.beatInBar + 1 };
};

/** Every note of a report, one a line; choruses, bars and beats from 1. */
export function notesCsv(report: Report, timeline: Timeline): string {
  const head = [
    'index',
    'chorus',
    'bar',
    'beat',
    'onset_beat',
    'duration_beats',
    'midi',
    'chord',
    'interval',
    'height',
    'tier',
    'function',
    'in_plan',
    'target_index',
    'flags',
  ];
  return (
    [
      line(head),
      ...report.notes.map((note) => {
        const at = place(timeline, note.onsetBeat);
        return line([
          note.index,
          at.chorus,
          at.bar,
          at.beat,
          note.onsetBeat,
          note.durationBeats,
          note.midi,
          note.chord,
          note.interval,
          note.height,
          note.tier,
          note.function,
          note.inPlan,
          note.targetIndex,
          note.flags.join(' '),
        ]);
      }),
    ].join('\r\n') + '\r\n'
  );
}

/** Every change of a report with its landing, one a line. */
export function changesCsv(report: Report): string {
  const head = [
    'index',
    'chorus',
    'bar',
    'beat',
    'from',
    'to',
    'verdict',
    'interval',
    'timing',
    'at_rest',
    'resolved_after_beats',
    'connection',
    'semitones',
    'nearest_target',
    'fix_to',
  ];
  return (
    [
      line(head),
      ...report.changes.map((change) =>
        line([
          change.index,
          change.chorus,
          change.bar,
          change.beat,
          change.from,
          change.to,
          change.landing.verdict,
          change.landing.interval,
          change.landing.timing,
          change.landing.rest ?? false,
          change.landing.resolvedAfterBeats,
          change.connection.kind,
          change.connection.semitones,
          change.connection.nearestTarget?.midi,
          change.fix?.toMidi,
        ]),
      ),
    ].join('\r\n') + '\r\n'
  );
}
