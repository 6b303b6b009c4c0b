import type { Beats } from '@/core/shared';
import type { FormRowModel } from './formRows';
import type { TakeOnForm } from './takeOnForm';

/** Heights of a row's chords and of one chorus, and the room for its number, in drawing units. */
export const HEAD = 26;
export const LANE = 48;
export const GUTTER = 20;

/**
 * How one chorus of a row is drawn: by height over the ground, by pitch on the ledges of its chords, or closed
 * to a thin profile.
 */
export type LaneSpec = {
  readonly chorus: number;
  readonly view: 'height' | 'pitch' | 'closed';
  readonly height: number;
};
export const CLOSED_LANE = 28;
export const PITCH_LANE = 88;
export const ZOOMED_LANE = 300;
/** More choruses than this do not fit one over the other: all but one are closed. */
export const MOST_OPEN = 3;

export const lanesHeight = (lanes: readonly LaneSpec[]): number =>
  lanes.reduce((sum, { height }) => sum + height, 0);

export type RowGeometry = {
  readonly x: (beatOnForm: Beats) => number;
  readonly beatWidth: number;
  readonly left: number;
  readonly right: number;
};

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
  /** How each of them is drawn; by height where it is not said. */
  readonly lanes?: readonly LaneSpec[];
  readonly take: TakeOnForm | null;
  readonly cursor?: Beats | null;
  readonly selected?: number | null;
  /** Beats to underline: what is selected, or goes round. */
  readonly marked?: readonly [Beats, Beats] | null;
  /** The one-note fix of what is selected: that note at another pitch. */
  readonly fix?: { readonly noteIndex: number; readonly toMidi: number; readonly label: string } | null;
  readonly onNote?: (index: number) => void;
  readonly onBeat?: (beat: Beats) => void;
  /** Opens a closed chorus. */
  readonly onChorus?: (chorus: number) => void;
};
