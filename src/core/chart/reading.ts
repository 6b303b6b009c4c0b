import type { Chord, Key, Scale } from '../music';
import { borrowedFrom } from './borrowed';
import { chordScale, goesToMinor } from './chordScale';
import type { HarmonicReadingContext } from './context';
import { degreeOf, fallsAFifth, restsInBlues } from './degree';
import { isRelatedTwo, reasonOf, runnerUpOf, type OtherReading } from './explain';
import { impliedKey, overriddenScale, type Override } from './override';

/** A written chord read in its key. */
export type ChordReading = {
  readonly chord: Chord;
  readonly key: Key;
  /** Roman numeral without quality: `ii`, `V/ii`, `subV`, `bVII`. */
  readonly degree: string;
  readonly scale: Scale;
  /** Why, in one sentence. */
  readonly reason: string;
  readonly runnerUp: OtherReading | null;
  /** The scale a borrowed chord comes from. */
  readonly borrowedFrom: string | null;
  /** Where a dominant that falls a fifth goes to; null of any other chord. */
  readonly falls: 'to-minor' | 'to-major' | null;
  /** The next chord on another root lies a fifth below, whatever this one is. */
  readonly fallsAFifth: boolean;
  /** The player's own reading stands here. */
  readonly overridden: boolean;
};

/**
 * Reads one chord: its function, why, what else it could be, and its scale; the player's override before all.
 */
export function readingOf(context: HarmonicReadingContext, override: Override | null): ChordReading {
  const { chord, key } = context;
  const found = degreeOf(context);
  const degree = override?.degree ?? found;
  const scaleContext = override?.degree ? underDegree(context, override.degree) : context;
  const scale = (override && overriddenScale(override, chord)) ?? chordScale(scaleContext, degree);
  // a bluesy tonic and the related ii of another degree are at home where they stand
  const lender = restsInBlues(context) || isRelatedTwo(context) ? null : borrowedFrom(chord, key, degree);
  const own = override !== null;
  return {
    chord,
    key,
    degree,
    scale,
    falls: fallOf(scaleContext, degree),
    fallsAFifth: fallsAFifth(context),
    borrowedFrom: own && override.degree ? null : lender,
    overridden: own,
    reason: own ? 'You read it so.' : reasonOf(context, degree, lender),
    runnerUp:
      own && degree !== found
        ? { degree: found, reason: reasonOf(context, found, lender) }
        : runnerUpOf(context, degree),
  };
}

function fallOf(context: HarmonicReadingContext, degree: string): ChordReading['falls'] {
  if (context.chord.quality !== 'dominant' || !fallsAFifth(context) || restsInBlues(context)) return null;
  return goesToMinor(context, degree) ? 'to-minor' : 'to-major';
}

/**
 * What the chord-scale table sees under a degree the player chose: the key that makes it so, or the kind of
 * chord it resolves to.
 */
function underDegree(context: HarmonicReadingContext, degree: string): HarmonicReadingContext {
  const target = degree.split('/')[1];
  if (target === undefined) return { ...context, key: impliedKey(degree, context.chord, context.key) };
  return { ...context, resolvesToMinor: /^[b#]?[iv]/.test(target) };
}
