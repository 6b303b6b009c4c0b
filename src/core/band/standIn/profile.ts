import type { Midi } from '../../shared';

/**
 * How the stand-in player plays: chances are 0 to 1. What is planted here must come back out of the whole
 * chain.
 */
export type StandInProfile = {
  /** Chance of landing on a target at a change; `changes` overrides it for a chord, as in {"F7": 0.2}. */
  readonly meet: number;
  readonly changes: Readonly<Record<string, number>>;
  /** Chances that a landing is pushed ahead of the change, or comes half a beat after it. */
  readonly early: number;
  readonly late: number;
  /** Chance that the note before a landing is a half step from it. */
  readonly approach: number;
  /** Chance that a phrase ends, per half bar. */
  readonly breathe: number;
  /** Chance that an off-beat eighth is played at all. */
  readonly density: number;
  /** Chance that a passing note is taken from outside the plan. */
  readonly outside: number;
  /** Timing of every note against the grid, in milliseconds; positive is late. */
  readonly biasMs: number;
  readonly spreadMs: number;
  /** Where an off-beat eighth falls: 0.5 even, 0.67 a triplet. */
  readonly swing: number;
  readonly lowest: Midi;
  readonly highest: Midi;
};

export const STEADY: StandInProfile = {
  meet: 0.8,
  changes: {},
  early: 0.08,
  late: 0.06,
  approach: 0.3,
  breathe: 0.3,
  density: 0.85,
  outside: 0.04,
  biasMs: 2,
  spreadMs: 12,
  swing: 0.6,
  lowest: 52,
  highest: 76,
};

/** Players to try everything with, each with something to be told. */
export const CHARACTERS = {
  steady: { name: 'steady hand', words: 'meets four targets in five, in time', profile: {} },
  beginner: {
    name: 'careful beginner',
    words: 'few notes, long rests, often late, targets by chance',
    profile: {
      meet: 0.2,
      early: 0,
      late: 0.35,
      approach: 0.05,
      breathe: 0.6,
      density: 0.4,
      outside: 0,
      biasMs: 18,
      spreadMs: 28,
      swing: 0.55,
      lowest: 55,
      highest: 72,
    },
  },
  'scale-runner': {
    name: 'scale runner',
    words: 'never rests, never aims',
    profile: {
      meet: 0.2,
      early: 0.02,
      late: 0.05,
      approach: 0.05,
      breathe: 0.03,
      density: 1,
      outside: 0.02,
      biasMs: -12,
      spreadMs: 12,
    },
  },
  'bebop-student': {
    name: 'bebop student',
    words: 'approaches and lands, a little ahead',
    profile: {
      meet: 0.9,
      early: 0.2,
      late: 0.03,
      approach: 0.75,
      breathe: 0.2,
      density: 0.95,
      outside: 0.1,
      biasMs: -4,
      spreadMs: 10,
      swing: 0.62,
    },
  },
  'late-starter': {
    name: 'late starter',
    words: 'turns to each chord half a beat after it',
    profile: {
      meet: 0.75,
      early: 0,
      late: 0.8,
      approach: 0.2,
      breathe: 0.3,
      density: 0.8,
      outside: 0.02,
      biasMs: 22,
      spreadMs: 16,
    },
  },
  outside: {
    name: 'floats outside',
    words: 'leaves the chord often and does not always come home',
    profile: { meet: 0.45, early: 0.1, late: 0.1, approach: 0.3, breathe: 0.25, density: 0.9, outside: 0.35 },
  },
} as const satisfies Record<
  string,
  { readonly name: string; readonly words: string; readonly profile: Partial<StandInProfile> }
>;
export type StandInCharacter = keyof typeof CHARACTERS;
