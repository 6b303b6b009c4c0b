import { accepted, refused, type Outcome } from '../shared';

/** Where the hand is meant to be over a chord: at a fret, in a shape by its number, in the nearest shape. */
export type HandAsked =
  | { readonly kind: 'fret'; readonly fret: number }
  | { readonly kind: 'shape'; readonly number: number }
  | { readonly kind: 'nearest' };

export const HAND_LIMITS = { lowest: 1, highest: 17, shapes: 7 } as const;
const EXAMPLE = '5, shape 1 or nearest';

/** The hand as it is written in a plan: `5`, `shape 1`, `nearest`. */
export function readHand(text: string): Outcome<HandAsked> {
  const word = text.trim().toLowerCase();
  if (word === 'nearest') return accepted({ kind: 'nearest' });
  const [, isShape, figure] = /^(shape )?(\d{1,2})$/.exec(word) ?? [];
  const number = Number(figure);
  if (isShape && number >= 1 && number <= HAND_LIMITS.shapes) return accepted({ kind: 'shape', number });
  if (!isShape && number >= HAND_LIMITS.lowest && number <= HAND_LIMITS.highest)
    return accepted({ kind: 'fret', fret: number });
  return refused({
    code: 'plan.hand',
    message: `“${text}” is no place of the hand: a fret from 1 to 17, a shape from 1 to 7, or the nearest shape.`,
    suggestion: EXAMPLE,
  });
}
