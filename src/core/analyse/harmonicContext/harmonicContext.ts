import { modulo, type PitchClass, defined } from '../../shared';
import {
  hasTone,
  intervalOver,
  isDominant,
  keyScaleKind,
  pitchClass,
  rootPc,
  scaleOn,
  type Chord,
  type IntervalName,
  type Key,
  type Scale,
} from '../../music';
import {
  availableTensions,
  soundingAfter,
  type Harmony,
  type SoundingChord,
  type ChordSpan,
  type Timeline,
} from '../../chart';
import { toneWeightsOn } from './toneWeights';
import type { Tier, Voice } from '../notes/voice';

/**
 * What lies under a note: the chord of a stretch with its scale and colours, or the bare home scale over N.C.
 */
export type HarmonicContext = {
  readonly span: ChordSpan;
  readonly chord: Chord | null;
  /** Pitch classes of the chord-scale with chord tones and written tensions; of the home scale over N.C. */
  readonly scale: ReadonlySet<PitchClass>;
  readonly bareScale: Scale;
  readonly colours: ReadonlySet<PitchClass>;
  readonly home: Scale;
  /** The form is a blues or a lone dominant: blue notes and neutral thirds are at home. */
  readonly isBluesy: boolean;
  /** Pitch classes that are alterations of a dominant which falls a fifth to major: tension, not outside (T3.9). */
  readonly alterations: ReadonlySet<PitchClass>;
  /** The key's own scale: major or natural minor; the home scale over N.C. */
  readonly keyScale: Scale;
  /** A dominant whose next chord lies a fifth below. */
  readonly isOnItsWay: boolean;
  /** Not of the key: secondary or borrowed (T6.4). */
  readonly isForeign: boolean;
  /** Roman numeral; null over N.C. */
  readonly degree: string | null;
  /** The key's tonic. */
  readonly tonic: PitchClass;
  /** By pitch class: where it stands before figures are known. */
  readonly tiers: readonly BaseTier[];
  /** By pitch class: what a note says for this chord; 0 over N.C. */
  readonly gains: readonly number[];
  /** By pitch class: its interval over the chord; none over N.C. */
  readonly intervals: readonly IntervalName[];
};

/** A tier before figures are known: `outside` may yet become `approach`. */
export type BaseTier = Exclude<Tier, 'approach'>;

/** One ground per stretch of the form. */
export function harmonicContextsOf(timeline: Timeline, harmony: Harmony): HarmonicContext[] {
  return timeline.chordSpans.map((span, index) => withTables(groundOf(span, harmony, index)));
}

function groundOf(stretch: ChordSpan, harmony: Harmony, index: number): Bare {
  const reading = harmony.readings[index];
  const home = defined(harmony.homeScales[index]);
  const { blues, dominantVamp } = harmony.character;
  const isBluesy = blues || dominantVamp || home.kind === 'blues';
  if (!reading)
    return {
      span: stretch,
      chord: null,
      scale: new Set(home.pcs),
      bareScale: home,
      colours: new Set(),
      alterations: new Set(),
      home,
      isBluesy,
      keyScale: home,
      isOnItsWay: false,
      isForeign: false,
      degree: null,
      tonic: pitchClass(home.root),
    };
  const { chord, scale, degree, key } = reading;
  const own = [...chord.tones, ...chord.colours].map((tone) => tone.pc);
  const keyScale = scaleOn(key.tonic, keyScaleKind(key));
  return {
    span: stretch,
    chord,
    degree,
    home,
    isBluesy,
    alterations: new Set(reading.falls === 'to-major' ? alterationsOf(chord) : []),
    keyScale,
    isOnItsWay: (isDominant(chord) || degree === 'V') && reading.fallsAFifth,
    isForeign: isForeign(chord, keyScale, key, isBluesy),
    bareScale: scale,
    scale: new Set([...scale.pcs, ...own]),
    colours: new Set([
      ...availableTensions(chord, scale),
      ...(reading.falls === 'to-minor' ? alterationsOf(chord) : []),
    ]),
    tonic: pitchClass(key.tonic),
  };
}

/** A chord with a tone that its key has not; the dominant sevenths of a blues and the V of a minor key are its own. */
function isForeign(chord: Chord, keyScale: Scale, key: Key, isBluesy: boolean): boolean {
  const above = modulo(rootPc(chord) - pitchClass(key.tonic), 12);
  if (isBluesy && [0, 5, 7].includes(above)) return false;
  const leading = modulo(pitchClass(key.tonic) + 11, 12);
  const isOwn = (pc: PitchClass) => keyScale.pcs.includes(pc) || (key.minor && pc === leading);
  return chord.tones.some(({ pc }) => !isOwn(pc));
}

/** ♭9, ♯9 and ♭13 of a dominant, where they are no tones of it. */
const alterationsOf = (chord: Chord): PitchClass[] =>
  [1, 3, 8].map((step) => modulo(rootPc(chord) + step, 12)).filter((pc) => !hasTone(chord, pc));

type Bare = Omit<HarmonicContext, 'tiers' | 'gains' | 'intervals'>;

function withTables(bare: Bare): HarmonicContext {
  const pcs = Array.from({ length: 12 }, (_, pc) => pc);
  const { chord } = bare;
  return {
    ...bare,
    intervals: chord ? pcs.map((pc) => intervalOver(chord, pc)) : [],
    tiers: pcs.map((pc) => tierOf(bare, pc)),
    gains: chord ? toneWeightsOn(chord, bare.scale) : pcs.map(() => 0),
  };
}

/** Where a pitch class stands over a ground before figures are known. */
export const baseTier = (context: HarmonicContext, pc: PitchClass): BaseTier => defined(context.tiers[pc]);

function tierOf(context: Bare, pc: PitchClass): BaseTier {
  if (context.chord && hasTone(context.chord, pc)) return 'chord';
  if (context.colours.has(pc)) return 'colour';
  return context.scale.has(pc) || context.home.pcs.includes(pc) ? 'scale' : 'outside';
}

/**
 * An unwritten ♭9, ♯9 or ♭13 of a dominant that falls a fifth to major, in neither scale: tension of the
 * dominant, never outside (T3.9). One that leads on in a figure stays an approach.
 */
export const isAlteration = (context: HarmonicContext, pc: PitchClass): boolean =>
  context.alterations.has(pc) && baseTier(context, pc) === 'outside';

/**
 * As `baseTier`, for a note as it sounds: on a blues chart a neutral third counts as the chord's third.
 */
export const voiceTier = (context: HarmonicContext, voice: Voice): BaseTier =>
  context.isBluesy && isNeutralThird(context, voice) ? 'chord' : baseTier(context, voice.pc);

/** As `voiceTier`, for a note that is arrived at or goes on sounding: an alteration is tension, not outside. */
export const restingTier = (context: HarmonicContext, voice: Voice): BaseTier => {
  const tier = voiceTier(context, voice);
  return tier === 'outside' && isAlteration(context, voice.pc) ? 'scale' : tier;
};

/** 25–75 cents above the ♭3 of the chord itself. */
export function isNeutralThird({ chord }: HarmonicContext, voice: Voice): boolean {
  if (!chord) return false;
  return isNeutralOver(voice, rootPc(chord) + 3);
}

function isNeutralOver({ pitch, bentBy }: Voice, flat: number): boolean {
  const over = modulo(pitch + bentBy - flat, 12);
  return over >= 0.25 - 1e-9 && over <= 0.75 + 1e-9;
}

/** T6.1: chromatic = not in the chord-scale, where chord tones and written tensions count as in it. */
export const isChromatic = (context: HarmonicContext, pc: PitchClass): boolean => !context.scale.has(pc);

/** T4.2: the neutral third, fifth or seventh: 25–75 cents above a ♭3, ♭5 or ♭7 of chord or key. */
export function neutralInterval(context: HarmonicContext, voice: Voice): 'n3' | 'n5' | 'n7' | null {
  if (Math.abs(voice.bentBy) < 0.2) return null;
  const NAMES = [
    [3, 'n3'],
    [6, 'n5'],
    [10, 'n7'],
  ] as const;
  const roots = [...(context.chord ? [rootPc(context.chord)] : []), context.tonic];
  for (const root of roots)
    for (const [step, name] of NAMES) if (isNeutralOver(voice, root + step)) return name;
  return null;
}

/** The interval a note prints over its chord; null over N.C. */
export function printedInterval(context: HarmonicContext, voice: Voice): IntervalName | null {
  if (!context.chord) return null;
  return neutralInterval(context, voice) ?? defined(context.intervals[voice.pc]);
}

/** N.C. of at most one bar before a chord lends its notes to that chord; longer ones have no chord. */
export function groundedSounding(timeline: Timeline, now: SoundingChord): SoundingChord {
  if (now.span.chord) return now;
  const bar = defined(timeline.bars[now.span.bar]);
  const from = startOfSilence(timeline, now);
  let next = soundingAfter(timeline, now);
  while (!next.span.chord && next.start - from <= bar.end - bar.start + 1e-9)
    next = soundingAfter(timeline, next);
  return next.span.chord && next.start - from <= bar.end - bar.start + 1e-9 ? next : now;
}

/**
 * Where an N.C. began: stretches without a chord, back to the last chord (in the chorus before, too) or the
 * first beat.
 */
function startOfSilence(timeline: Timeline, now: SoundingChord): number {
  let index = now.span.index;
  const { chordSpans: spans, formBeats } = timeline;
  while (index > 0 && !defined(spans[index - 1]).chord) index--;
  if (index > 0 || now.chorus === 0 || defined(spans[spans.length - 1]).chord)
    return defined(spans[index]).start + now.chorus * formBeats;
  const last = spans.findLastIndex((span) => span.chord !== null);
  return last < 0 ? 0 : defined(spans[last]).end + (now.chorus - 1) * formBeats;
}
