import { chorusAt } from '../../chart';
import type { Decibels, Midi } from '../../shared';
import type { AnalysisScene } from '../harmonicContext/chordAssignment';
import type { JudgedNote } from '../noteFunctions/noteReport';

/**
 * One chorus in numbers: share of sounding time at each height, notes a bar, the mean pitch, and the mean peak
 * level where notes were heard.
 */
export type ChorusCurve = {
  readonly chorus: number;
  readonly heights: readonly [number, number, number, number, number];
  readonly meanHeight: number | null;
  readonly density: number;
  readonly register: Midi | null;
  readonly loudness: Decibels | null;
};

/**
 * Rule T11.3: Arc per chorus: height, density, register, loudness against the plan's intent. Choruses count
 * from 1.
 */
export function tensionCurveOf(
  { timeline }: AnalysisScene,
  notes: readonly JudgedNote[],
  choruses: number,
): ChorusCurve[] {
  const byChorus: JudgedNote[][] = Array.from({ length: choruses }, () => []);
  for (const judged of notes)
    if (judged.note.function !== 'grace')
      byChorus[chorusAt(timeline, judged.note.onsetBeat + 1e-6)]?.push(judged);
  return byChorus.map((inside, chorus) => {
    const beats: [number, number, number, number, number] = [0, 0, 0, 0, 0];
    for (const { note } of inside) for (const span of note.spans) beats[span.height] += span.beats;
    const total = beats.reduce((sum, value) => sum + value, 0);
    const share = beats.map((value) =>
      total > 0 ? round(value / total) : 0,
    ) as unknown as ChorusCurve['heights'];
    return {
      chorus: chorus + 1,
      heights: share,
      meanHeight: total > 0 ? round(share.reduce((sum, value, height) => sum + value * height, 0)) : null,
      density: round(inside.length / timeline.bars.length),
      register: mean(inside.map(({ voice }) => voice.pitch)),
      loudness: mean(inside.flatMap(({ voice }) => voice.played.level ?? [])),
    };
  });
}

const round = (value: number): number => Math.round(value * 1000) / 1000;
const mean = (values: readonly number[]): number | null =>
  values.length > 0 ? round(values.reduce((sum, value) => sum + value, 0) / values.length) : null;
