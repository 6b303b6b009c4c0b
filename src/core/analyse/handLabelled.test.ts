import { expect, test } from '@jest/globals';
import { unwrap } from '../shared';
import { readChart } from '../chart';
import type { PlanId } from '../plan';
import { analyse, windowsAt, type PlayedNote, type Report } from './index';

// Short lines labelled on paper by the rules, over other meters, tempos and chords than the worked examples.

type Labelled = {
  readonly name: string;
  readonly chart: string;
  readonly tempo: number;
  readonly plan?: PlanId;
  /** `midi@onset+duration` in beats. */
  readonly line: string;
  /** `interval function` of each note. */
  readonly notes: readonly string[];
  /** `timing interval verdict` of each change. */
  readonly landings: readonly string[];
};

const LINES: readonly Labelled[] = [
  {
    name: 'a waltz: a pickup enclosure into bar 2',
    chart: 'meter: 3/4\nkey: F\n| Gm7 | C7 | Fmaj7 | % |',
    tempo: 150,
    line: '70@0+1 67@1+0.5 65@1.5+0.5 65@2+0.5 63@2.5+0.5 64@3+1 67@4+1 69@6+2',
    notes: [
      'b3 target',
      '1 chord-tone',
      'b7 target',
      'b7 target',
      'b13 enclosure',
      '3 target',
      '5 chord-tone',
      '3 target',
    ],
    landings: ['on 3 target', 'on 3 target'],
  },
  {
    name: 'five-four: the second strong beat, a step down into the tonic',
    chart: 'meter: 5/4\nkey: Dm\n| Dm7 | A7 |',
    tempo: 120,
    line: '65@0+1 64@1+1 62@2+1 69@3+2 67@5+1 65@6+1 64@7+1 61@8+2',
    notes: [
      'b3 target',
      '9 passing',
      '1 chord-tone',
      '5 chord-tone',
      'b7 target',
      'b13 passing',
      '5 chord-tone',
      '3 target',
    ],
    landings: ['on b7 target'],
  },
  {
    name: 'a ballad at 50: a window of a tenth of a beat and more, a late landing',
    chart: 'key: C\n| Cmaj7 | Fmaj7 |',
    tempo: 50,
    line: '64@0+2 67@2+2 69@4.5+2',
    notes: ['3 target', '5 chord-tone', '3 target'],
    landings: ['late 3 target'],
  },
  {
    name: 'at 300 the window is 60 ms: 0.3 of a beat before the change is on it',
    chart: 'key: C\n| Dm7 | G7 |',
    tempo: 300,
    line: '65@0+2 62@2+1.5 71@3.75+2',
    notes: ['b3 target', '1 chord-tone', '3 target'],
    landings: ['on 3 target'],
  },
  {
    name: 'a slash chord on its fourth is a sus chord: the sus note is a target',
    chart: 'key: Eb\n| Fm7/Bb | Ebmaj7 |',
    tempo: 120,
    line: '63@0+2 68@2+2 67@4+2',
    notes: ['4 target', 'b7 target', '3 target'],
    landings: ['on 3 target'],
  },
  {
    name: 'an altered dominant: its tensions are colours, and a colour on a beat may be enclosed',
    chart: 'key: C\n| G7alt | Cmaj7 |',
    tempo: 120,
    line: '71@0+1 68@1+1 70@2+1 75@3+1 76@4+2',
    notes: ['3 target', 'b9 enclosure', '#9 colour', 'b13 approach-below', '3 target'],
    landings: ['on 3 target'],
  },
  {
    name: 'a minor key: the raised seventh over its dominant',
    chart: 'key: Am\n| Am7 | E7 | Am7 | % |',
    tempo: 100,
    plan: 'outline',
    line: '60@2+1 69@3+1 68@4+2 71@6+1 74@7+1 72@8+2',
    notes: ['b3 target', '1 chord-tone', '3 target', '5 chord-tone', 'b7 target', 'b3 target'],
    landings: ['on 3 target', 'on b3 target'],
  },
  {
    name: 'a region with its own key',
    chart: 'key: C\n| Cmaj7 | % |\n[B]\nkey: Ab\n| Bbm7 | Eb7 |',
    tempo: 120,
    line: '64@0+2 71@6+1.5 73@8+2 67@12+2',
    notes: ['3 target', '7 target', 'b3 target', '3 target'],
    landings: ['on b3 target', 'on 3 target'],
  },
  {
    name: 'the home scale plan: a chord tone that the home scale holds is a target',
    chart: 'key: C\n| C | F |',
    tempo: 120,
    plan: 'home-scale',
    line: '64@0+2 69@4+2',
    notes: ['3 target', '3 target'],
    landings: ['on 3 target'],
  },
  {
    name: 'power chords aim at root and fifth',
    chart: 'key: E\n| E5 | A5 |',
    tempo: 120,
    plan: 'outline',
    line: '64@0+1 71@1+1 69@4+1',
    notes: ['1 target', '5 target', '1 target'],
    landings: ['on 1 target'],
  },
];

const notesOf = (line: string): PlayedNote[] =>
  line.split(' ').map((word) => {
    const [, midi, onset, length] = /^(\d+)@([\d.]+)\+([\d.]+)$/.exec(word)!;
    return { midi: Number(midi), onsetBeat: Number(onset), durationBeats: Number(length) };
  });

const judge = ({ chart, tempo, plan = 'scale-per-chord', line }: Labelled): Report =>
  analyse({ chart: unwrap(readChart(chart)), tempo, notes: notesOf(line), plan: { id: plan }, choruses: 1 });

test.each(LINES)('$name', (labelled) => {
  const report = judge(labelled);
  expect(report.notes.map((note) => `${note.interval} ${note.function}`)).toEqual(labelled.notes);
  expect(
    report.changes.map(({ landing }) => `${landing.timing} ${landing.interval} ${landing.verdict}`),
  ).toEqual(labelled.landings);
});

test('the windows, by hand: max(0.12 beat, 60 ms), and what follows from it', () => {
  expect(windowsAt(120)).toMatchObject({ on: 0.12, tol: 0.12, reach: 0.6, event: 0.1, grace: 0.18 });
  expect(windowsAt(120).graceGap).toBeCloseTo(0.06, 10);
  expect(windowsAt(300)).toMatchObject({ on: 0.3, tol: 0.25, reach: 1.1, grace: 0.2 });
  expect(windowsAt(60)).toMatchObject({ on: 0.12, reach: 0.6, event: 0.05 });
});
