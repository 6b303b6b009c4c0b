import type { NoteId } from '@/core/correct';
import { elementAt } from '@/core/shared';
import type { DrawBy } from './FormPicture';
import type { Selection } from './selection';
import type { HandScope } from './wherePlayed';

export const VIEWS = [
  ['form', 'The form'],
  ['page', 'The page'],
  ['boards', 'Boards'],
  ['correct', 'Correct'],
  ['compare', 'Compare'],
  ['words', 'Words, files'],
] as const;
type NearView = (typeof VIEWS)[number][0];
export type View = NearView | 'far';

/** What a review shows of its take. What the take is, and what was found in it, is not part of this. */
export type ReviewState = {
  readonly view: View;
  readonly selection: Selection | null;
  /** The note under the hand in Correct. */
  readonly held: NoteId | null;
  readonly drawBy: DrawBy;
  /** The chorus that is open where not all can be, from 0. */
  readonly chorus: number;
  readonly zoomed: boolean;
  /** The bar under the hand in Correct is played again. */
  readonly isPlayingAgain: boolean;
  /** The kind of change that is lit; null for all. */
  readonly kind: string | null;
  /** The change of the form shown while standing back. */
  readonly formChange: number;
  /** Of what the place on the neck is said. */
  readonly handScope: HandScope;
  readonly trouble: string | null;
};

export type ReviewAction =
  | { readonly type: 'view'; readonly view: View }
  | { readonly type: 'stepView'; readonly by: 1 | -1 }
  | { readonly type: 'standBack' }
  | {
      readonly type: 'select';
      readonly selection: Selection;
      readonly chorus: number;
      readonly held: NoteId | null;
    }
  | { readonly type: 'hold'; readonly id: NoteId | null; readonly index: number }
  | { readonly type: 'clear' }
  | { readonly type: 'escape' }
  | { readonly type: 'toggleDrawBy' }
  | { readonly type: 'toggleZoom' }
  | { readonly type: 'set'; readonly change: Partial<Plain> };

/** What is set without anything else following from it. */
type Plain = Pick<ReviewState, 'chorus' | 'kind' | 'formChange' | 'handScope' | 'trouble' | 'isPlayingAgain'>;

export const viewFrom = (text: string | undefined): View =>
  text === 'far' ? 'far' : (VIEWS.find(([id]) => id === text)?.[0] ?? 'form');

/** @param places names of the report's notes: one that an address points at is under the hand */
export const openingState = (
  view: View,
  selection: Selection | null,
  places: readonly NoteId[] = [],
): ReviewState => ({
  view,
  selection,
  held: selection?.kind === 'note' ? (places[selection.index] ?? null) : null,
  drawBy: 'height',
  chorus: 0,
  zoomed: false,
  isPlayingAgain: false,
  kind: null,
  formChange: 0,
  handScope: 'phrase',
  trouble: null,
});

/** The view so many steps further; from two metres away as from the form. */
function stepView(view: View, by: 1 | -1): View {
  const at = VIEWS.findIndex(([id]) => id === view);
  return elementAt(VIEWS, (at + by + VIEWS.length) % VIEWS.length)[0];
}

/** What a review shows after `action`. */
export const reviewReducer = (state: ReviewState, action: ReviewAction): ReviewState => ({
  ...state,
  ...changeBy(state, action),
});

/** What an action changes; each kind of action in one place. */
function changeBy(state: ReviewState, action: ReviewAction): Partial<ReviewState> {
  switch (action.type) {
    case 'view':
      return { view: action.view };
    case 'stepView':
      return { view: stepView(state.view, action.by) };
    case 'standBack':
      return { view: state.view === 'far' ? 'form' : 'far' };
    case 'select':
    case 'hold':
    case 'clear':
    case 'escape':
      return selectionBy(state, action);
    case 'toggleDrawBy':
      return { drawBy: state.drawBy === 'height' ? 'pitch' : 'height' };
    case 'toggleZoom':
      return { zoomed: !state.zoomed };
    case 'set':
      return action.change;
  }
}

type SelectionAction = Extract<ReviewAction, { type: 'select' | 'hold' | 'clear' | 'escape' }>;

function selectionBy(state: ReviewState, action: SelectionAction): Partial<ReviewState> {
  switch (action.type) {
    case 'select':
      return { selection: action.selection, chorus: action.chorus, held: action.held ?? state.held };
    case 'hold':
      return {
        held: action.id,
        ...(action.index >= 0 && { selection: { kind: 'note', index: action.index } as const }),
      };
    case 'clear':
      return { selection: null };
    case 'escape':
      return state.zoomed ? { zoomed: false } : { selection: null, kind: null };
  }
}
