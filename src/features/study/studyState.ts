import type { NeckLayer } from './Handover';

export const VIEWS = { thread: 'Thread', place: 'One place', shapes: 'Shapes', grid: 'Grid' } as const;
export type StudyViewName = keyof typeof VIEWS;
export const VIEW_NAMES = Object.keys(VIEWS) as StudyViewName[];

/** A place in Study as an address names it. */
export type StudyPlace = { readonly at?: number; readonly position?: number; readonly view?: StudyViewName };

export type StudyState = {
  /** The chosen chord; beyond the end where the chart became shorter. */
  readonly selected: number;
  /** Lowest fret of the hand. */
  readonly position: number;
  readonly view: StudyViewName;
  readonly layer: NeckLayer;
};

export type StudyAction =
  | { readonly type: 'select'; readonly index: number }
  | { readonly type: 'step'; readonly by: 1 | -1 }
  | { readonly type: 'position'; readonly position: number }
  | { readonly type: 'slide'; readonly by: 1 | -1 }
  | { readonly type: 'view'; readonly view: StudyViewName }
  | { readonly type: 'nextLayer' };

/** How many chords there are, and the highest position of this guitar. */
export type StudyLimits = { readonly cells: number; readonly highest: number };

const NEXT_LAYER: Readonly<Record<NeckLayer, NeckLayer>> = { shape: 'scale', scale: 'plan', plan: 'shape' };
const FIRST_POSITION = 5;

export const openingPlace = ({ at, position, view }: StudyPlace): StudyState => ({
  selected: at ?? 0,
  position: position ?? FIRST_POSITION,
  view: view ?? 'thread',
  layer: 'shape',
});

/** What Study shows after an action; stepping goes round the form. */
export function studyReducer(
  state: StudyState,
  { limits, ...action }: StudyAction & { readonly limits: StudyLimits },
): StudyState {
  switch (action.type) {
    case 'select':
      return { ...state, selected: action.index };
    case 'step': {
      const from = Math.min(state.selected, limits.cells - 1);
      return { ...state, selected: (from + action.by + limits.cells) % limits.cells };
    }
    case 'position':
      return { ...state, position: action.position };
    case 'slide':
      return { ...state, position: Math.max(1, Math.min(limits.highest, state.position + action.by)) };
    case 'view':
      return { ...state, view: action.view };
    case 'nextLayer':
      return { ...state, layer: NEXT_LAYER[state.layer] };
  }
}
