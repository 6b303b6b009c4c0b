/** @jest-environment jsdom */
import { afterEach, expect, jest, test } from '@jest/globals';
import { cleanup, fireEvent, render, within } from '@testing-library/react';
import { LIBRARY } from '@/core/chart';
import { readPhrase } from '@/core/phrases';
import { unwrap } from '@/core/shared';
import type { StoredPhrase } from '@/server/phrases';
import { BlocksView } from './BlocksView';
import { EndingsView } from './EndingsView';
import { chordsText, formulaText, motifOf, notesText } from './phraseView';
import { VariationsView } from './VariationsView';
import type { Bench } from './bench';

afterEach(cleanup);

const phrase = unwrap(readPhrase({ chords: 'Dm7 | G7', line: 'D4:1/2 F A C5 .:2 | B4:1 G4:1', tempo: 100 }));
const stored: StoredPhrase = {
  id: 'p',
  name: 'Two to five',
  tags: [],
  phrase,
  source: 'typed',
  take: null,
  createdAt: 0,
};
function benchOf(): { bench: Bench; keep: jest.Mock; hear: jest.Mock } {
  const [keep, hear] = [jest.fn(), jest.fn()];
  const state = { id: null, phase: 'silent', beat: 0, trouble: null } as const;
  const hearing = { state, hear, stop: jest.fn() } as unknown as Bench['hearing'];
  return { bench: { stored, hearing, chart: null, keep, place: jest.fn(), say: jest.fn() }, keep, hear };
}

test('a phrase in words: its chords, its notes as they spell them, its degrees, and what a drill asks for', () => {
  expect([chordsText(phrase), notesText(phrase), formulaText(phrase)]).toEqual([
    'Dm7 | G7',
    'D F A C B G',
    '1 3 5 7 3 1',
  ]);
  const { gaps, moves, formula } = motifOf(phrase);
  expect([gaps, moves, formula?.length]).toEqual([[0.5, 0.5, 0.5, 2.5, 1], [3, 4, 3, -1, -4], 6]);
});

test('each variation can be heard and kept under a name of its own', () => {
  const { bench, keep, hear } = benchOf();
  const { getByRole } = render(<VariationsView bench={bench} />);
  fireEvent.click(getByRole('button', { name: 'hear it: backwards' }));
  fireEvent.click(getByRole('button', { name: 'Keep it: upside down' }));
  expect(hear).toHaveBeenCalledTimes(1);
  expect(keep).toHaveBeenCalledWith('Two to five, upside down', expect.objectContaining({ tempo: 100 }));
});

test('endings say of every chord of a form what the last note is there, and how far home is', () => {
  const { bench, keep } = benchOf();
  const form = LIBRARY.find(({ id }) => id === 'orchard')!;
  const { getByRole, getAllByRole } = render(
    <EndingsView bench={bench} chart={{ id: 'c', title: 'Orchard', text: form.text }} />,
  );
  expect(getAllByRole('row').length).toBeGreaterThan(5);
  const [row] = getAllByRole('row').slice(1);
  fireEvent.click(within(row!).getByRole('button', { name: /Keep it/ }));
  expect(keep).toHaveBeenCalledTimes(1);
  expect(getByRole('table').textContent).toMatch(/comes home/);
});

test('block chords stand one under each note, with the frets of one hand', () => {
  const { getAllByRole } = render(<BlocksView bench={benchOf().bench} />);
  const rows = getAllByRole('row').slice(1);
  expect(rows.length).toBe(phrase.notes.length);
  for (const row of rows) expect(row.textContent).toMatch(/sixth chord|diminished/);
});
