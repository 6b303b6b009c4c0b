import { formulaOf, formulaWords } from '../phrases';
import { COURSE, courseOf } from './course';
import { expect, test } from '@jest/globals';
import { analyse } from '../analyse';
import { harmonyOf, LIBRARY, readChart, timelineOf } from '../chart';
import { fitsOneLocation, pathOf } from '../neck';
import { lineFaults } from '../lines';
import { elementAt, unwrap } from '../shared';
import { withoutChords } from './example';
import {
  attemptSize,
  CATALOGUE,
  DRILL_KINDS,
  drillFor,
  drillOf,
  exampleFor,
  exampleOf,
  failingOf,
  isAtChanges,
  judgeDrill,
  OWN_EXAMPLES,
  readOwnWords,
  ruleWords,
  shapeOf,
  type Rule,
} from './index';

const BLUES = unwrap(
  readChart('key: Bb\n| Bb7 | Eb7 | Bb7 | Bb7 |\n| Eb7 | Eb7 | Bb7 | G7 |\n| Cm7 | F7 | Bb7 G7 | Cm7 F7 |'),
);
const TUNE = unwrap(readChart('key: Eb\n| Ebmaj7 | C7b9 | Fm7 | Bb7 |\n| Gm7 C7 | Fm7 Bb7 | Ebmaj7 | Bb7 |'));
const MINOR = unwrap(readChart('key: Am\n| Am7 | Dm7 | Bm7b5 E7b9 | Am6 |'));
const CHARTS = { blues: BLUES, tune: TUNE, minor: MINOR };

// Example lines are made by one part and judged by another: the analysis, which knows nothing of how they
// were made.
test.each(DRILL_KINDS)(
  '%s: on every form there is a line that passes, under the hand, another for every seed',
  (kind) => {
    for (const [name, chart] of Object.entries(CHARTS)) {
      const drill = drillFor({ kind, chart, tempo: 100 });
      const choruses = chart.bars.length < 8 ? 3 : 1;
      const lines = [1, 2].map((seed) => exampleOf(drill, seed, choruses));
      for (const line of lines) {
        expect([name, line !== null]).toEqual([name, true]);
        const judged = judgeDrill(drill, line!, choruses);
        expect([name, judged.passed, judged.of > 0]).toEqual([name, true, true]);
        const end = choruses * timelineOf(chart, 100).formBeats;
        expect([name, lineFaults(withoutChords(line!), end)]).toEqual([name, []]);
        expect(
          pathOf(line!.map(({ onsetBeat, durationBeats, midi }) => ({ onsetBeat, durationBeats, midi }))).ok,
        ).toBe(true);
      }
      expect(exampleOf(drill, 1, choruses)).toEqual(lines[0]);
    }
  },
);

test('seeds vary the line', () => {
  const drill = drillFor({ kind: 'nearest-note', chart: BLUES, tempo: 100 });
  expect(exampleOf(drill, 1)).not.toEqual(exampleOf(drill, 2));
});

const roots = (tempoShift = 0) =>
  timelineOf(BLUES, 100).chordSpans.map(({ chord, start, end }) => ({
    onsetBeat: start + tempoShift,
    durationBeats: end - start - 0.1,
    midi: 48 + chord!.tones[0]!.pc,
  }));

test('each rule hears its own thing and nothing else', () => {
  const verdict = (
    kind: keyof typeof CATALOGUE,
    notes: { onsetBeat: number; durationBeats: number; midi: number }[],
  ) => judgeDrill(drillFor({ kind, chart: BLUES, tempo: 100 }), notes, 1).passed;
  const own = (kind: keyof typeof CATALOGUE) => exampleOf(drillFor({ kind, chart: BLUES, tempo: 100 }), 3)!;
  expect([
    verdict('ladder-roots', roots()),
    verdict('ladder-thirds', roots()),
    verdict('chord-tones', roots()),
    verdict('nearest-note', roots()),
  ]).toEqual([true, false, true, false]);
  // too late is not landed; an eighth ahead is asked for by one rule and accepted by the others
  expect([
    verdict('ladder-roots', roots(0.6)),
    verdict('anticipate', roots(-0.5)),
    verdict('anticipate', roots()),
  ]).toEqual([false, true, false]);
  expect([
    verdict('enclosures', own('third-from-below')),
    verdict('third-from-below', own('third-from-above')),
  ]).toEqual([false, false]);
  expect([
    verdict('leave-space', own('chord-tones')),
    verdict('start-on-two', own('start-on-three')),
    verdict('upbeats', own('ladder-roots')),
    verdict('arpeggios', own('scale-runs')),
  ]).toEqual([false, false, false, false]);
  // a line that wanders over the neck is in no one place
  const wander = own('one-position').map((note, index) => ({
    ...note,
    midi: note.midi + elementAt([0, 0, 0, -9, -9, 12, 12, 12], index % 8),
  }));
  expect(fitsOneLocation(own('one-position').map(({ midi }) => midi))).toBe(true);
  expect(verdict('one-position', wander)).toBe(false);
  expect(verdict('on-the-ground', own('plan-only'))).toBe(false);
});

test('places say where: a line that misses one change fails there and nowhere else', () => {
  const drill = drillFor({ kind: 'ladder-roots', chart: BLUES, tempo: 100 });
  const line = roots().map((note, index) => (index === 4 ? { ...note, midi: note.midi + 6 } : note));
  const { places, met, of } = judgeDrill(drill, line, 1);
  expect(places.filter((place) => !place.met).map(({ beat }) => beat)).toEqual([
    timelineOf(BLUES, 100).chordSpans[4]!.start,
  ]);
  expect([met, of]).toEqual([places.length - 1, places.length]);
});

test('a drill of some bars is a chart of its own; silence passes nothing', () => {
  const drill = drillFor({ kind: 'ladder-thirds', chart: BLUES, tempo: 72, span: [9, 10] });
  expect(unwrap(readChart(drill.chartText)).bars).toHaveLength(2);
  expect(judgeDrill(drill, [], 2)).toMatchObject({ of: 0, passed: false });
  expect(exampleOf(drill, 1, 2)!.some(({ onsetBeat }) => onsetBeat >= 8)).toBe(true);
});

test('the ladder has an example on every form of the library', () => {
  for (const form of LIBRARY.slice(0, 12)) {
    const chart = unwrap(readChart(form.text));
    for (const kind of ['ladder-thirds', 'nearest-note', 'third-from-below'] as const)
      expect([form.id, kind, exampleOf(drillFor({ kind, chart, tempo: 100 }), 1) !== null]).toEqual([
        form.id,
        kind,
        true,
      ]);
  }
});

test('every drill says what to do in a sentence', () => {
  for (const kind of DRILL_KINDS) expect(ruleWords(CATALOGUE[kind].rule)).toMatch(/^[A-Z].{10,}\.$/);
  expect(ruleWords(CATALOGUE['third-from-below'].rule)).toBe(
    'Over every chord lead into the third from a half step below.',
  );
});

test('a drill in the player’s own words: every example is read, and what is read can be played', () => {
  for (const words of OWN_EXAMPLES) {
    const read = readOwnWords(words, BLUES.bars.length);
    expect([words, read.ok]).toEqual([words, true]);
    const { rule, span, tempo = 90 } = unwrap(read);
    const drill = drillOf(
      { kind: 'own', name: words, reason: '', rule },
      { chart: BLUES, tempo, ...(span ? { span } : {}) },
    );
    const made = exampleFor(drill, 2);
    expect([words, made !== null && judgeDrill(drill, made.line, made.passes).passed]).toEqual([words, true]);
  }
  expect(unwrap(readOwnWords('Land on the third or the seventh, bars 9-12, at 72.', 12))).toEqual({
    rule: { kind: 'land', tones: ['third', 'seventh'] },
    span: [9, 12],
    tempo: 72,
  });
  expect(unwrap(readOwnWords('thirds from a half step below at 60', 12))).toEqual({
    rule: { kind: 'lead', tones: ['third'], from: [-1] },
    tempo: 60,
  });
  expect(unwrap(readOwnWords('start on the and of 3', 12)).rule).toEqual({ kind: 'start', beat: 3.5 });
  const sentence = (words: string) => {
    const read = readOwnWords(words, 12);
    return read.ok ? 'read' : `${read.problems[0].message} ${read.problems[0].suggestion ?? ''}`;
  };
  expect(sentence('land on the thrid')).toContain('no rule that can be heard');
  expect(
    [sentence('thirds, bars 9-14'), sentence('thirds at 999'), sentence('')].map(
      (said) => said.split('.')[0],
    ),
  ).toEqual([
    'Bars from 1 to 12 are meant, not bars 9-14',
    'A tempo from 30 to 320 is meant, not 999',
    'Say what to practise',
  ]);
});

test('words said by the catalogue are words a player may say', () => {
  for (const kind of ['ladder-roots', 'one-target', 'third-from-below', 'anticipate'] as const) {
    const rule: Rule = CATALOGUE[kind].rule;
    expect(unwrap(readOwnWords(ruleWords(rule), 12)).rule).toEqual(rule);
  }
});

test('one’s own phrase, on every chord: its rhythm and contour, another end', () => {
  const phrase = { gaps: [0.5, 0.5, 0.5, 0.5], moves: [-1, 3, 4, -2] };
  const drill = drillFor({ kind: 'own-phrase', chart: BLUES, tempo: 90, phrase });
  const line = exampleOf(drill, 4)!;
  const { report, places } = judgeDrill(drill, line, 1);
  expect(places.every(({ met }) => met)).toBe(true);
  const shapes = report.phrases.map((one) => shapeOf(report, one));
  expect(shapes.every(({ gaps }) => gaps.length === 4)).toBe(true);
  expect(new Set(shapes.map(({ moves }) => moves.join(' '))).size).toBeGreaterThan(1);
  // another phrase is not it
  expect(
    judgeDrill(drill, exampleOf(drillFor({ kind: 'same-motif', chart: BLUES, tempo: 90 }), 1)!, 1).passed,
  ).toBe(false);
});

test('of joined rules the one furthest from its share is counted: what is allowed does not pass what is missing', () => {
  const drill = drillFor({ kind: 'home-tell-tale', chart: BLUES, tempo: 100 });
  const told = judgeDrill(drill, exampleOf(drill, 1)!, 1);
  expect([told.passed, told.met >= 0.8 * told.of]).toEqual([true, true]);
  // the home scale alone is all in the plan, and holds none of the tones that are asked for
  const alone = timelineOf(BLUES, 100).chordSpans.map(({ start }) => ({
    onsetBeat: start,
    durationBeats: 1,
    midi: 58,
  }));
  const { passed, met, of } = judgeDrill(drill, alone, 1);
  expect([passed, met, of > 3]).toEqual([false, 0, true]);
  const allowed = { ...drill, rule: { kind: 'material', of: 'plan' } as const };
  expect(judgeDrill(allowed, alone, 1).passed).toBe(true);
});

test('a phrase keeps its formula on every chord: its degrees, each of the chord’s own quality', () => {
  const minor = unwrap(readChart('key: Bb\n| Cm7 | Cm7 |'));
  const timeline = timelineOf(minor, 100);
  const pitches = [60, 67, 60, 63, 67, 72, 74, 75];
  const notes = pitches.map((midi, index) => ({ onsetBeat: index / 2, durationBeats: 0.47, midi }));
  const report = analyse({ chart: minor, tempo: 100, notes, plan: { id: 'free' }, choruses: 1 });
  const phrase = elementAt(report.phrases, 0);
  const formula = formulaOf(report, phrase, { timeline, harmony: harmonyOf(minor, timeline) })!;
  expect(formulaWords(formula)).toBe('1 5 1 3 5 1 9 3');
  const like = { ...shapeOf(report, phrase), formula };
  const drill = drillFor({ kind: 'own-phrase', chart: BLUES, tempo: 90, phrase: like });
  expect(drill.words).toBe('Your phrase by its degrees on every chord: 1 5 1 3 5 1 9 3.');
  const line = exampleOf(drill, 1)!;
  const judged = judgeDrill(drill, line, 1);
  expect([judged.passed, judged.met === judged.of, judged.of > 2]).toEqual([true, true, true]);
  // over F7 the third is major: the formula stays, the quality is the chord’s
  const scene = { timeline: timelineOf(BLUES, 90), harmony: harmonyOf(BLUES, timelineOf(BLUES, 90)) };
  for (const one of judged.report.phrases)
    expect(formulaWords(formulaOf(judged.report, one, scene)!)).toBe('1 5 1 3 5 1 9 3');
  // its rhythm and contour alone are not it
  const wrong = line.map((note, index) => ({ ...note, midi: note.midi + (index % 8 < 3 ? 0 : 1) }));
  expect(judgeDrill(drill, wrong, 1).passed).toBe(false);
});

test('time is heard in milliseconds: a line that drags by 50 fails, by 10 passes', () => {
  const drill = drillFor({ kind: 'in-time', chart: BLUES, tempo: 120 });
  const line = exampleOf(drill, 1)!;
  const late = (ms: number) =>
    judgeDrill(
      drill,
      line.map((note) => ({ ...note, onsetBeat: note.onsetBeat + (ms * 120) / 60_000 })),
      1,
    ).passed;
  expect([late(0), late(10), late(50), late(-50)]).toEqual([true, true, false, false]);
});

test('an attempt is about a dozen places and never longer than a minute and a quarter', () => {
  expect(
    attemptSize(drillFor({ kind: 'ladder-thirds', chart: BLUES, tempo: 96, span: [9, 10] }), 72),
  ).toMatchObject({ passes: 6, places: 11, pass: 9 });
  for (const kind of DRILL_KINDS)
    for (const tempo of [40, 72, 200]) {
      const { passes, places, pass, seconds } = attemptSize(
        drillFor({ kind, chart: BLUES, tempo: 96 }),
        tempo,
      );
      expect([
        kind,
        passes >= 1,
        seconds <= 75 || passes === 1,
        pass <= places,
        pass >= places * 0.8 - 1e-9,
      ]).toEqual([kind, true, true, true, true]);
    }
});

test('the stand-in player can miss every drill on purpose', () => {
  for (const kind of DRILL_KINDS) {
    const drill = drillFor({ kind, chart: BLUES, tempo: 96 });
    const line = failingOf(drill, 1, 1);
    expect([kind, line !== null]).toEqual([kind, true]);
    expect([kind, judgeDrill(drill, line!, 1).passed]).toEqual([kind, false]);
  }
});

test('the course goes level by level: one drill may be left open, and each kind stands in it once', () => {
  const kinds = COURSE.flatMap((level) => level.kinds);
  expect(new Set(kinds).size).toBe(kinds.length);
  expect(courseOf(() => 'new', BLUES).next).toMatchObject({ level: 'locked', kind: 'ladder-roots' });
  const locked = COURSE[0]!.kinds.slice(1);
  const second = courseOf((kind) => (locked.includes(kind) ? 'learnt' : 'new'), BLUES);
  expect(second.levels.map(({ isDone }) => isDone)).toEqual([true, false, false, false]);
  expect(second.next).toMatchObject({ level: 'one-scale', standing: 'new' });
  expect(courseOf(() => 'learnt', BLUES).next).toBeNull();
});

test.each([
  ['3 bars of line, 1 bar of chords', 'Three bars of line, a bar of chords, in turn.', 'LLLC'],
  ['2 bars of chords, then 4 bars of line', 'Two bars of chords, four bars of line, in turn.', 'CCLLLL'],
  ['one bar of line, one bar of chords', 'A bar of line, a bar of chords, in turn.', 'LC'],
])('chords and line of any lengths, either first: %s', (wish, words, turn) => {
  const chart = unwrap(
    readChart('key: Bb\n| Bb7 | Eb7 | Bb7 | % |\n| Eb7 | % | Bb7 | G7 |\n| Cm7 | F7 | Bb7 | F7 |'),
  );
  const { rule } = unwrap(readOwnWords(wish, 12));
  expect(ruleWords(rule)).toBe(words);
  const drill = drillOf({ kind: 'own', name: wish, reason: '', rule }, { chart, tempo: 90, span: [1, 12] });
  const line = exampleOf(drill, 1, 1)!;
  const kinds = analyse({ chart, tempo: 90, plan: { id: 'scale-per-chord' }, notes: line, choruses: 1 }).bars;
  expect(kinds.map(({ kind }) => kind[0]!.toUpperCase()).join('')).toBe(turn.repeat(12).slice(0, 12));
  expect(judgeDrill(drill, line, 1).passed).toBe(true);
});

test('the course lists what a tune has a place for: every drill of it has a line, over every form of the library', () => {
  const none: string[] = [];
  for (const form of LIBRARY) {
    const chart = unwrap(readChart(form.text));
    for (const { steps } of courseOf(() => 'new', chart).levels)
      for (const { kind } of steps.filter(({ kind }) => isAtChanges(CATALOGUE[kind].rule)))
        if (!exampleFor(drillFor({ kind, chart, tempo: 90 }), 1)) none.push(`${form.id} ${kind}`);
  }
  expect(none).toEqual([]);
  const kindsOver = (text: string) =>
    courseOf(() => 'new', unwrap(readChart(text))).levels.flatMap(({ steps }) =>
      steps.map(({ kind }) => kind),
    );
  // one chord has no changes, and triads have no sevenths
  expect(kindsOver('key: C\n| Cm7 | % | % | % |')).not.toContain('ladder-thirds');
  expect(kindsOver('key: C\n| Cm7 | % | % | % |')).toContain('chord-tones');
  expect(kindsOver('key: C\n| C | F | G | C |')).not.toContain('ladder-sevenths');
  expect(kindsOver('key: C\n| C | F | G | C |')).toContain('ladder-thirds');
}, 60_000);
