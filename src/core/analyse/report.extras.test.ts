import { describe, expect, test } from '@jest/globals';
import { unwrap } from '../shared';
import { readChart } from '../chart';
import { analyse, type PlayedNote, type Report } from './index';

/** `62@3.5+1` = MIDI 62 at beat 3.5 for 1 beat; `60,64,67@0+1` = struck together. */
const line = (text: string): PlayedNote[] =>
  text.split(' ').flatMap((word) => {
    const [, midis, onset, length] = /^([\d,]+)@(-?[\d.]+)\+([\d.]+)$/.exec(word)!;
    return midis!
      .split(',')
      .map((midi) => ({ midi: Number(midi), onsetBeat: Number(onset), durationBeats: Number(length) }));
  });
const eighths = (text: string, start = 0): PlayedNote[] =>
  text
    .split(' ')
    .map((midi, index) => ({ midi: Number(midi), onsetBeat: start + index / 2, durationBeats: 0.5 }));
const judge = (chart: string, notes: string | PlayedNote[]): Report =>
  analyse({
    chart: unwrap(readChart(chart)),
    tempo: 120,
    notes: typeof notes === 'string' ? line(notes) : notes,
    plan: { id: 'scale-per-chord' },
  });
const C = 'key: C\n| Cmaj7 | % | % | % |';
const II = 'key: C\n| Dm7 | G7 | Cmaj7 | % |';

// By hand from the page on theory, "Shapes" and "Step-out".
describe('shapes that move', () => {
  const moved = (notes: string) =>
    judge(C, eighths(notes))
      .shapes.filter(({ kind }) => kind === 'moved-shape')
      .map(({ name, noteIndices }) => `${name} ${noteIndices[0]}-${noteIndices[noteIndices.length - 1]}`);
  test('a cell of three, twice', () => expect(moved('60 64 67 61 65 68')).toEqual(['3 notes, up 1 0-5']));
  test('a cell of three, three times', () =>
    expect(moved('60 64 67 59 63 66 58 62 65')).toEqual(['3 notes, down 1 0-8']));
  test('a cell of two needs three statements', () =>
    expect([moved('60 67 62 69 64 71'), moved('60 67 62 69 65 71')]).toEqual([['2 notes, up 2 0-5'], []]));
  test('said again in its place it has not moved', () => expect(moved('60 64 67 60 64 67')).toEqual([]));
  test('a rest of more than a beat parts the statements', () =>
    expect(
      judge(C, [...eighths('60 64 67'), ...eighths('61 65 68', 3)]).shapes.filter(
        ({ kind }) => kind === 'moved-shape',
      ),
    ).toEqual([]));
});

describe('stepping out', () => {
  test('by the statement of a moved shape that is outside, home on a strong beat', () => {
    const { stepOuts } = judge(C, eighths('60 64 67 61 65 68 67'));
    expect(stepOuts).toEqual([{ noteIndices: [3, 4, 5], beats: 1.5, shape: '3 notes, up 1', homeIndex: 6 }]);
  });
  test('a chord tone off the beat is passed on the way to one that stays', () =>
    expect(judge(C, eighths('61 65 68 60 64 67')).stepOuts).toEqual([
      { noteIndices: [0, 1, 2], beats: 1.5, shape: '3 notes, down 1', homeIndex: 4 },
    ]));
  test('one that only stops did not', () =>
    expect(judge(C, eighths('60 64 67 61 65 68')).stepOuts[0]!.homeIndex).toBeNull());
  test('blue notes are no step out', () =>
    expect(judge('key: C\nfeel: blues\n| C7 | F7 |', eighths('63 66 63 66')).stepOuts).toEqual([]));
});

// Chord spellings as any handbook has them; common practice, no source.
test.each([
  ['the chord of the chart', II, '65,71,74@4+1', 'G7'],
  ['an unwritten thirteenth is no tone of it', II, '65,71,76@4+1', undefined],
  ['another chord', C, '62,65,69@0+1', 'Dm'],
  ['without its fifth', C, '62,65,72@0+1', 'Dm7'],
  ['nothing that has a name', C, '60,61,62@0+1', undefined],
])('a hit is named: %s', (_, chart, notes, name) => {
  const { events } = judge(chart, notes);
  expect([events[0]!.kind, events[0]!.name]).toEqual(['chord', name]);
});

describe('missed resolutions', () => {
  const missed = (notes: string) =>
    judge(II, notes).missedDoors.map(({ changeIndex, fromMidi, toMidi, fromInterval, toInterval }) => [
      changeIndex,
      fromMidi,
      toMidi,
      fromInterval,
      toInterval,
    ]);
  test('the seventh of ii lay under the hand and its half step was passed by', () =>
    expect(missed('69@3+1 67@4+1')).toEqual([[0, 72, 71, 'b7', '3']]));
  test('taken', () => expect(missed('72@3+1 71@4+1')).toEqual([]));
  test('the tone it leads to, reached another way, is met', () =>
    expect(missed('69@3+1 71@4+1')).toEqual([]));
  test('too far away', () => expect(missed('65@3+1 67@4+1')).toEqual([]));
  test('nothing was played', () => expect(missed('69@0+1')).toEqual([]));
});

test('the thirds palette: cents above the minor third, and where a bend carried it', () => {
  const { thirds } = judge('key: C\nfeel: blues\n| C7 | F7 |', [
    { midi: 63, onsetBeat: 0, durationBeats: 1 },
    { midi: 63, cents: 50, onsetBeat: 1, durationBeats: 1 },
    { midi: 64, onsetBeat: 2, durationBeats: 1 },
    {
      midi: 63,
      onsetBeat: 3,
      durationBeats: 0.9,
      bend: [
        [0, 0],
        [0.1, 60],
        [0.45, 60],
      ],
    },
    { midi: 67, onsetBeat: 5, durationBeats: 1 },
    { midi: 69, onsetBeat: 6, durationBeats: 1 },
  ]);
  expect(thirds.map(({ noteIndex, chord, cents, moved }) => [noteIndex, chord, cents, moved])).toEqual([
    [0, 'C7', 0, 0],
    [1, 'C7', 50, 0],
    [2, 'C7', 100, 0],
    [3, 'C7', 60, 60],
    [5, 'F7', 100, 0],
  ]);
  expect(judge(C, '64@0+1').thirds).toEqual([]);
});

describe('chords and line', () => {
  const hits = (bar: number) => `60,64,71@${bar * 4}+1 60,64,71@${bar * 4 + 2}+1`;
  const run = (bar: number, late = 0) =>
    [0, 1, 2, 3]
      .filter((beat) => beat >= late)
      .map((beat) => `${64 + beat}@${bar * 4 + beat}+1`)
      .join(' ');
  test('bars are chords, line or rest', () =>
    expect(judge(C, `${hits(0)} ${run(1)} 67@12+4`).bars.map(({ kind }) => kind)).toEqual([
      'chords',
      'line',
      'rest',
      'line',
    ]));
  test('a note that rings through half a bar is no rest', () =>
    expect(judge(C, '67@2+4 64@12+1').bars.map(({ kind }) => kind)).toEqual([
      'line',
      'line',
      'rest',
      'line',
    ]));
  test('handovers are timed from their bar line and by the silence before them', () => {
    const { handovers } = judge(C, `${hits(0)} ${run(1, 1)} ${hits(2)}`);
    expect(handovers).toEqual([
      { bar: 2, to: 'line', beat: 5, lateBeats: 1, gapBeats: 2 },
      {
        bar: 3,
        to: 'chords',
        beat: 8,
        lateBeats: 0,
        gapBeats: 0,
        hit: 5,
        lastNote: { noteIndex: 8, interval: '5' },
      },
    ]);
  });
  // the standard substitutes, common practice: a tritone away from a dominant that falls a fifth, its related minor
  test.each([
    ['G7 as written', '59,65,67', 'right', undefined],
    ['its tritone substitute', '56,59,61,65', 'substitute', 'Db7'],
    ['its related minor', '57,60,62,65', 'substitute', 'Dm7'],
    ['a chord that has no business there', '56,60,63', 'wrong', undefined],
  ])('a hit over G7 on its way home: %s', (_name, notes, fit, as) => {
    const { events } = judge('key: C\n| G7 | Cmaj7 |', `${notes}@0+2`);
    expect([events[0]?.fit, events[0]?.as]).toEqual([fit, as]);
  });
  test('over no chord a hit is not judged', () =>
    expect(judge('key: C\n| Cmaj7 | N.C. | % | % |', '60,64,67@6+2').events[0]).not.toHaveProperty('fit'));
  test('a pickup takes over before the bar line', () => {
    const { handovers } = judge(C, `${hits(0)} 62@3.5+0.5 ${run(1)}`);
    expect(handovers[0]).toMatchObject({ bar: 2, to: 'line', lateBeats: -0.5, gapBeats: 0.5 });
  });
});

test('call and answer: as long, one to four beats apart, from the same place of the bar', () => {
  const phrase = (start: number, last = 2) =>
    eighths('64 67 71', start).map((note, index) => (index === last ? { ...note, durationBeats: 1 } : note));
  const answers = (...starts: number[]) =>
    judge(
      C,
      starts.flatMap((start) => phrase(start)),
    ).phrases.map(({ answers: call }) => call ?? null);
  expect(answers(0, 4)).toEqual([null, 0]);
  expect(answers(0.5, 4)).toEqual([null, 0]);
  expect(answers(0, 8)).toEqual([null, null]);
  // another place of the bar, but the same motif
  expect(answers(0, 5.5)).toEqual([null, 0]);
});

test('coverage by Roman numeral and of the whole take', () => {
  const { coverageByFunction, coverageOverall } = judge(II, '65@0+4 71@4+4 64@8+2 62@10+2');
  expect(coverageByFunction.map(({ function: degree, count }) => [degree, count])).toEqual([
    ['ii', 1],
    ['V', 1],
    ['I', 2],
  ]);
  expect(coverageOverall).toMatchObject({
    count: 4,
    beatsAtHeight: [10, 2, 0, 0, 0],
    range: { lowest: 62, highest: 71 },
    homeUsed: [2, 4, 5, 11],
    homeUnused: [0, 7, 9],
  });
  expect(coverageOverall.byInterval).toMatchObject({
    b3: { count: 1, beats: 4, strong: 1 },
    '3': { count: 2, beats: 6, strong: 2 },
    '9': { count: 1, beats: 2, strong: 1 },
  });
  expect(judge(II, []).coverageOverall.range).toBeNull();
});

test('a theme comes back with a note changed for the new chord', () => {
  // 3 5 7 of ii; over V the last note gives way to its third
  const { phrases } = judge('key: C\n| Dm7 | % | G7 | % |', [
    ...eighths('65 69 72'),
    ...eighths('65 69 71', 8),
  ]);
  expect(phrases.map(({ theme, motif, changed }) => [theme, motif, changed])).toEqual([
    [0, 0, undefined],
    [0, 0, [{ noteIndex: 5, toChordTone: true }]],
  ]);
});

test('where the line turned, by kind of change: middle and spread', () => {
  // to the third of G7 on the change, then a beat late
  const notes = (late: number) =>
    line(`65@0+1 72@1+1 69@2+1 65@3+1 ${late ? '69@4+1 71@5+1 ' : '71@4+1 74@5+1 '}65@6+1 71@7+1`);
  const turn = (...lates: number[]) =>
    analyse({
      chart: unwrap(readChart('key: C\n| Dm7 | G7 |')),
      tempo: 120,
      plan: { id: 'outline' },
      notes: lates.flatMap((late, chorus) =>
        notes(late).map((note) => ({ ...note, onsetBeat: note.onsetBeat + 8 * chorus })),
      ),
    }).turnings[0];
  expect(turn(0, 0)).toEqual({ change: 'Dm7→G7', count: 2, medianBeats: 0, spreadBeats: 0 });
  expect(turn(0, 1, 1)).toMatchObject({ count: 3, medianBeats: 1, spreadBeats: 0 });
});

test('heard by chorus and by change, with the notes that decided', () => {
  const { heardBy, mutedBand } = judge(
    'key: C\n| Dm7 | G7 | Cmaj7 | % |',
    '65@0+2 72@2+2 71@4+2 62@6+1 67@7+0.5 64@8+2 65@16+2 72@18+2',
  );
  expect(mutedBand.segments.map(({ verdict }) => verdict)).toEqual([
    'heard',
    'heard',
    'heard',
    'heard',
    'silent',
    'silent',
  ]);
  expect(heardBy.byChorus).toEqual([
    { chorus: 1, heard: 3, of: 3 },
    { chorus: 2, heard: 1, of: 1 },
  ]);
  expect(heardBy.byChange).toEqual([
    { change: 'Dm7→G7', heard: 1, of: 1 },
    { change: 'G7→Cmaj7', heard: 1, of: 1 },
    { change: 'Cmaj7→Dm7', heard: 1, of: 1 },
  ]);
  expect(heardBy.decidedBy.map((indices) => indices[0])).toEqual([0, 2, 5, 6, undefined, undefined]);
});

test('the arc of each chorus: height, density, register and loudness', () => {
  // one chorus of roots and sevenths below, one of ninths above and louder
  const notes = [...line('60@0+2 71@2+2 60@4+2 71@6+2'), ...line('74@16+2 74@18+2')].map((note) => ({
    ...note,
    level: note.onsetBeat < 16 ? -20 : -12,
  }));
  const { arc } = judge(C, notes);
  expect(
    arc.map(({ chorus, meanHeight, density, register, loudness }) => [
      chorus,
      meanHeight,
      density,
      register,
      loudness,
    ]),
  ).toEqual([
    [1, 0, 1, 65.5, -20],
    [2, 1, 0.5, 74, -12],
  ]);
  expect(arc[0]!.heights).toEqual([1, 0, 0, 0, 0]);
  expect(judge(C, '60@0+1').arc[0]!.loudness).toBeNull();
});
