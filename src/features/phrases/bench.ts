'use client';
import { type KeptPhrase } from '@/core/phrases';
import type { StoredPhrase } from '@/server/phrases';
import { type Hearing } from './Hear';

export type WorkshopChart = { readonly id: string; readonly title: string; readonly text: string };

export const TABS = [
  ['form', 'over a form'],
  ['variations', 'variations'],
  ['endings', 'endings'],
  ['cell', 'as a moving cell'],
  ['blocks', 'block chords'],
  ['join', 'joined'],
] as const;
export type Tab = (typeof TABS)[number][0];
/** Views that carry the phrase to a chart. */
export const ON_CHART: ReadonlySet<Tab> = new Set(['form', 'endings', 'cell']);

/** What a view of the workshop works with. */
export type Bench = {
  readonly stored: StoredPhrase;
  readonly hearing: Hearing;
  /** The chart it is carried to; null where there is none. */
  readonly chart: WorkshopChart | null;
  readonly keep: (name: string, phrase: KeptPhrase) => void;
  /** Says where the player has the hand; null: where it is likeliest. */
  readonly place: (fret: number | null) => void;
  readonly say: (trouble: string | null) => void;
};
