import type { Midi } from '../../vocabulary';

/** How the stand-in player plays: chances are 0 to 1. What is planted here must come back out of the whole chain. */
export type Profile = {
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

export const STEADY: Profile = {
  meet: 0.8, changes: {}, early: 0.08, late: 0.06, approach: 0.3, breathe: 0.3, density: 0.85, outside: 0.04, biasMs: 2, spreadMs: 12, swing: 0.6, lowest: 52, highest: 76,
};
