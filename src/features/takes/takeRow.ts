import { readChart, timelineOf } from '@/core/chart';
import { certain } from '@/core/vocabulary';
import type { Review } from '@/server/reviews';
import { takeMoment } from './moment';
import type { TakeRow } from './TakesScreen';

/** One line of the list for a review. */
export function takeRow({ take, report, marks }: Review): TakeRow {
  const judged = report.mutedBand.segments.filter((segment) => segment.verdict !== 'silent');
  const round = (beat: number) => Math.round(beat * 100) / 100;
  return {
    id: take.id, number: take.number, title: take.title, when: takeMoment(take.createdAt), planId: take.plan.id, tempo: take.tempo,
    met: report.summary.targetsMet, judged: report.summary.judgedChanges, heard: judged.filter((segment) => segment.verdict === 'heard').length, segments: judged.length,
    profile: {
      beats: timelineOf(certain(readChart(take.chartText)), take.tempo).formBeats * report.summary.choruses,
      notes: report.notes.filter((note) => note.top).map((note) => [round(note.onsetBeat), round(note.onsetBeat + note.durationBeats), note.height]),
      gates: report.changes.map((change, index) => [change.beat, marks[index]!]),
    },
  };
}
