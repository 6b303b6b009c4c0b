import type { Scene } from '../chord/belonging';
import type { NoteReport } from '../deeds/noteReport';

/** One chorus in numbers: share of sounding time at each height, notes a bar, and where the line lay. */
export type ChorusArc = { readonly chorus: number; readonly heights: readonly [number, number, number, number, number]; readonly meanHeight: number | null; readonly density: number; readonly register: number | null };

/**
 * Rule: 2-theory, "Time, line, arc": "Arc per chorus: height, density, register, loudness against the plan's intent." Choruses count from 1; loudness is not in the notes.
 */
export function arcOf({ timeline }: Scene, notes: readonly NoteReport[], choruses: number): ChorusArc[] {
  const byChorus: NoteReport[][] = Array.from({ length: choruses }, () => []);
  for (const note of notes) if (note.function !== 'grace') byChorus[Math.max(0, Math.floor(note.onsetBeat / timeline.formBeats + 1e-6))]?.push(note);
  return byChorus.map((inside, chorus) => {
    const beats: [number, number, number, number, number] = [0, 0, 0, 0, 0];
    for (const note of inside) for (const span of note.spans) beats[span.height] += span.beats;
    const total = beats.reduce((sum, value) => sum + value, 0);
    const share = beats.map((value) => (total > 0 ? round(value / total) : 0)) as unknown as ChorusArc['heights'];
    return {
      chorus: chorus + 1, heights: share, meanHeight: total > 0 ? round(share.reduce((sum, value, height) => sum + value * height, 0)) : null,
      density: round(inside.length / timeline.bars.length), register: inside.length > 0 ? round(inside.reduce((sum, note) => sum + note.midi, 0) / inside.length) : null,
    };
  });
}

const round = (value: number): number => Math.round(value * 1000) / 1000;
