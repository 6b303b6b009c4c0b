import { analyse, type Report } from '@/core/analyse';
import { timelineOf, type Chart, type Timeline } from '@/core/chart';
import type { Motif } from '@/core/drills';
import { marksOf } from '@/core/findings';
import { noteName, spellOver, typeset } from '@/core/music';
import {
  formulaOfNotes,
  formulaWords,
  NEAR,
  sceneOf,
  type KeptPhrase,
  type PhraseNote,
} from '@/core/phrases';
import { soundingAt } from '@/core/chart';
import { planOn } from '@/core/plan';
import { elementAt, modulo } from '@/core/shared';
import { takeOnForm, type TakeOnForm } from '@/ui/form/takeOnForm';

/** A line held against its chords, as it is drawn. */
export type DrawnLine = { readonly report: Report; readonly drawn: TakeOnForm; readonly timeline: Timeline };

export function drawnLine(chart: Chart, tempo: number, notes: readonly PhraseNote[]): DrawnLine {
  const plan = { id: 'scale-per-chord' } as const;
  const timeline = timelineOf(chart, tempo);
  const report = analyse({ chart, tempo, notes, plan, leanMs: 0, choruses: 1 });
  return {
    report,
    drawn: takeOnForm(report, marksOf(report, planOn(chart, timeline, plan).plan, chart, tempo)),
    timeline,
  };
}

/** `1 5 1 3 5 1 9 3`; empty where a note has no chord. */
export function formulaText(phrase: KeptPhrase): string {
  const formula = formulaOfNotes(phrase.notes, sceneOf(phrase));
  return formula ? formulaWords(formula) : '';
}

/** The chords of a phrase by bar: `Dm7 G7 | Cmaj7`. */
export function chordsText(phrase: KeptPhrase): string {
  const { chart } = sceneOf(phrase);
  return chart.bars
    .map(({ cells }) => cells.map(({ chord }) => typeset(chord?.symbol ?? 'N.C.')).join(' '))
    .join(' | ');
}

/** The notes of a phrase by name, as its chords spell them. */
export function notesText(phrase: KeptPhrase): string {
  const { timeline } = sceneOf(phrase);
  return phrase.notes
    .map(({ onsetBeat, midi }) => {
      const { chord } = soundingAt(timeline, Math.max(0, onsetBeat + NEAR)).span;
      const pc = modulo(midi, 12);
      return chord ? typeset(noteName(spellOver(chord, pc))) : '–';
    })
    .join(' ');
}

/** A phrase as what a drill asks for on every chord: rhythm, contour and degrees. */
export function motifOf(phrase: KeptPhrase): Motif {
  const { notes } = phrase;
  const formula = formulaOfNotes(notes, sceneOf(phrase));
  const steps = notes.slice(1).map((note, index) => [note, elementAt(notes, index)] as const);
  return {
    gaps: steps.map(([note, before]) => note.onsetBeat - before.onsetBeat),
    moves: steps.map(([note, before]) => note.midi - before.midi),
    ...(formula && { formula }),
  };
}

/** What is asked of the band and the line to let a phrase be heard over some chords. */
export const soundOf = (chartText: string, tempo: number, notes: readonly PhraseNote[]) => ({
  type: 'line' as const,
  notes: [...notes],
  chartText,
  tempo,
  choruses: 1,
  seed: 1,
  leadSeconds: 0,
});
