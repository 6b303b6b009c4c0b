/** @jest-environment jsdom */
import { afterEach, expect, jest, test } from '@jest/globals';
import { cleanup, fireEvent, render } from '@testing-library/react';
import { analyse, type LandingMark } from '@/core/analyse';
import { harmonyOf, readChart, timelineOf } from '@/core/chart';
import { planOf } from '@/core/plan';
import { marksOf } from '@/core/findings';
import { unwrap } from '@/core/shared';
import { ChordSvg, ChordSymbol } from './ChordSymbol';
import { ChordWords } from './ChordWords';
import { FormRow } from './form/FormRow';
import { formRows } from './form/formRows';
import { LandingChip, LandingLine, LANDING_WORDS } from './form/LandingLine';
import { rowGeometry } from './form/geometry';
import { Pill } from './form/Pill';
import { takeOnForm } from './form/takeOnForm';
import { Neck } from './Neck';

afterEach(cleanup);
const svg = (children: React.ReactNode) => render(<svg>{children}</svg>).container.querySelector('svg')!;

test('a chord symbol is typeset for the eye and said for the ear', () => {
  const { container } = render(<ChordSymbol symbol="Bbm7b5/Eb" />);
  expect(container.querySelector('[aria-hidden]')!.innerHTML).toBe('B<i>♭</i><u>m</u><sup>7♭5</sup>/E♭');
  expect(container.querySelector('.sr-only')!.textContent).toBe('B♭m7♭5/E♭');
});

test('in a drawing its parts are raised and come back to the baseline', () => {
  const spans = [...svg(<ChordSvg x={0} y={20} symbol="Ebm7/Bb" size={20} />).querySelectorAll('tspan')];
  expect(spans.map((span) => span.textContent)).toEqual(['♭', 'm', '7', '/B♭']);
  const rises = spans.map((span) => Number(span.getAttribute('dy')));
  expect(rises.reduce((sum, rise) => sum + rise, 0)).toBeCloseTo(0);
});

test('a sentence typesets its chords and leaves notes and words alone', () => {
  const { container } = render(
    <ChordWords text="Coming from Cm7 into F7 you met A or E♭, its third; B♭maj7 and Gm7♭5." />,
  );
  expect([...container.querySelectorAll('.ch .sr-only')].map((one) => one.textContent)).toEqual([
    'Cm7',
    'F7',
    'B♭△7',
    'Gm7♭5',
  ]);
  expect(container.textContent).toContain('you met A or E♭, its third');
});

test('heights 0 to 2 are solid, 3 is hollow, 4 dashed, and a label stands where it has room', () => {
  const pill = (tier: number, width = 30) =>
    svg(<Pill x={0} y={10} width={width} height={14} tier={tier} label="♭7" />);
  expect([0, 1, 2].map((tier) => pill(tier).querySelector('rect')!.getAttribute('fill'))).toEqual([
    'var(--h0)',
    'var(--h1)',
    'var(--h2)',
  ]);
  expect(pill(3).querySelector('rect')!.getAttribute('stroke-dasharray')).toBeNull();
  expect(pill(4).querySelector('rect')!.getAttribute('stroke-dasharray')).toBe('3.5 2.5');
  expect(pill(0).querySelector('text')!.textContent).toBe('♭7');
  expect(pill(0, 9).querySelector('text')).toBeNull();
});

test('the five marks of a landing are five different marks', () => {
  const drawn = (Object.keys(LANDING_WORDS) as LandingMark[]).map(
    (mark) => svg(<LandingLine x={0} from={0} to={40} mark={mark} />).innerHTML,
  );
  expect(new Set(drawn).size).toBe(5);
});

test('a landing’s chip stands left, on, right of or across its line; without a note there is a dash', () => {
  const left = (timing: 'early' | 'on' | 'late' | 'held') =>
    Number(
      svg(<LandingChip x={50} y={20} mark="target" timing={timing} tier={0} label="3" />)
        .querySelector('rect')!
        .getAttribute('x'),
    );
  expect(left('early')).toBeLessThan(30);
  expect(left('on')).toBe(40);
  expect(left('late')).toBeGreaterThan(50);
  expect(left('held')).toBe(34);
  expect(svg(<LandingChip x={50} y={20} mark="not-met" timing="none" tier={4} label="" />).textContent).toBe(
    '–',
  );
});

const TEXT = 'key: C\n| Dm7 | G7 | Cmaj7 | % |\n| F | C G7 |';
const chart = unwrap(readChart(TEXT));
const timeline = timelineOf(chart, 120);

test('rows of four bars, with the chords that change and those that only go on', () => {
  const rows = formRows(timeline);
  expect(rows.map((row) => [row.start, row.end, row.bars.map((bar) => bar.number)])).toEqual([
    [0, 16, [1, 2, 3, 4]],
    [16, 24, [5, 6]],
  ]);
  expect(rows[0]!.chords.map((chord) => [chord.symbol, chord.changes])).toEqual([
    ['Dm7', true],
    ['G7', true],
    ['Cmaj7', true],
    ['Cmaj7', false],
  ]);
  const { x, beatWidth, left, right } = rowGeometry(rows[0]!, 360);
  expect([left, right, beatWidth, x(-1)]).toEqual([40, 360, 20, 20]);
});

test('a row draws its notes, changes and phrases; a note and a place can be chosen', () => {
  const plan = { id: 'scale-per-chord' as const };
  const notes = [
    { midi: 65, onsetBeat: 0, durationBeats: 2 },
    { midi: 71, onsetBeat: 4, durationBeats: 1 },
    { midi: 76, onsetBeat: 8, durationBeats: 2 },
    { midi: 69, onsetBeat: 24, durationBeats: 1 },
  ];
  const report = analyse({ chart, tempo: 120, plan, choruses: 2, notes });
  const take = takeOnForm(report, marksOf(report, planOf(plan, harmonyOf(chart, timeline)), chart, 120));
  const [onNote, onBeat] = [jest.fn(), jest.fn()];
  const drawing = svg(
    <FormRow
      row={formRows(timeline)[0]!}
      width={872}
      formBeats={timeline.formBeats}
      choruses={[0, 1]}
      take={take}
      cursor={2}
      selected={1}
      onNote={onNote}
      onBeat={onBeat}
    />,
  );
  const labels = [...drawing.querySelectorAll('text')].map((text) => text.textContent);
  expect(labels).toEqual(expect.arrayContaining(['♭3', '3', '1', '2', '4']));
  expect(drawing.querySelectorAll('line[stroke="var(--now)"]')).toHaveLength(1);
  expect(drawing.querySelectorAll('rect[stroke="var(--now)"]')).toHaveLength(1);
  fireEvent.click([...drawing.querySelectorAll('g.cursor-pointer')][0]!);
  expect(onNote).toHaveBeenCalledWith(0);
  const lanes = drawing.querySelectorAll('rect.cursor-pointer');
  expect(lanes).toHaveLength(2);
});

test('where the band rested is written over the lane, in its own chorus only', () => {
  const report = analyse({
    chart,
    tempo: 120,
    plan: { id: 'scale-per-chord' },
    choruses: 2,
    notes: [{ midi: 65, onsetBeat: 0, durationBeats: 2 }],
  });
  const plan = planOf({ id: 'scale-per-chord' }, harmonyOf(chart, timeline), timeline);
  const take = takeOnForm(report, marksOf(report, plan, chart, 120), () => ({}), [
    [timeline.formBeats, timeline.formBeats * 2],
  ]);
  const drawing = svg(
    <FormRow
      row={formRows(timeline)[0]!}
      width={872}
      formBeats={timeline.formBeats}
      choruses={[0, 1]}
      take={take}
    />,
  );
  expect(
    [...drawing.querySelectorAll('text')].filter(({ textContent }) => textContent === 'band rests'),
  ).toHaveLength(1);
  expect(drawing.querySelectorAll('[data-band-rests]')).toHaveLength(1);
});

test('the neck shows tones pale and targets ringed, spelled as told', () => {
  const { container, getByRole } = render(
    <Neck
      from={5}
      to={8}
      tones={[0, 3, 7, 10]}
      targets={[9]}
      nameOf={(pc) => ['C', 'D♭', 'D', 'E♭', 'E', 'F', 'G♭', 'G', 'A♭', 'A', 'B♭', 'B'][pc]!}
    />,
  );
  expect(getByRole('img').getAttribute('aria-label')).toBe('Frets 5 to 8: A to land on');
  // standard tuning, frets 5 to 8: A on both E strings at fret 5 and on the D string at fret 7
  expect(container.querySelectorAll('circle[fill="var(--h0)"]')).toHaveLength(3);
  // C E♭ G B♭ by hand: 2 1 2 2 1 2 from the highest string down
  expect(container.querySelectorAll('rect')).toHaveLength(10);
});

test('an arrow leads from a tone under the hand to the note to land on, a half step away on the same string; any tuning, either hand', () => {
  const nameOf = (pc: number) => String(pc);
  const arrows = (props: object) => {
    const { container } = render(
      <Neck from={5} to={9} tones={[0, 3, 7, 10]} targets={[9]} nameOf={nameOf} {...props} />,
    );
    const found = container.querySelectorAll('path[stroke="var(--now)"]').length;
    cleanup();
    return found;
  };
  // A lies at frets 5, 7 and 5 of strings 1, 4 and 6 (E A D G B E): B flat beside it at 6, 8 and 6
  expect([
    arrows({}),
    arrows({ leftHanded: true }),
    arrows({ targets: [2] }),
    arrows({ tuning: [62, 59, 55, 50, 45, 38] }),
  ]).toEqual([3, 3, 2, 3]);
});
