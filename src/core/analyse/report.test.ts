import { readFileSync } from 'node:fs';
import { expect, test } from '@jest/globals';
import { unwrap } from '../shared';
import { readScale } from '../music';
import { readChart } from '../chart';
import { analyse, type PlayedNote, type Report } from './index';
import type { PlanId } from '../plan';

// The worked examples that settle how to read the report: three short lines labelled on paper by the rules.
const EXAMPLES: [string, number, PlanId, string | undefined][] = [
  ['a-blues-with-graces', 100, 'home-tell-tale', 'F minor pentatonic'],
  ['b-ii-V-I-with-figures', 160, 'scale-per-chord', undefined],
  ['c-waltz-dyads-and-silence', 132, 'outline', undefined],
];
const PARTS: (keyof Report)[] = [
  'notes',
  'events',
  'figures',
  'shapes',
  'changes',
  'coverage',
  'phrases',
  'stepOuts',
  'mutedBand',
];

test.each(EXAMPLES)('%s: every part of the report is as labelled', (name, tempo, id, home) => {
  const file = (ending: string) => readFileSync(`tests/fixtures/worked-examples/${name}.${ending}`, 'utf8');
  const { notes } = JSON.parse(file('notes.json')) as { notes: PlayedNote[] };
  const expected = JSON.parse(file('report.json')) as Report;
  const chart = unwrap(readChart(file('chart.txt')));
  const report = analyse({
    chart,
    tempo,
    notes,
    plan: { id, home: home ? unwrap(readScale(home)) : undefined },
  });
  // the examples were labelled before changes told where the line turned and segments what it said
  const changes = report.changes.map(({ turnedAtBeat: _turned, ...change }) => change);
  const mutedBand = {
    ...report.mutedBand,
    segments: report.mutedBand.segments.map(({ said: _said, ...segment }) => segment),
  };
  const parts = { ...report, changes, mutedBand };
  for (const part of PARTS)
    expect({ [part]: rounded(parts[part]) }).toEqual({ [part]: rounded(expected[part]) });
});

/** Beats that were added up in another order differ in their last bits only. */
const rounded = (value: unknown): unknown =>
  JSON.parse(
    JSON.stringify(value, (_, inner: unknown) =>
      typeof inner === 'number' ? Math.round(inner * 1e6) / 1e6 : inner,
    ),
  );
