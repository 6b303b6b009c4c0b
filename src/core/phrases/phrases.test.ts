import { expect, test } from '@jest/globals';
import fc from 'fast-check';
import { analyse } from '../analyse';
import { LIBRARY, readChart } from '../chart';
import { elementAt, modulo, unwrap } from '../shared';
import {
  blockChords,
  commonPhrases,
  endingsOf,
  formulaOfNotes,
  formulaWords,
  foundIn,
  joinedPhrases,
  movedCell,
  phraseOfTake,
  readPhrase,
  sceneOf,
  transferred,
  TRANSFERS,
  VARIATIONS,
  varied,
  writePhrase,
  type KeptPhrase,
} from './index';

const typed = (chords: string, line: string): KeptPhrase => unwrap(readPhrase({ chords, line, tempo: 120 }));
const pitches = ({ notes }: Pick<KeptPhrase, 'notes'>) => notes.map(({ midi }) => midi);
const onsets = ({ notes }: Pick<KeptPhrase, 'notes'>) => notes.map(({ onsetBeat }) => onsetBeat);
const chart = (text: string) => unwrap(readChart(text));
const formulaOf = (phrase: KeptPhrase) => formulaWords(formulaOfNotes(phrase.notes, sceneOf(phrase))!);

// 1 5 1 ♭3 5 1 9 ♭3 over Am7, as a player types it
const MINOR = typed('Am7', 'A3:1/2 E4 A4 C5 E5 A5 B5 C6');

test('notes, degrees, rests and lengths are read; a pitch without an octave is the nearest', () => {
  const phrase = typed('Dm7 | G7 | Cmaj7', '.:1/2 D4 F A:1 C5:3/2 | B:1/2 D F .:1/2 E5:2 | G4:1');
  expect(pitches(phrase)).toEqual([62, 65, 69, 72, 71, 74, 77, 76, 67]);
  expect(onsets(phrase).slice(0, 5)).toEqual([0.5, 1, 1.5, 2.5, 4]);
  // degrees: a plain one is the chord's own, a written sign counts from the major scale
  expect(pitches(typed('Am7', '1 3 5 7'))).toEqual([57, 60, 64, 67].map((midi) => midi));
  expect(pitches(typed('A7', '1 b3 3 b9'))).toEqual([57, 60, 61, 58]);
});

test.each([
  ['Dm7', 'D4 X F', 'phrase.unknown', 4],
  ['Dm7', 'D4:1 F | A', 'phrase.bar-line', 8],
  ['Dm7', 'D4:3 F4:3', 'phrase.over', undefined],
  ['Dm7', 'D4', 'phrase.short', undefined],
  ['Dm7', 'D9 D4', 'phrase.range', 1],
  ['Dm7', 'D4:99 D4', 'phrase.length', 1],
  ['N.C.', 'b3 D4', 'phrase.no-chord', 1],
])('what cannot be read is said with its place: %s, %s', (chords, line, code, column) => {
  const read = readPhrase({ chords, line, tempo: 120 });
  expect(read.ok).toBe(false);
  if (read.ok) return;
  expect([read.problems[0].code, read.problems[0].column]).toEqual([code, column]);
});

test('a phrase written as text is read back as it was', () => {
  fc.assert(
    fc.property(
      fc.array(
        fc.tuple(fc.constantFrom(0.25, 1 / 3, 0.5, 1), fc.boolean(), fc.integer({ min: 45, max: 80 })),
        {
          minLength: 2,
          maxLength: 20,
        },
      ),
      (steps) => {
        let beat = 0;
        const notes = steps.flatMap(([durationBeats, isRest, midi]) => {
          const onsetBeat = beat;
          beat += durationBeats;
          return isRest && beat > 1 ? [] : [{ onsetBeat, durationBeats, midi }];
        });
        if (notes.length < 2) return;
        const bars = Array.from({ length: Math.ceil(beat / 4 + 0.01) }, () => 'Cm7').join(' | ');
        const phrase: KeptPhrase = { chartText: `tempo: 120\n| ${bars} |\n`, tempo: 120, notes };
        const back = unwrap(readPhrase(writePhrase(phrase)));
        expect(pitches(back)).toEqual(pitches(phrase));
        onsets(back).forEach((onset, index) =>
          expect(onset).toBeCloseTo(elementAt(onsets(phrase), index), 1),
        );
      },
    ),
    { seed: 3, numRuns: 200 },
  );
});

test('carried by degree a phrase keeps its formula over every chord, major or minor as the chord is', () => {
  expect(formulaOf(MINOR)).toBe('1 5 1 3 5 1 9 3');
  const form = chart('key: C\n| Am7 | D7 | Gmaj7 | Fm7 |');
  const { statements } = transferred(MINOR, form, 'degree');
  expect(statements.map(({ fromBeat }) => fromBeat)).toEqual([0, 4, 8, 12]);
  // D7 has a major third, Fm7 a minor one
  expect(elementAt(statements, 1).notes.map(({ midi }) => modulo(midi - 2, 12))).toEqual([
    0, 7, 0, 4, 7, 0, 2, 4,
  ]);
  expect(elementAt(statements, 3).notes.map(({ midi }) => modulo(midi - 5, 12))).toEqual([
    0, 7, 0, 3, 7, 0, 2, 3,
  ]);
});

test('an altered tone stays the same tone over every chord, whatever the chord’s own scale holds', () => {
  // ♭9 of G7 in a major key; A7 on its way to D minor has a ♭9 of its own
  const own = typed('G7', 'G4:1/2 Ab4 B4 D5');
  const { statements } = transferred(own, chart('key: F\n| A7 | Dm7 | C7 | Fmaj7 |'), 'degree');
  const above = statements.map(({ notes }, index) =>
    notes.map(({ midi }) => modulo(midi - elementAt([9, 2, 0, 5], index), 12)),
  );
  expect(above).toEqual([
    [0, 1, 4, 7],
    [0, 1, 3, 7],
    [0, 1, 4, 7],
    [0, 1, 4, 7],
  ]);
});

test('carried exactly every interval stays; by step the scales change it; by contour the turns stay', () => {
  const own = typed('Cmaj7', 'C4:1/2 D E G F:1 E');
  const form = chart('key: C\n| Cmaj7 | Dm7 | Em7 | Ab7 |');
  const moves = (notes: readonly { midi: number }[]) =>
    notes.slice(1).map(({ midi }, index) => midi - elementAt(notes, index).midi);
  for (const { notes } of transferred(own, form, 'exact').statements)
    expect(moves(notes)).toEqual(moves(own.notes));
  const [, dorian] = transferred(own, form, 'step').statements;
  expect(dorian!.notes.map(({ midi }) => modulo(midi, 12))).toEqual([2, 4, 5, 9, 7, 5]);
  for (const { notes } of transferred(own, form, 'contour').statements)
    expect(moves(notes).map(Math.sign)).toEqual(moves(own.notes).map(Math.sign));
});

test('over every form of the library, each way: the rhythm stays, nothing leaves the neck, the phrase is as it was', () => {
  const before = JSON.stringify(MINOR);
  for (const { text, id } of LIBRARY) {
    const form = chart(text);
    for (const transfer of TRANSFERS) {
      const { statements, notes } = transferred(MINOR, form, transfer);
      expect([id, transfer, statements.length > 0]).toEqual([id, transfer, true]);
      expect(notes.filter(({ midi }) => midi < 40 || midi > 96)).toEqual([]);
      for (const one of statements)
        one.notes.forEach(({ onsetBeat }, index) =>
          expect(onsetBeat - one.fromBeat).toBeCloseTo(elementAt(MINOR.notes, index).onsetBeat),
        );
    }
  }
  expect(JSON.stringify(MINOR)).toBe(before);
});

test('each variation is what its name says', () => {
  const own = typed('Cmaj7 | Cmaj7', 'C4:1/2 E:1 G:1/2 A:1');
  const made = Object.fromEntries(VARIATIONS.map((kind) => [kind, varied(own, kind)!]));
  expect(pitches(made.reversed!)).toEqual([69, 67, 64, 60]);
  expect(onsets(made.reversed!)).toEqual(onsets(own));
  // around C in C major: E becomes A below, G becomes F, A becomes E
  expect(pitches(made.inverted!)).toEqual([60, 57, 53, 52]);
  expect(onsets(made['other-rhythm']!)).toEqual([0, 1, 1.5, 2.5]);
  expect(onsets(made['beat-later']!)).toEqual([1, 1.5, 2.5, 3]);
  expect(onsets(made['eighth-later']!)[0]).toBe(0.5);
  expect(onsets(made.halved!)).toEqual([0, 0.25, 0.75, 1]);
  expect(onsets(made.doubled!)).toEqual([0, 1, 3, 4]);
  expect(pitches(made['other-ending']!).slice(0, 3)).toEqual([60, 64, 67]);
  expect([0, 4, 7, 11]).toContain(modulo(pitches(made['other-ending']!)[3]!, 12));
  expect(made.extended!.notes.length).toBe(7);
  // what runs over gets bars of its own
  const long = varied(typed('Cmaj7', 'C4:1 E G B'), 'doubled')!;
  expect(sceneOf(long).timeline.bars.length).toBe(2);
});

test('two phrases join bar by bar, the second in the nearest octave', () => {
  const joined = joinedPhrases(typed('Dm7', 'D4:1 F A C5'), typed('G7', 'B2:1 D3 F3 A3'));
  expect(pitches(joined)).toEqual([62, 65, 69, 72, 71, 74, 77, 81]);
  expect(onsets(joined)[4]).toBe(4);
});

test('the last note is told over each chord of a form, and how far it is from home (T10.6)', () => {
  const endings = endingsOf(typed('Dm7', 'D4:1 F A C5'), chart('key: C\n| Dm7 | G7 | Cmaj7 | Am7 |'));
  const say = endings.map(({ symbol, interval, end, homeBy }) => [symbol, interval, end, homeBy]);
  // C is the seventh of Dm7, the fourth of G7, the root of Cmaj7, the third of Am7
  expect(say.map(([symbol, interval]) => [symbol, interval])).toEqual([
    ['Dm7', 'b7'],
    ['G7', '4'],
    ['Cmaj7', '1'],
    ['Am7', 'b3'],
  ]);
  expect(say[2]).toEqual(['Cmaj7', '1', 'home', 0]);
  expect(say[1]![2]).toBe('asks');
  for (const [, , end, by] of say) expect(end === 'home').toBe(by === 0);
});

test('a cell moves up by half steps and back, comes home, and is judged as one step out with its homecoming', () => {
  const form = { chart: chart('key: C\n| Cm7 | Cm7 | Cm7 | Cm7 |'), tempo: 120 };
  const cell = typed('Cm7', 'Eb4:1/2 F G Bb').notes;
  const line = unwrap(movedCell(form, cell, { by: 1, times: 1, isThereAndBack: true, home: 'root' }, 0));
  expect(line.map(({ midi }) => midi)).toEqual([63, 65, 67, 70, 64, 66, 68, 71, 63, 65, 67, 70, 72]);
  const report = analyse({ ...form, notes: line, plan: { id: 'step-out' }, leanMs: 0 });
  expect(report.stepOuts.length).toBe(1);
  expect(report.stepOuts[0]!.homeIndex).not.toBeNull();
  const refusals = [
    movedCell(form, cell, { by: 3, times: 12, isThereAndBack: false, home: 'root' }, 0),
    movedCell(form, cell, { by: 12, times: 3, isThereAndBack: false, home: 'root' }, 0),
  ];
  expect(refusals.map((one) => !one.ok && one.problems[0].code)).toEqual([
    'cell.too-long',
    'cell.out-of-range',
  ]);
});

test('block chords: the sixth chord under its own tones, the diminished chord under the rest, each under one hand', () => {
  const STANDARD = [64, 59, 55, 50, 45, 40];
  // C major up its eight-note scale from E: C6 and Bdim7 in turn (sixth-diminished scale, common practice)
  const scale = typed('Cmaj7 | Cmaj7', 'E4:1/2 F G Ab A B C5 D E');
  const blocks = blockChords(scale, STANDARD);
  expect(blocks.map(({ kind }) => kind)).toEqual([
    'sixth',
    'diminished',
    'sixth',
    'diminished',
    'sixth',
    'diminished',
    'sixth',
    'diminished',
    'sixth',
  ]);
  const pcsOf = (list: readonly number[]) =>
    [...new Set(list.map((midi) => modulo(midi, 12)))].sort((a, b) => a - b);
  for (const { kind, pitches: own, grip } of blocks) {
    expect(pcsOf(own)).toEqual(kind === 'sixth' ? [0, 4, 7, 9] : [2, 5, 8, 11]);
    expect([...own]).toEqual([...own].sort((a, b) => a - b));
    expect(grip).not.toBeNull();
    const sounding = grip!.map(({ string, fret }) => STANDARD[string - 1]! + fret);
    expect([...sounding].reverse()).toEqual(own);
    const frets = grip!.map(({ fret }) => fret).filter((fret) => fret > 0);
    expect(Math.max(...frets) - Math.min(...frets)).toBeLessThanOrEqual(4);
  }
  expect(blocks.map(({ pitches: own }) => own[3])).toEqual(pitches(scale));
  // G7 is Dm6: its third, fifth, seventh and ninth; a note outside the scale gets the diminished chord it belongs to
  expect(pcsOf(blockChords(typed('G7', 'B4:1 D5 F5 Eb5'), STANDARD)[0]!.pitches)).toEqual([2, 5, 9, 11]);
  expect(blockChords(typed('G7', 'B4:1 D5 F5 Eb5'), STANDARD)[3]!.kind).toBe('diminished');
});

test('a phrase is found again: the same, moved, and fitted with the note that was changed', () => {
  const own = typed('Dm7', 'D4:1/2 F A C5:1').notes;
  const line = (shift: number, change = 0) =>
    own.map(({ midi }, index) => midi + shift + (index === 2 ? change : 0));
  const searched = {
    onsets: [0, 4, 8, 12].flatMap((from) => own.map(({ onsetBeat }) => from + onsetBeat)),
    pitches: [...line(0), ...line(5), ...line(5, -1), ...line(0, -5)],
    phraseStarts: [0, 4, 8, 12],
  };
  expect(foundIn(searched, own).map(({ beat, how, changed }) => [beat, how, changed])).toEqual([
    [0, 'exact', []],
    [4, 'moved', []],
    [8, 'fitted', [2]],
  ]);
  // another rhythm is another phrase
  expect(foundIn({ ...searched, onsets: searched.onsets.map((beat) => beat * 1.5) }, own)).toEqual([]);
});

test('what comes back over several takes is told, most takes first; short ideas and single takes are not', () => {
  const line = (...phrases: readonly (readonly number[])[]) => ({
    onsets: phrases.flatMap((phrase, from) => phrase.map((_, index) => from * 8 + index * 0.5)),
    pitches: phrases.flat(),
    phraseStarts: phrases.map((_, index) => phrases.slice(0, index).flat().length),
  });
  const [idea, other] = [
    [60, 62, 63, 67, 65],
    [72, 70, 67, 65],
  ];
  const moved = idea!.map((midi) => midi + 3);
  const takes = [
    line(idea!, [60, 62]),
    line(moved, other!, idea!),
    line([50, 52], other!, other!),
    line(idea!),
  ];
  expect(commonPhrases(takes)).toEqual([
    { count: 4, takes: 3, line: 3, phrase: 0 },
    { count: 3, takes: 2, line: 2, phrase: 2 },
  ]);
});

test('a phrase is taken out of a take with the bars it stands over, across the end of the form too', () => {
  const form = chart('key: C\ntempo: 120\n| Dm7 | G7 | Cmaj7 | A7 |');
  const notes = [14, 14.5, 15, 15.5, 16, 16.5].map((onsetBeat, index) => ({
    onsetBeat,
    durationBeats: 0.5,
    midi: 60 + 2 * index,
  }));
  const report = analyse({ chart: form, tempo: 120, notes, plan: { id: 'outline' }, choruses: 2, leanMs: 0 });
  const kept = phraseOfTake(report, 0, form, 120);
  expect(sceneOf(kept).timeline.chordSpans.map(({ chord }) => chord?.symbol)).toEqual(['A7', 'Dm7']);
  expect(onsets(kept)).toEqual([2, 2.5, 3, 3.5, 4, 4.5]);
});

test('a place on the neck is the phrase’s own: what is made of it lies where it is likeliest', () => {
  const notes = [60, 63, 67, 70].map((midi, index) => ({
    onsetBeat: index,
    durationBeats: 1,
    midi,
    position: 8,
  }));
  const phrase = { chartText: 'key: Cm\n| Cm7 |\n', tempo: 100, notes };
  const other = unwrap(readChart('key: F\n| Fm7 | Bb7 |\n'));
  const places = [
    varied(phrase, 'reversed')!.notes,
    varied(phrase, 'beat-later')!.notes,
    ...transferred(phrase, other, 'exact').statements.map(({ notes: made }) => made),
  ].flatMap((made) => made.map(({ position }) => position));
  expect(places.length).toBeGreaterThan(8);
  expect(places.every((position) => position === undefined)).toBe(true);
});
