import { expect, test } from '@jest/globals';
import fc from 'fast-check';
import { unwrap } from '../shared';
import { readChart, timelineOf } from '../chart';
import { PLAN_IDS, readPlan, type PlanChoice, type PlanId } from '../plan';
import { readScale } from '../music';
import { analyse, type PlayedNote, type Report } from './index';

/** `62@3.5+1` = MIDI 62 at beat 3.5 for 1 beat. */
const line = (text: string): PlayedNote[] =>
  text.split(' ').map((word) => {
    const [, midi, onset, length] = /^(\d+)@(-?[\d.]+)\+([\d.]+)$/.exec(word)!;
    return { midi: Number(midi), onsetBeat: Number(onset), durationBeats: Number(length) };
  });
const judge = (
  chart: string,
  notes: string | PlayedNote[],
  id: PlanId = 'scale-per-chord',
  tempo = 120,
): Report =>
  analyse({
    chart: unwrap(readChart(chart)),
    tempo,
    notes: typeof notes === 'string' ? line(notes) : notes,
    plan: { id },
  });

const II_V = 'key: C\n| Dm7 | G7 | Cmaj7 | % |';

// Hand-labelled from the landing rules: the first that exists of on, early, held, late, none.
test.each([
  ['on: the chord tone nearest the change', '69@3+0.9 71@4+1', 'on', '3', 'target', 'step'],
  ['on: within the window, a non-chord tone', '69@3+0.9 72@4.1+1', 'on', '4', 'scale', 'skip'],
  ['on: of two the chord tone, though farther', '72@3.95+0.06 71@4.1+1', 'on', '3', 'target', 'step'],
  ['early: pushed ahead and ringing over', '69@3+0.5 71@3.5+1', 'early', '3', 'target', 'step'],
  [
    'early: alone before the change, though short',
    '69@2+0.5 71@3.5+0.4 74@5+1',
    'early',
    '3',
    'target',
    'step',
  ],
  [
    'early: a tone common to both chords, alone',
    '69@2+0.5 65@3.5+0.4 74@5+1',
    'early',
    'b7',
    'target',
    'skip',
  ],
  ['held: still sounding half a beat in', '65@2+3', 'held', 'b7', 'target', 'common'],
  ['held: not long enough, then late', '62@2+2.3 71@4.6+1', 'late', '3', 'target', 'leap'],
  ['late: within a beat', '69@3+1 74@4.75+1', 'late', '5', 'chord-tone', 'leap'],
  ['fresh: after a gap of more than a beat', '69@1+0.5 71@4+1', 'on', '3', 'target', 'fresh'],
])('%s', (_, notes, timing, interval, verdict, kind) => {
  const [change] = judge(II_V, notes).changes;
  expect({
    timing: change!.landing.timing,
    interval: change!.landing.interval,
    verdict: change!.landing.verdict,
    kind: change!.connection.kind,
  }).toEqual({ timing, interval, verdict, kind });
});

test('none, at rest and not', () => {
  expect(judge(II_V, '69@0+1 71@9+1').changes[0]!.landing).toMatchObject({
    timing: 'none',
    verdict: 'none',
    noteIndex: null,
    rest: true,
  });
  expect(judge(II_V, '69@2.2+1.2 71@6+1').changes[0]!.landing).toEqual({
    timing: 'none',
    verdict: 'none',
    noteIndex: null,
    interval: null,
  });
});

test('a delayed landing tells where it came home; one that leaps home is not delayed', () => {
  const delayed = judge(II_V, '69@3+1 72@4+0.5 71@4.5+1').changes[0]!;
  expect(delayed.landing).toMatchObject({
    verdict: 'target',
    delayed: true,
    resolutionIndex: 2,
    resolvedAfterBeats: 0.5,
  });
  expect(delayed.fix).toBeNull();
  expect(judge(II_V, '69@3+1 72@4+0.5 77@4.5+1').changes[0]!.landing.delayed).toBeUndefined();
  expect(
    judge(II_V, '69@3+1 72@4+0.5 76@4.5+0.5 72@5+0.5 76@5.5+0.5 72@6+0.5 71@6.5+1').changes[0]!.landing
      .delayed,
  ).toBeUndefined();
});

test('a missed target gets its one-note fix: the nearest target to the note before, within four semitones', () => {
  const [change] = judge(II_V, '69@3+1 72@4+0.5 76@5.5+1').changes;
  expect(change!.connection.nearestTarget).toEqual({ midi: 71, semitones: 2 });
  expect(change!.fix).toEqual({ noteIndex: 1, toMidi: 71 });
});

test('in an event the best voice lands; ties go to the upper', () => {
  const [change] = judge(II_V, '69@3+1 65@4+1 72@4+1').changes;
  expect(change!.landing).toMatchObject({ noteIndex: 1, interval: 'b7', verdict: 'target' });
});

// Which chord a note belongs to
test.each([
  ['a tick early is already the new chord', '71@3.95+1', 0, 'G7'],
  ['an anticipation belongs to the next chord', '71@3.5+1', 0, 'G7'],
  ['a chord tone of the present chord does not anticipate', '65@3.5+1', 0, 'Dm7'],
  ['before beat 0 the first chord', '62@-1+0.5 65@0+1', 0, 'Dm7'],
])('%s', (_, notes, index, chord) => expect(judge(II_V, notes).notes[index]!.chord).toBe(chord));

test('a lead-in belongs to the chord it leads to', () => {
  const { notes } = judge('key: C\n| Cmaj7 | Ab7 |', '62@2.5+0.5 63@3+0.5 66@3.5+0.5 68@4+1');
  expect(notes.map((note) => [note.chord, note.flags.includes('lead-in')])).toEqual([
    ['Ab7', true],
    ['Ab7', true],
    ['Ab7', true],
    ['Ab7', false],
  ]);
});

test('over a long N.C. there is no chord, and the home scale gives tiers', () => {
  const { notes, changes } = judge('key: C\n| C | N.C. | % | F |', '64@0+1 66@5+1 67@6+1 69@12+1');
  expect(notes.map((note) => [note.chord, note.interval, note.tier])).toEqual([
    ['C', '3', 'chord'],
    [null, null, 'outside'],
    [null, null, 'scale'],
    ['F', '3', 'chord'],
  ]);
  expect(changes).toEqual([]);
});

// Figures, each by the letter of its rule
test.each([
  [
    'enclosure onto a beat; a member that is a chord tone keeps its name',
    '72@2.5+0.5 74@3+0.5 71@3.5+0.5 72@4+0.5',
    'Cmaj7',
    ['chord-tone', 'enclosure', 'target', 'chord-tone'],
  ],
  [
    'no enclosure off the beat when a member is a chord tone',
    '72@2+0.5 74@2.5+0.5 71@3+0.5 72@3.5+0.5',
    'Cmaj7',
    ['chord-tone', 'colour', 'target', 'chord-tone'],
  ],
  [
    'double chromatic',
    '60@0+0.5 65@0.5+0.5 66@1+0.5 67@1.5+0.5',
    'Cmaj7',
    ['chord-tone', 'double-chromatic', 'double-chromatic', 'chord-tone'],
  ],
  [
    'approach from below, chromatic',
    '60@0+0.5 63@0.5+0.5 64@1+0.5',
    'Cmaj7',
    ['chord-tone', 'approach-below', 'target'],
  ],
  [
    'passing between neighbours',
    '60@0+0.5 62@0.5+0.5 64@1+0.5',
    'Cmaj7',
    ['chord-tone', 'passing', 'target'],
  ],
  ['neighbour', '64@0+0.5 65@0.5+0.5 64@1+0.5', 'Cmaj7', ['target', 'neighbour', 'target']],
  [
    'a third away is no passing note unless the home scale has nothing between',
    '72@0+0.5 69@0.5+0.5 67@1+0.5',
    'Cmaj7',
    ['chord-tone', 'approach-above', 'chord-tone'],
  ],
  [
    'approach by step after a leap',
    '60@0+0.5 69@0.5+0.5 67@1+0.5',
    'Cmaj7',
    ['chord-tone', 'approach-above', 'chord-tone'],
  ],
  ['outside, left alone', '60@0+0.5 66@0.5+0.5 72@1+0.5', 'Cmaj7', ['chord-tone', 'outside', 'chord-tone']],
])('%s', (_, notes, chord, functions) =>
  expect(judge(`key: C\n| ${chord} | % |`, notes).notes.map((note) => note.function)).toEqual(functions),
);

test('an accented approach by rule 7 is an appoggiatura; one by rule 3 is not', () => {
  expect(judge('key: C\n| Cmaj7 | % |', '60@0+1 69@1+0.5 67@1.5+0.5').notes[1]!.appoggiatura).toBe(true);
  expect(judge('key: C\n| Cmaj7 | % |', '60@0+1 66@1+0.5 67@1.5+0.5').notes[1]!.appoggiatura).toBeUndefined();
});

test('a suspension sounds into the next chord and steps to it', () => {
  const { notes, figures } = judge(II_V, '72@2.5+2 71@4.5+1');
  expect(notes[0]).toMatchObject({
    function: 'suspension',
    tier: 'chord',
    targetIndex: 1,
    flags: ['resolved'],
  });
  expect(figures).toContainEqual({ kind: 'suspension', noteIndices: [0], targetIndex: 1, resolved: true });
});

test('a chromatic passing tone a semitone from both sides is leading in; a wider one is outside', () => {
  expect(judge('key: C\n| Cmaj7 | % |', '62@0+0.5 63@0.5+0.5 64@1+0.5').notes[1]).toMatchObject({
    height: 3,
  });
  expect(judge('key: C\n| Cmaj7 | % |', '72@0+0.5 68@0.5+0.5 65@1+0.5').notes[1]).toMatchObject({
    height: 4,
    tier: 'outside',
  });
});

test('graces lend their onset and stay out of the line', () => {
  const { notes, events } = judge('key: C\n| Cmaj7 | % |', [
    { midi: 62, onsetBeat: 0, durationBeats: 0.1 },
    { midi: 63, onsetBeat: 0.1, durationBeats: 0.1 },
    { midi: 64, onsetBeat: 0.2, durationBeats: 1 },
  ]);
  expect(notes.map((note) => note.function)).toEqual(['grace', 'grace', 'target']);
  expect(notes[2]).toMatchObject({ onsetBeat: 0, from: 0 });
  expect(events).toHaveLength(1);
});

test('bends are judged where they settle; a held release is a second note', () => {
  const bent = judge('key: C\n| C7 | % |', [
    {
      midi: 62,
      onsetBeat: 0,
      durationBeats: 2,
      bend: [
        [0, 0],
        [0.1, 0],
        [0.25, 200],
        [1, 200],
      ],
    },
  ]);
  expect(bent.notes.map((note) => note.interval)).toEqual(['3']);
  const released = judge('key: C\n| C7 | % |', [
    {
      midi: 62,
      onsetBeat: 0,
      durationBeats: 3,
      bend: [
        [0, 0],
        [0.2, 200],
        [0.7, 200],
        [0.8, 0],
        [1.5, 0],
      ],
    },
  ]);
  expect(released.notes.map((note) => note.interval)).toEqual(['3', '9']);
});

test('a long slide is where it arrives, a short one where it was picked', () => {
  const slid = (seconds: number) =>
    judge('key: C\n| C7 | % |', [
      { midi: 64, onsetBeat: 0, durationBeats: 2, slide: { fromMidi: 60, seconds } },
    ]).notes[0]!;
  expect(slid(0.1)).toMatchObject({ onsetBeat: 0, flags: ['slide'] });
  expect(slid(0.25).onsetBeat).toBeCloseTo(0.5);
});

test('a neutral third on a blues is the third, and blue', () => {
  const { notes } = judge('key: C\nfeel: blues\n| C7 | F7 |', [
    { midi: 63, cents: 50, onsetBeat: 0, durationBeats: 1 },
  ]);
  expect(notes[0]).toMatchObject({ interval: 'n3', tier: 'chord', height: 0, flags: ['blue'] });
});

// Phrases
test('phrases breathe by the quicker gaps and end at home, floating or asking', () => {
  const { phrases } = judge(
    II_V,
    '62@0+0.5 65@0.5+0.5 69@1+0.5 72@1.5+0.5 71@4+0.5 74@4.5+0.5 77@5+0.5 72@8+0.5 76@8.5+0.5 79@9+2',
  );
  expect(
    phrases.map((phrase) => [phrase.startBeat, phrase.endBeat, phrase.end, phrase.changesCrossed]),
  ).toEqual([
    [0, 2, 'floats', 0],
    [4, 5.5, 'asks', 0],
    [8, 11, 'home', 0],
  ]);
});

test('a border of the player stands before the rests (T10.7)', () => {
  const notes = line('62@0+0.5 65@0.5+0.5 69@1+0.5 72@1.5+0.5 71@4+0.5 74@4.5+0.5 77@5+0.5');
  const starts = (border: readonly [number, PlayedNote['phrase']]) =>
    judge(
      II_V,
      notes.map((note, index) => (index === border[0] ? { ...note, phrase: border[1] } : note)),
    ).phrases.map(({ startBeat }) => startBeat);
  expect(starts([0, undefined])).toEqual([0, 4]);
  expect(starts([4, 'goes-on'])).toEqual([0]);
  expect(starts([2, 'begins'])).toEqual([0, 1, 4]);
  // the first note begins the first phrase, whatever is said
  expect(starts([0, 'goes-on'])).toEqual([0, 4]);
});

test('a pickup reaches to the next bar line, at most two beats', () => {
  expect(judge(II_V, '69@2.5+0.5 71@3+0.5 72@4+1').phrases[0]!.pickupBeats).toBe(1.5);
  expect(judge(II_V, '69@1+1 71@2+1 72@3+1').phrases[0]!.pickupBeats).toBe(0);
});

test('coverage counts a note once and its time where it sounds', () => {
  const { coverage } = judge(II_V, '65@3+2 71@5+1', 'outline');
  expect(coverage.find((one) => one.chord === 'Dm7')).toMatchObject({
    count: 1,
    judged: false,
    byInterval: { b3: { count: 1, beats: 1, strong: 0 } },
    missing: ['1', '5', 'b7'],
  });
  expect(coverage.find((one) => one.chord === 'G7')!.byInterval).toEqual({
    b7: { count: 0, beats: 1, strong: 0 },
    '3': { count: 1, beats: 1, strong: 0 },
  });
  expect(coverage.find((one) => one.chord === 'Cmaj7')!.missing).toEqual(['1', '3', '5', '7']);
});

test('the form repeats until the last onset; what rings past it is cut', () => {
  const { summary, notes } = judge('key: C\n| C | G |', '60@0+1 67@15+4');
  expect(summary.choruses).toBe(2);
  expect(notes[1]!.spans).toEqual([{ chord: 'G', interval: '1', height: 0, beats: 1 }]);
});

test('an empty take has a report', () =>
  expect(judge(II_V, []).summary).toMatchObject({ notes: 0, choruses: 1, judgedChanges: 0 }));

// What must always hold (page on verification)
const note = fc.record({
  midi: fc.integer({ min: 50, max: 80 }),
  at: fc.integer({ min: 0, max: 46 }),
  length: fc.integer({ min: 1, max: 6 }),
});
const solo = fc
  .array(note, { minLength: 1, maxLength: 24 })
  .map((notes) =>
    notes.map(({ midi, at, length }) => ({ midi, onsetBeat: at / 2, durationBeats: length / 2 })),
  );
const CHARTS: [string, string][] = [
  ['key: C\n| Dm7 | G7 | Cmaj7 | A7 |', 'key: Eb\n| Fm7 | Bb7 | Ebmaj7 | C7 |'],
  ['key: A\n| A7 | D7 | E7 | F#m7b5 |', 'key: C\n| C7 | F7 | G7 | Am7b5 |'],
];

test('transposing chart and notes together changes no label', () => {
  fc.assert(
    fc.property(solo, fc.constantFrom(...CHARTS), (notes, [from, to]) => {
      const moved = judge(
        to,
        notes.map((one) => ({ ...one, midi: one.midi + 3 })),
      );
      const labels = ({ notes: all, changes, phrases }: Report) => ({
        notes: all.map((one) => [one.interval, one.tier, one.function, one.flags, one.inPlan]),
        landings: changes.map((change) => [
          change.landing.interval,
          change.landing.timing,
          change.landing.verdict,
        ]),
        ends: phrases.map((phrase) => phrase.end),
      });
      expect(labels(moved)).toEqual(labels(judge(from, notes)));
    }),
    { numRuns: 150 },
  );
});

test('the plan never changes a height, and every note has one function', () => {
  fc.assert(
    fc.property(solo, fc.constantFrom(...PLAN_IDS), (notes, id) => {
      const other = judge(CHARTS[0]![0], notes, id);
      const own = judge(CHARTS[0]![0], notes, 'outline');
      expect(other.notes.map((one) => one.height)).toEqual(own.notes.map((one) => one.height));
      expect(other.notes.every((one) => typeof one.function === 'string')).toBe(true);
    }),
    { numRuns: 100 },
  );
});

test('stretching time with the tempo, onsets on the grid, changes no label', () => {
  fc.assert(
    fc.property(solo, (notes) => {
      const at = (tempo: number) =>
        judge(CHARTS[0]![0], notes, 'scale-per-chord', tempo).changes.map((change) => [
          change.landing.noteIndex,
          change.landing.timing,
        ]);
      expect(at(100)).toEqual(at(120));
    }),
    { numRuns: 60 },
  );
});

test('the player’s home scale changes the plan’s material, not the heights', () => {
  const chart = unwrap(readChart('key: A\nfeel: blues\n| A7 | D7 |'));
  const notes = line('61@0+1 62@4+1');
  const [own, other] = ['A minor pentatonic', 'A major'].map((home) =>
    analyse({ chart, tempo: 100, notes, plan: { id: 'home-scale', home: unwrap(readScale(home)) } }),
  );
  expect(own!.notes.map((one) => one.inPlan)).toEqual([false, true]);
  expect(other!.notes.map((one) => one.inPlan)).toEqual([true, true]);
  expect(own!.notes.map((one) => one.height)).toEqual(other!.notes.map((one) => one.height));
});

test('a chorus with a home scale of its own is judged by it: levels, spans, coverage and what a plan plays', () => {
  const chart = unwrap(readChart('key: C\n| Cmaj7 | Cmaj7 |'));
  // E♭ in both choruses: foreign to C major, a tone of C minor pentatonic
  const notes = line('63@0+4 67@4+4 63@8+4 67@12+4');
  const home = unwrap(readScale('C minor pentatonic'));
  const plan: PlanChoice = {
    id: 'scale-per-chord',
    parts: [{ where: { chorus: 2 }, plan: { id: 'home-scale', home } }],
  };
  const { notes: judged, coverageOverall } = analyse({ chart, tempo: 100, notes, plan });
  expect(judged.map(({ tier, height }) => [tier, height])).toEqual([
    ['outside', 4],
    ['chord', 0],
    ['scale', 2],
    ['chord', 0],
  ]);
  expect(coverageOverall.homeUsed).toContain(3);
  const homes = [0, 1].map((chorus) =>
    readPlan(chart, timelineOf(chart, 100), plan, chorus).map(({ home }) => home.name),
  );
  expect(homes).toEqual([
    ['C major', 'C major'],
    ['C minor pentatonic', 'C minor pentatonic'],
  ]);
});
