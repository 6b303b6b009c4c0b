/** @jest-environment jsdom */
import { cleanup, fireEvent, render, screen } from '@testing-library/react';
import { afterEach, expect, test } from '@jest/globals';
import { readChart } from '@/core/chart';
import { DRILL_KINDS, drillFor, exampleOf, examplesOf } from '@/core/drills';
import { ladderTo, type LadderTry } from '@/core/scheduling';
import { readChord } from '@/core/music';
import { unwrap } from '@/core/shared';
import { aimOver, countedThing, countSoFar, shownSpan, sittingWords, stageOf } from './drillView';
import { LadderPicture } from './LadderPicture';
import { LinesToChoose } from './LinesToChoose';
import { PassStrip } from './PassStrip';
import { UNGROUPED } from './groups';

afterEach(cleanup);

const CHART = unwrap(readChart('key: Bb\n| Cm7 | F7 | Bb7 | Bb7 |'));
const stage = stageOf(drillFor({ kind: 'ladder-thirds', chart: CHART, tempo: 96, span: [1, 2] }), 72);
const tried = (tempo: number, met: number, passed = met >= 9): LadderTry => ({ tempo, met, of: 11, passed });

test('an attempt is counted as it goes: what lies ahead has not been missed', () => {
  const line = exampleOf(stage.drill, 1, stage.size.passes)!;
  const upTo = (beat: number, notes = line) =>
    countSoFar(
      stage,
      notes.filter(({ onsetBeat }) => onsetBeat <= beat),
      beat,
    );
  expect(upTo(0)).toMatchObject({ met: 0, of: 0, left: 11 });
  expect(upTo(5.5)).toMatchObject({ met: 1, of: 1, left: 10 });
  expect(upTo(47)).toMatchObject({ met: 11, of: 11, left: 0 });
  // the places shown are met, and to come
  const { places } = upTo(9.5);
  expect(places.filter(({ met }) => met === true)).toHaveLength(2);
  expect(places.filter(({ met }) => met === null)).toHaveLength(9);
  expect(places[0]).toMatchObject({ beat: 4, label: '3' });
  // a landing a semitone off is not met
  const wrong = line.map((note) =>
    Math.abs(note.onsetBeat - 4) < 0.1 ? { ...note, midi: note.midi + 1 } : note,
  );
  expect(upTo(5.5, wrong)).toMatchObject({ met: 0, of: 1 });
});

test('a short attempt is shown whole, a long one pass by pass', () => {
  expect(shownSpan(stage, 20)).toEqual([0, 48]);
  const long = stageOf(
    drillFor({
      kind: 'upbeats',
      chart: unwrap(
        readChart(`| ${Array.from({ length: 12 }, (_, bar) => (bar % 2 ? 'F7' : 'Cm7')).join(' | ')} |`),
      ),
      tempo: 200,
    }),
    200,
  );
  expect(shownSpan({ ...long, size: { ...long.size, passes: 2 } }, 50)).toEqual([48, 96]);
});

test('the notes to play are named over each chord; a rule without tones names none', () => {
  expect(aimOver(stage, unwrap(readChord('F7')))).toEqual({ words: 'play its third', names: ['A'] });
  expect(
    aimOver(stageOf(drillFor({ kind: 'one-target', chart: CHART, tempo: 96 }), 96), unwrap(readChord('Bb7'))),
  ).toEqual({ words: 'land on', names: ['D', 'A♭'] });
  expect(
    aimOver(stageOf(drillFor({ kind: 'enclosures', chart: CHART, tempo: 96 }), 96), unwrap(readChord('F7'))),
  ).toBeNull();
  for (const kind of DRILL_KINDS)
    expect(countedThing(drillFor({ kind, chart: CHART, tempo: 96 }))).toMatch(/s$/);
});

test('what a sitting came to, and what comes next', () => {
  const ladder = { ...ladderTo({ goal: 96 }), at: 3 };
  expect(sittingWords([tried(72, 11), tried(72, 10)], 'up', ladder)).toEqual({
    soft: '10 of 11 at 72, 2 of 2 attempts passed.',
    bold: 'You go to 80.',
  });
  expect(sittingWords([tried(88, 3), tried(88, 4)], 'down', ladder).bold).toBe(
    'A little slower next time: 80.',
  );
  expect(sittingWords([tried(80, 3)], 'stay', ladder).bold).toBe('80 stays; the same again.');
  expect(sittingWords([tried(80, 11)], 'learnt', ladder).bold).toBe('It is learnt at this tempo.');
});

test('the ladder shows attempts on their rungs, passed and not, for eyes and for readers', () => {
  const { container, getByText, getAllByTitle } = render(
    <LadderPicture
      ladder={{ rungs: [60, 66, 72, 80], at: 2, up: 2, down: 2 }}
      tries={[tried(60, 11), tried(66, 5), tried(72, 10)]}
      thing="thirds"
      of={11}
      running={4}
    />,
  );
  expect([...container.querySelectorAll('li')].map((rung) => rung.textContent)).toEqual([
    '80',
    '7210 of 11, passed4',
    '665 of 11, not passed',
    '6011 of 11, passed',
  ]);
  expect(container.querySelector('[aria-current="step"]')!.textContent).toContain('72');
  expect(getAllByTitle(/not passed/)).toHaveLength(1);
  expect(getByText(/thirds met, of 11/)).toBeTruthy();
});

test('the line of places says for readers what is met', () => {
  const { getByRole } = render(
    <PassStrip
      stage={stage}
      beat={9}
      places={[
        { beat: 4, met: true, label: '3', side: 0 },
        { beat: 8, met: false, label: '4', side: 1 },
        { beat: 12, met: null, label: '', side: 0 },
      ]}
    />,
  );
  expect(getByRole('img').getAttribute('aria-label')).toBe('beat 5: met, beat 9: not met');
  expect(getByRole('img').querySelectorAll('[stroke-dasharray]')).toHaveLength(1);
});

test('every drill of the catalogue stands in a group', () => expect(UNGROUPED).toEqual([]));

test('several lines stand in their order, say where they end, and one press shows another', () => {
  const lines = examplesOf(stage.drill, 3);
  const chosen: number[] = [];
  render(
    <LinesToChoose
      offered={{ lines, isLooking: false }}
      timeline={stage.timeline}
      chosen={lines[0]!.seed}
      onChoose={(seed) => chosen.push(seed)}
    />,
  );
  const rows = screen.getAllByRole('button');
  expect(rows).toHaveLength(3);
  expect(rows.map((row) => row.getAttribute('aria-pressed'))).toEqual(['true', 'false', 'false']);
  rows.forEach((row, place) =>
    expect(row.textContent).toMatch(
      new RegExp(`^${place + 1}${lines[place]!.line.length} notes, ends on [A-G][♭♯]? \\([♭♯]?\\d+\\)$`),
    ),
  );
  fireEvent.click(rows[2]!);
  expect(chosen).toEqual([lines[2]!.seed]);
  expect(screen.getByRole('status').textContent).toBe('3 different lines, the best to copy first');
});
