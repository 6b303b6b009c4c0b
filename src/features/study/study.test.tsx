/** @jest-environment jsdom */
import { afterEach, expect, jest, test } from '@jest/globals';
import { cleanup, fireEvent, render, screen, within } from '@testing-library/react';
import { LIBRARY, readChart } from '@/core/chart';
import { STANDARD_INSTRUMENT, readTuning } from '@/core/neck';
import { overlayOf, PLAN_IDS, presetsFor, type PlanWords, planFromWords } from '@/core/plan';
import { unwrap } from '@/core/shared';
import { chooseOption } from '../../../tests/support/controls';
import { Handover } from './Handover';
import { handsAt, placeWords, PlaceView, threadAt } from './PlaceView';
import { PlanChooser } from './PlanChooser';
import { ReadingCard } from './ReadingCard';
import { ShapesView } from './ShapesView';
import { StudyForm } from './StudyForm';
import { nextChange, studyOf } from './studyView';
import { factsOf } from './studyFacts';
import { movesOf } from './studyFacts';

afterEach(cleanup);
const LAMPLIGHT = LIBRARY.find((form) => form.id === 'lamplight')!.text;
const study = (text = LAMPLIGHT, plan: Parameters<typeof studyOf>[1] = { id: 'scale-per-chord' }) =>
  studyOf(unwrap(readChart(text)), plan);

// The sentences are checked against the direction sketch of this very form.
test('what the home scale lacks, in two sentences', () => {
  expect(study().say).toEqual([
    'Your home scale lacks four of the five thirds.',
    'D over B♭7, G over E♭7, B over G7, A over F7: those four tell the chords apart.',
  ]);
  expect(study('key: C\n| Cmaj7 | Fmaj7 |').say[0]).toBe('Your home scale holds both thirds of this form.');
  expect(study('| E7 |').say).toEqual([
    'Your home scale lacks the third.',
    'G♯ over E7: that one tells the chords apart.',
  ]);
  expect(study('| C5 | Gsus4 |').say[0]).toBe('No chord here has a third.');
});

test('the selected chord in facts, and what moves into the next', () => {
  const own = study();
  expect(movesOf(own, 8)).toEqual(['B♭ falls to A, one fret.', 'E♭ stays: the third becomes the seventh.']);
  const facts = Object.fromEntries(
    factsOf(own, 8).map(({ name, values }) => [
      name,
      values.map(({ text, interval }) => [text, interval].filter(Boolean).join(' ')).join(', '),
    ]),
  );
  expect(facts).toMatchObject({
    Tones: 'C 1, E♭ ♭3, G 5, B♭ ♭7',
    Scale: 'C dorian, C D E♭ F G A B♭',
    'Land on': 'E♭ ♭3, B♭ ♭7',
  });
  expect(nextChange(own, 2).index).toBe(4);
  expect(factsOf(study('| C | N.C. |'), 1)[0]!.name).toBe('No chord');
});

test('every form of the library is studied by every school', () => {
  for (const { text } of LIBRARY)
    for (const id of PLAN_IDS) {
      const own = study(text, { id });
      expect(own.cells.every((cell) => cell.plan.material.length > 0)).toBe(true);
      expect(own.thread).toHaveLength(own.cells.length);
    }
});

test('the form is drawn and is also a table; a chord is chosen by a press', () => {
  const choose = jest.fn();
  const { container } = render(
    <StudyForm study={study()} selected={0} sounding={3} barsARow={4} onSelect={choose} />,
  );
  const rows = within(screen.getByRole('table')).getAllByRole('row');
  expect(rows[2]!.textContent).toBe('2E♭7IVGA♭');
  fireEvent.click(container.querySelectorAll('rect.cursor-pointer')[5]!);
  expect(choose).toHaveBeenCalledWith(5);
  expect([...container.querySelectorAll('text')].filter((text) => text.textContent === 'ii–V')).toHaveLength(
    2,
  );
});

test('the handover under the hand: arrows to the targets, rings where a finger stays; on any guitar and for either hand', () => {
  const own = study();
  const { container, rerender } = render(
    <Handover
      study={own}
      index={8}
      position={5}
      instrument={STANDARD_INSTRUMENT}
      leftHanded={false}
      layer="shape"
    />,
  );
  expect(container.querySelectorAll('path[fill="var(--now)"]')).toHaveLength(3);
  expect(container.querySelectorAll('rect[stroke="var(--now)"]')).toHaveLength(2);
  const place = () => Number(container.querySelector('text[font-weight="560"]')!.getAttribute('x'));
  const right = place();
  rerender(
    <Handover study={own} index={8} position={5} instrument={STANDARD_INSTRUMENT} leftHanded layer="scale" />,
  );
  expect(place()).not.toBe(right);
  expect(container.querySelectorAll('circle[fill="var(--h4)"]').length).toBeGreaterThan(3);
  rerender(
    <Handover
      study={own}
      index={8}
      position={7}
      instrument={{ tuning: unwrap(readTuning('F#1 B1 E2 A2 D3 G3 B3 E4')), frets: 24 }}
      leftHanded={false}
      layer="plan"
    />,
  );
  expect(screen.getByRole('img').getAttribute('aria-label')).toBe('Frets 7 to 12: Cm7, then F7');
});

test('one place through the form says how it goes, and where it does not fit', () => {
  const own = study();
  const hands = handsAt(own, 5, STANDARD_INSTRUMENT);
  expect(placeWords(own, threadAt(own, hands, STANDARD_INSTRUMENT), hands)[1]).toMatch(
    /^of twelve changes it crosses ten by one fret or none, and never more than three/,
  );
  const small = { tuning: [52], frets: 22 };
  expect(placeWords(own, threadAt(own, hands, small), hands)[0]).toBe(
    'This place does not hold the whole form:',
  );
  render(
    <PlaceView
      study={own}
      hands={hands}
      instrument={STANDARD_INSTRUMENT}
      leftHanded={false}
      selected={3}
      barsARow={4}
      onSelect={() => undefined}
    />,
  );
  expect(screen.getAllByRole('button')).toHaveLength(14);
});

test('a plan that names the hand moves the window, and it is said', () => {
  const chart = unwrap(readChart('key: A\n| A7 | D7 | A7 | E7 |'));
  const plan = { id: 'by-degrees', degrees: '1 b3 4 5 b7', hand: 'shape 1' } as const;
  const own = studyOf(chart, unwrap(planFromWords(plan)));
  const hands = handsAt(own, 5, STANDARD_INSTRUMENT);
  expect(hands).toEqual([5, 10, 5, 12]);
  const stops = threadAt(own, hands, STANDARD_INSTRUMENT);
  expect(placeWords(own, stops, hands)[0]).toBe(
    'The hand moves three times, as your plan has it. Follow the ringed third or seventh:',
  );
  for (const { places } of stops.slice(1, 2)) for (const { fret } of places) expect(fret).toBeGreaterThan(9);
});

test('shapes: grips in the position, movable forms, triads, pairs and neighbours', () => {
  render(
    <ShapesView study={study()} index={8} position={3} instrument={STANDARD_INSTRUMENT} leftHanded={false} />,
  );
  expect(screen.getAllByRole('figure').length).toBeGreaterThan(4);
  for (const name of [
    'Movable forms',
    'Scale shapes',
    'To the next chord',
    'Up the neck',
    'Two notes at a time',
    'Triads',
    'Third and seventh',
    'Shape and neighbours',
  ]) {
    fireEvent.click(screen.getByRole('radio', { name }));
    expect(screen.getAllByRole('figure').length).toBeGreaterThan(3);
  }
});

test('scale shapes: material, layout and what the dots say are kept for the next time', async () => {
  const draw = () =>
    render(
      <ShapesView
        study={study()}
        index={8}
        position={3}
        instrument={STANDARD_INSTRUMENT}
        leftHanded={false}
      />,
    );
  draw();
  fireEvent.click(screen.getByRole('radio', { name: 'Scale shapes' }));
  expect(screen.getAllByRole('figure')).toHaveLength(7);
  await chooseOption('What lies on the neck', 'the chord’s tones');
  expect(screen.getAllByRole('figure')).toHaveLength(4);
  await chooseOption('How it is laid out', 'along one string');
  expect(screen.getAllByRole('figure')[0]!.textContent).toMatch(/The hand moves at fret \d+ on string \d/);
  cleanup();
  draw();
  fireEvent.click(screen.getByRole('radio', { name: 'Scale shapes' }));
  expect(screen.getByRole('combobox', { name: 'How it is laid out' }).textContent).toBe('along one string');
});

test('fingering: reach or move, from the string and finger the player names', async () => {
  render(
    <ShapesView study={study()} index={8} position={3} instrument={STANDARD_INSTRUMENT} leftHanded={false} />,
  );
  fireEvent.click(screen.getByRole('radio', { name: 'Fingering' }));
  expect(screen.getAllByRole('figure')[0]!.textContent).toMatch(/the hand/);
  await chooseOption('on string', '5');
  await chooseOption('starting with', 'the index');
  expect(screen.getAllByRole('figure')[0]!.textContent).toContain('C 1 on 5');
});

test('changes laid over the written ones stand beside them', () => {
  const chart = unwrap(readChart('key: C\n| Dm7 | G7 | C6 | % |'));
  const own = studyOf(chart, { id: 'outline' }, unwrap(overlayOf(chart, '| Abm7 | Db7 | C6 | % |')));
  expect(own.cells.map(({ over }) => over)).toEqual(['A♭m7', 'D♭7', '', '']);
});

test('choosing a plan: for the whole form, for a part of it, from what suits the form', async () => {
  let plan: PlanWords = { id: 'scale-per-chord' };
  const change = (next: PlanWords) => {
    plan = next;
  };
  const presets = presetsFor(study().harmony);
  const draw = () => {
    cleanup();
    render(
      <PlanChooser
        plan={plan}
        presets={presets}
        place={{ chord: 'Bb7', degree: 'I', section: null, bar: 1 }}
        homeWithout="Bb blues"
        clashes={[]}
        onHear={() => undefined}
        harmony={study().harmony}
        index={0}
        onHearOver={() => undefined}
        chart={unwrap(readChart(LAMPLIGHT))}
        onChange={change}
      />,
    );
  };
  draw();
  fireEvent.click(screen.getByRole('button', { name: 'outline' }));
  expect(plan).toEqual({ id: 'outline' });
  draw();
  await chooseOption('For', 'every I');
  fireEvent.click(screen.getByRole('button', { name: 'major–minor blend' }));
  expect(plan).toEqual({
    id: 'outline',
    parts: [{ where: { degree: 'I' }, plan: { id: 'major-minor-blend' } }],
  });
  draw();
  fireEvent.click(screen.getByRole('button', { name: 'Remove Major–minor blend on every I' }));
  expect(plan.parts).toBeUndefined();
  draw();
  await chooseOption('Presets for this form', presets.find((one) => one.choice.heights)!.name);
  expect(plan).toEqual({ id: 'scale-per-chord', heights: ['ground', 'high'] });
  draw();
  fireEvent.click(screen.getByRole('checkbox'));
  expect(plan.tonicSix).toBe(true);
});

test('the reading card: reason, runner-up, and the player’s own reading', async () => {
  const read = jest.fn();
  const own = study('key: C\n| Cmaj7 | A7 | Dm7 | G7 |');
  render(<ReadingCard cell={own.cells[1]!} facts={factsOf(own, 1)} onRead={read} />);
  expect(screen.getByText(/that chord’s own dominant/)).toBeTruthy();
  fireEvent.click(screen.getByRole('button', { name: /or VI/ }));
  expect(read).toHaveBeenCalledWith('VI', null);
  fireEvent.click(screen.getByRole('button', { name: 'read it my way' }));
  await chooseOption('scale', 'altered');
  expect(read).toHaveBeenCalledWith(null, 'altered');
});
