import type { ChangeReport, LandingMark, NoteReport, PhraseEnd, Report, Timing } from '@/core/analyse';
import { intervalLabel } from '../intervalLabel';
import { elementAt, present, type Beats } from '@/core/shared';

/** A stretch of a note over one chord, as it is drawn. Absolute beats. */
export type DrawnPart = {
  readonly from: Beats;
  readonly to: Beats;
  readonly label: string;
  readonly height: number;
  readonly held: boolean;
};
/**
 * What the hand did to the note: a bend in [beats from the onset, semitones], a slide from another pitch,
 * vibrato, and whether it is in doubt.
 */
export type NoteGesture = {
  readonly bend?: readonly (readonly [Beats, number])[];
  readonly slideFrom?: number;
  readonly vibrato?: { readonly perBeat: number; readonly semitones: number };
  readonly doubtful?: boolean;
};
export type DrawnNote = {
  readonly index: number;
  readonly midi: number;
  readonly onset: Beats;
  readonly end: Beats;
  readonly landing: boolean;
  readonly parts: readonly DrawnPart[];
} & NoteGesture;
/** A step out of the scale, and the note it came home to. */
export type DrawnStepOut = { readonly from: number; readonly to: number; readonly home: number | null };
export type DrawnChange = {
  readonly at: Beats;
  readonly chorus: number;
  readonly mark: LandingMark;
  readonly word: string;
  readonly timing: Timing;
  readonly index: number;
};
export type DrawnPhrase = { readonly from: Beats; readonly to: Beats; readonly end: PhraseEnd };
export type DrawnFigure = { readonly from: number; readonly to: number };

/** A report as marks on the form. */
export type TakeOnForm = {
  readonly notes: readonly DrawnNote[];
  readonly changes: readonly DrawnChange[];
  readonly phrases: readonly DrawnPhrase[];
  readonly figures: readonly DrawnFigure[];
  readonly stepOuts: readonly DrawnStepOut[];
  /** Where the band rested. */ readonly alone: readonly (readonly [Beats, Beats])[];
};

/** @param gestureOf what the hand did to a note of the report */
export function takeOnForm(
  report: Report,
  marks: readonly LandingMark[],
  gestureOf: (index: number) => NoteGesture = () => ({}),
  alone: TakeOnForm['alone'] = [],
): TakeOnForm {
  const landed = new Set(report.changes.map((change) => change.landing.noteIndex));
  // diatonic approaches and suspensions get no bracket: only what leads in from outside the scale, or round
  // a target
  const figures = report.figures.filter((figure) =>
    figure.noteIndices.some((index) => elementAt(report.notes, index).chromatic),
  );
  const bracketed = new Set(figures.map((figure) => figure.targetIndex));
  return {
    notes: report.notes
      .filter((note) => note.function !== 'grace')
      .map((note) => ({ ...drawnNote(note, landed.has(note.index)), ...gestureOf(note.index) })),
    changes: report.changes.map((change, index) =>
      drawnChange(change, elementAt(marks, index), report, bracketed),
    ),
    phrases: report.phrases.map(({ startBeat, endBeat, end }) => ({ from: startBeat, to: endBeat, end })),
    figures: figures.map((figure) => ({ from: elementAt(figure.noteIndices, 0), to: figure.targetIndex })),
    stepOuts: report.stepOuts.map(({ noteIndices, homeIndex }) => ({
      from: elementAt(noteIndices, 0),
      to: elementAt(noteIndices, noteIndices.length - 1),
      home: homeIndex,
    })),
    alone,
  };
}

function drawnNote(note: NoteReport, landing: boolean): DrawnNote {
  let from = note.onsetBeat;
  const parts = note.spans
    .map((span, place) => {
      const part = {
        from,
        to: from + span.beats,
        label: intervalLabel(span.interval),
        height: span.height,
        held: place > 0,
      };
      from = part.to;
      return part;
    })
    .filter((part, place) => place === 0 || part.to - part.from > 0.2);
  return {
    index: note.index,
    midi: note.midi,
    onset: note.onsetBeat,
    end: note.onsetBeat + note.durationBeats,
    landing,
    parts,
  };
}

function drawnChange(
  change: ChangeReport,
  mark: LandingMark,
  report: Report,
  bracketed: ReadonlySet<number>,
): DrawnChange {
  const { landing } = change;
  const then =
    mark === 'target-late' && !bracketed.has(present(landing.resolutionIndex))
      ? `then ${intervalLabel(present(report.notes[present(landing.resolutionIndex)]).interval)}`
      : '';
  let word: string;
  if (landing.timing === 'none') {
    if (landing.rest) word = 'at rest';
    else word = 'no landing';
  } else word = [landing.timing === 'on' ? '' : landing.timing, then].filter(Boolean).join(', ');
  return {
    at: change.beat,
    chorus: change.chorus - 1,
    mark,
    word,
    timing: landing.timing,
    index: change.index,
  };
}
