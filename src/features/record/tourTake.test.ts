/** @jest-environment jsdom */
import { expect, test } from '@jest/globals';
import { analyse } from '@/core/analyse';
import { CHARACTERS, improvise } from '@/core/band';
import { LIBRARY, readChart } from '@/core/chart';
import { findingsOver, firstPageOf } from '@/core/findings';
import { unwrap } from '@/core/shared';
import { TOUR_SEED } from './useBring';

test.each(['scale-per-chord', 'home-scale', 'outline'] as const)(
  'the tour’s beginner leaves something to practise, and its drill: %s',
  (id) => {
    const chart = unwrap(readChart(LIBRARY.find((form) => form.id === 'lamplight')!.text));
    const plan = { id };
    const { profile } = CHARACTERS.beginner;
    const notes = improvise({ chart, tempo: 96, choruses: 2, plan, seed: TOUR_SEED, profile });
    const request = {
      chart,
      tempo: 96,
      plan,
      report: analyse({ chart, tempo: 96, notes, plan, choruses: 2 }),
    };
    expect(firstPageOf(request, findingsOver([request])).practise?.drill).toBeDefined();
  },
);
