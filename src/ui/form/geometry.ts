import type { Beats } from '@/core/vocabulary';
import type { FormRowModel } from './formRows';
import type { TakeOnForm } from './takeOnForm';

/** Heights of a row's chords and of one chorus, and the room for its number, in drawing units. */
export const HEAD = 26;
export const LANE = 48;
export const GUTTER = 20;

export type RowGeometry = { readonly x: (beatOnForm: Beats) => number; readonly beatWidth: number; readonly left: number; readonly right: number };

/** One lead-in beat repeated from the row before, then the row. */
export function rowGeometry(row: FormRowModel, width: number): RowGeometry {
  const beatWidth = (width - GUTTER) / (row.end - row.start + 1);
  const x = (beat: Beats) => GUTTER + (beat - row.start + 1) * beatWidth;
  return { x, beatWidth, left: x(row.start), right: x(row.end) };
}

export type FormRowProps = {
  readonly row: FormRowModel;
  readonly width: number;
  /** Beats of one chorus, and which choruses are stacked, from 0. */
  readonly formBeats: Beats;
  readonly choruses: readonly number[];
  readonly take: TakeOnForm | null;
  readonly cursor?: Beats | null;
  readonly selected?: number | null;
  readonly onNote?: (index: number) => void;
  readonly onBeat?: (beat: Beats) => void;
};
