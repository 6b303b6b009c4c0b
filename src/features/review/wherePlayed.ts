import { formPositionOf, barStart } from '@/core/chart';
import type { NoteId } from '@/core/correct';
import { fingeringOf } from '@/core/findings';
import type { Instrument } from '@/core/neck';
import { elementAt, type Beats } from '@/core/shared';
import { lastPlace } from '@/ui/neck/HandPlace';
import type { ReviewModel } from './useReviewModel';

/** Of what the place on the neck is said: the bar or the phrase of what is selected, or the whole take. */
export const HAND_SCOPES = [
  ['bar', 'this bar'],
  ['phrase', 'this phrase'],
  ['take', 'the whole take'],
] as const;
export type HandScope = (typeof HAND_SCOPES)[number][0];

export type WherePlayed = {
  readonly scope: HandScope;
  /** The lowest fret of the hand over these notes; null where it is not said. */
  readonly value: number | 'several' | null;
  readonly set: (fret: number | null) => void;
  /** The hand by so many frets from where it lies now. */
  readonly move: (by: 1 | -1) => void;
};

type Model = Pick<ReviewModel, 'judgement' | 'corrections' | 'current' | 'chosen' | 'state'>;

/** Where what is selected was played, and the ways to say it: kept as an edit, so that undo takes it back. */
export function wherePlayed(model: Model, instrument: Instrument): WherePlayed {
  const { judgement, corrections, current, state } = model;
  const { report, places } = judgement;
  const scope = current === null ? 'take' : state.handScope;
  const notes = notesIn(model, scope);
  const said = new Set(notes.map((index) => elementAt(report.notes, index).position ?? null));
  const value = said.size > 1 ? 'several' : ([...said][0] ?? null);
  const set = (fret: number | null) => {
    const ids = [...new Set(notes.map((index): NoteId => elementAt(places, index)))];
    const [id] = ids;
    if (id !== undefined) corrections.edit({ kind: 'position', id, ids, fret });
  };
  return {
    scope,
    value,
    set,
    move: (by) => {
      const now = typeof value === 'number' ? value : likeliest(model, notes, instrument);
      set(Math.max(1, Math.min(lastPlace(instrument), now + by)));
    },
  };
}

/** A note that is struck so little before its bar belongs to it. */
const EARLY: Beats = 0.1;

/** The notes of the report in a scope, by their place there. */
function notesIn({ judgement, chosen }: Model, scope: HandScope): readonly number[] {
  const { report, timeline } = judgement;
  const all = report.notes.map(({ index }) => index);
  const note = chosen === null ? undefined : report.notes[chosen];
  if (scope === 'take' || !note) return all;
  if (scope === 'phrase')
    return (
      report.phrases.find(({ noteIndices }) => noteIndices.includes(note.index))?.noteIndices ?? [note.index]
    );
  const { chorus, bar } = formPositionOf(timeline, Math.max(0, note.onsetBeat + EARLY));
  const throughBar = chorus * timeline.bars.length + bar + 1;
  const [first, end] = [barStart(timeline, throughBar), barStart(timeline, throughBar + 1)];
  return all.filter((index) => {
    const { onsetBeat } = elementAt(report.notes, index);
    return onsetBeat >= first - EARLY && onsetBeat < end - EARLY;
  });
}

/** The lowest fret of the hand where these notes most probably lie. */
function likeliest({ judgement }: Model, notes: readonly number[], instrument: Instrument): number {
  const { touchAt } = fingeringOf(judgement.report, instrument);
  const touch = notes.map(touchAt).find((one) => one && one.finger > 0);
  return touch ? Math.max(1, touch.fret - touch.finger + 1) : 1;
}
