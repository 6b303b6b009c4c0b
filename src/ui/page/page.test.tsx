/** @jest-environment jsdom */
import { expect, test } from '@jest/globals';
import { fireEvent, render, screen } from '@testing-library/react';
import { analyse } from '@/core/analyse';
import { readChart, timelineOf } from '@/core/chart';
import { readChord, readScale } from '@/core/music';
import { shapesNear, STANDARD_INSTRUMENT } from '@/core/neck';
import { scoreOf, type WrittenNote } from '@/core/notation';
import { elementAt, unwrap } from '@/core/shared';
import { lineWidth, pageLines, signatureOf } from './pageLines';
import { pageOf } from './reportPage';
import { runBars } from './runBars';
import { barWords, ScoreList } from './ScoreList';

const FORM = 'title: Walk\nkey: Eb\n| Ebmaj7 | Cm7 | Fm7 | Bb7 | Ebmaj7 | Cm7 |\n';

function barsOf(notes: readonly WrittenNote[], choruses = 1, text = FORM) {
  const chart = unwrap(readChart(text));
  const touchAt = () => ({ string: 2, fret: 4, finger: 1 });
  return scoreOf({ timeline: timelineOf(chart, 100), notes, choruses, swing: null, touchAt });
}
const note = (onsetBeat: number, durationBeats: number, midi = 63): WrittenNote => ({
  onsetBeat,
  durationBeats,
  midi,
});
const numbers = (bars: ReturnType<typeof barsOf>, width: number) =>
  pageLines(bars, width).map((line) => line.map(({ index }) => index + 1).join(' '));

test('four bars to a line, as the form has them; each chorus begins a line', () => {
  expect(numbers(barsOf([note(0, 1)], 2), 900)).toEqual(['1 2 3 4', '5 6', '1 2 3 4', '5 6']);
});

test('fewer where they would be crowded, and one on a phone', () => {
  const crowded = Array.from({ length: 32 }, (_, index) => note(index / 2, 0.5));
  expect(numbers(barsOf(crowded), 700)).toEqual(['1 2', '3 4', '5 6']);
  expect(numbers(barsOf(crowded), 330)).toEqual(['1', '2', '3', '4', '5 6']);
});

test('a line of few notes is no wider than its notes need', () => {
  const [line] = pageLines(barsOf([note(0, 1)], 1, 'title: One\n| C |\n'), 900);
  expect(lineWidth(line!, 900)).toBeLessThan(300);
  expect(lineWidth(line!, 200)).toBe(200);
});

test('a pickup stands before the first bar, in its line', () => {
  expect(numbers(barsOf([note(-1, 1)]), 900)).toEqual(['0 1 2 3 4', '5 6']);
});

test('keys by the name the engraver knows, with their signs; none past seven', () => {
  const signed = (key: string) => {
    const { name, signs } = signatureOf(elementAt(unwrap(readChart(`key: ${key}\n| C |\n`)).bars, 0).key);
    return `${name} ${signs}`;
  };
  expect(['C', 'Eb', 'F# minor', 'Bb minor', 'C#', 'G#', 'Fb', 'Fb minor'].map(signed)).toEqual([
    'C 0',
    'Eb 3',
    'F#m 3',
    'Bbm 5',
    'C# 7',
    'C 0',
    'C 0',
    'C 0',
  ]);
  expect(signatureOf(null)).toEqual({ name: 'C', signs: 0 });
});

test('a bar in words: chords, names, degrees, places and lengths', () => {
  const [first, second] = barsOf([note(0, 1.5), note(1.5, 0.5, 67), note(3.5, 1)]);
  expect(barWords(first!, (index) => ['1', '3', '1'][index]!)).toBe(
    'Bar 1 (Ebmaj7): E♭4 (1), string 2 fret 4, dotted quarter, G4 (3), string 2 fret 4, eighth, quarter rest, ' +
      'eighth rest, E♭4 (1), string 2 fret 4, eighth.',
  );
  expect(barWords(second!, () => '')).toBe(
    'Bar 2 (Cm7): held for an eighth, eighth rest, quarter rest, half rest.',
  );
});

test('the list is made when it is opened', () => {
  const bars = barsOf([note(0, 1)]);
  render(<ScoreList bars={bars} degreeOf={() => '1'} />);
  expect(screen.queryAllByRole('listitem')).toHaveLength(0);
  const details = screen.getByText('The page as a list of bars').closest('details')!;
  details.open = true;
  fireEvent(details, new Event('toggle'));
  expect(screen.getAllByRole('listitem')).toHaveLength(bars.length);
});

test('the place of a bent note is where it is fretted, a whole tone under what it sounds', () => {
  const chart = unwrap(readChart('key: C\n| C7 |\n'));
  const notes = [
    { onsetBeat: 0, durationBeats: 1, midi: 67 },
    { onsetBeat: 1, durationBeats: 2, midi: 69 },
  ];
  const report = analyse({ chart, tempo: 100, notes, plan: { id: 'scale-per-chord' } });
  const bend = [
    [0, -200],
    [0.2, 0],
  ] as const;
  const places = (gestureOf: (index: number) => Pick<WrittenNote, 'bend'>) =>
    pageOf(report, timelineOf(chart, 100), STANDARD_INSTRUMENT, gestureOf)
      .flatMap(({ entries }) => entries.flatMap(({ pitches }) => pitches))
      .filter(({ tie }) => !tie.from)
      .map(({ touch }) => STANDARD_INSTRUMENT.tuning[touch!.string - 1]! + touch!.fret);
  expect(places(() => ({}))).toEqual([67, 69]);
  expect(places((index) => (index === 1 ? { bend } : {}))).toEqual([67, 67]);
});

test('a shape is written as it lies: every note on its string and fret, from the lowest, the last one held', () => {
  const chord = unwrap(readChord('Cm7'));
  const { key } = elementAt(unwrap(readChart('key: Bb\n| Cm7 |\n')).bars, 0);
  for (const position of [2, 8]) {
    const [shape] = shapesNear(unwrap(readScale('C dorian')).pcs, position);
    const { touches } = shape!.run;
    const bars = runBars(touches, chord, key);
    const words = bars.map((bar) => barWords(bar, (index) => `d${index}`)).join(' ');
    const places = [...words.matchAll(/string (\d) fret (\d+)/g)].map(([, string, fret]) => [
      Number(string),
      Number(fret),
    ]);
    expect(places).toEqual(touches.map(({ string, fret }) => [string, fret]));
    expect(bars.map((bar) => bar.key)).toEqual(bars.map(() => key));
    expect(bars).toHaveLength(Math.ceil(touches.length / 8));
    expect(words).toContain(`d${touches.length - 1}`);
  }
});

test('hammer-ons and pull-offs are said where they are written', () => {
  const [bar] = barsOf([
    note(0, 0.5),
    { ...note(0.5, 0.5, 65), attack: 'hammer' },
    { ...note(1, 0.5, 63), attack: 'hammer' },
  ]);
  const words = barWords(bar!, () => '');
  expect(words).toContain('eighth, hammered on');
  expect(words).toContain('eighth, pulled off');
});
