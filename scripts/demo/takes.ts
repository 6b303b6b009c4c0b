import type { StandInProfile } from '../../src/core/band';
import type { PlanId } from '../../src/core/plan';
import type { DemoChart } from './charts';

/** A take of the demo: who played what, how well, and how long ago. Everything else is heard and judged. */
export type DemoTake = {
  chart: DemoChart;
  daysAgo: number;
  hour: number;
  tempo: number;
  choruses: number;
  plan: PlanId;
  seed: number;
  profile: Partial<StandInProfile>;
};

/**
 * Four weeks of getting ready for a Thursday jam: slower and from the home scale at first, then the changes
 * one by one.
 */
export const DEMO_TAKES: readonly DemoTake[] = [
  {
    chart: 'lamplight',
    daysAgo: 25,
    hour: 19,
    tempo: 80,
    choruses: 3,
    plan: 'home-scale',
    seed: 11,
    profile: { meet: 0.35, breathe: 0.4, density: 0.7, spreadMs: 26, biasMs: 8, approach: 0.1, outside: 0 },
  },
  {
    chart: 'lamplight',
    daysAgo: 19,
    hour: 18,
    tempo: 84,
    choruses: 3,
    plan: 'home-tell-tale',
    seed: 23,
    profile: { meet: 0.5, changes: { F7: 0.2, G7: 0.1 }, breathe: 0.4, spreadMs: 22 },
  },
  {
    chart: 'ferry',
    daysAgo: 16,
    hour: 20,
    tempo: 92,
    choruses: 1,
    plan: 'scale-per-chord',
    seed: 31,
    profile: { meet: 0.5, changes: { C7b9: 0.15 }, breathe: 0.35, density: 0.75 },
  },
  {
    chart: 'lamplight',
    daysAgo: 12,
    hour: 19,
    tempo: 88,
    choruses: 3,
    plan: 'outline',
    seed: 47,
    profile: { meet: 0.65, changes: { F7: 0.3, G7: 0.2 }, outside: 0, spreadMs: 16 },
  },
  {
    chart: 'orchard',
    daysAgo: 9,
    hour: 11,
    tempo: 112,
    choruses: 1,
    plan: 'scale-per-chord',
    seed: 53,
    profile: { meet: 0.55, breathe: 0.35 },
  },
  {
    chart: 'ferry',
    daysAgo: 8,
    hour: 19,
    tempo: 104,
    choruses: 2,
    plan: 'scale-per-chord',
    seed: 61,
    profile: { meet: 0.7, changes: { C7b9: 0.4 } },
  },
  {
    chart: 'lamplight',
    daysAgo: 6,
    hour: 19,
    tempo: 96,
    choruses: 3,
    plan: 'scale-per-chord',
    seed: 79,
    profile: { meet: 0.85, changes: { F7: 0.2, G7: 0.35 }, approach: 0.4, breathe: 0.42 },
  },
  {
    chart: 'lamplight',
    daysAgo: 1,
    hour: 18,
    tempo: 96,
    choruses: 3,
    plan: 'scale-per-chord',
    seed: 97,
    profile: { meet: 0.88, changes: { F7: 0.25, G7: 0.5 }, approach: 0.45, breathe: 0.45, early: 0.12 },
  },
];
