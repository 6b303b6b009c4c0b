import { HAND, TIMES } from './handReaders';
import { LANDING, LEADING } from './landingReaders';
import { MATERIAL, SHAPES } from './materialReaders';
import { PHRASES } from './phraseReaders';
import type { WishReader } from './reader';

/** Every way of saying a rule. The ones above win over those below. */
export const READERS: readonly { readonly pattern: RegExp; readonly make: WishReader[1] }[] = [
  ...LEADING,
  ...LANDING,
  ...SHAPES,
  ...MATERIAL,
  ...PHRASES,
  ...HAND,
  ...TIMES,
].map(([pattern, make]) => ({ pattern: new RegExp(`^(?:${pattern})$`), make }));
