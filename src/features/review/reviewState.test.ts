import { expect, test } from '@jest/globals';
import { openingState, reviewReducer, viewFrom, type ReviewAction, type ReviewState } from './reviewState';

const after = (actions: readonly ReviewAction[], from: ReviewState = openingState('form', null)) =>
  actions.reduce(reviewReducer, from);

test('views go round by their order, and standing back leads back to the form', () => {
  const forward = Array<ReviewAction>(6).fill({ type: 'stepView', by: 1 });
  expect(forward.map((_, count) => after(forward.slice(0, count + 1)).view)).toEqual([
    'page',
    'boards',
    'correct',
    'compare',
    'words',
    'form',
  ]);
  expect(after([{ type: 'stepView', by: -1 }]).view).toBe('words');
  expect(after([{ type: 'standBack' }, { type: 'standBack' }]).view).toBe('form');
  expect([viewFrom('far'), viewFrom('boards'), viewFrom('nonsense'), viewFrom(undefined)]).toEqual([
    'far',
    'boards',
    'form',
    'form',
  ]);
});

test('a selection opens its chorus and holds its note; letting go keeps the note under the hand', () => {
  const selected = after([
    { type: 'select', selection: { kind: 'change', index: 4 }, chorus: 2, held: 'h7' },
  ]);
  expect(selected).toMatchObject({ selection: { kind: 'change', index: 4 }, chorus: 2, held: 'h7' });
  expect(after([{ type: 'clear' }], selected)).toMatchObject({ selection: null, held: 'h7' });
  const noteless = after(
    [{ type: 'select', selection: { kind: 'chorus', index: 0 }, chorus: 0, held: null }],
    selected,
  );
  expect(noteless.held).toBe('h7');
  expect(after([{ type: 'hold', id: 'h9', index: 3 }], selected).selection).toEqual({
    kind: 'note',
    index: 3,
  });
  expect(after([{ type: 'hold', id: null, index: -1 }], selected).selection).toEqual(selected.selection);
});

test('escape closes one thing after the other: the zoom first, then selection and kind', () => {
  const zoomed = after([
    { type: 'select', selection: { kind: 'note', index: 1 }, chorus: 0, held: null },
    { type: 'set', change: { kind: 'C7→F7' } },
    { type: 'toggleZoom' },
  ]);
  const once = after([{ type: 'escape' }], zoomed);
  expect([once.zoomed, once.selection, once.kind]).toEqual([false, { kind: 'note', index: 1 }, 'C7→F7']);
  const twice = after([{ type: 'escape' }], once);
  expect([twice.selection, twice.kind]).toEqual([null, null]);
  expect(after([{ type: 'toggleDrawBy' }]).drawBy).toBe('pitch');
});
