import { describe, expect, test } from '@jest/globals';
import { analyse, analyseAligned, type PlayedNote, type Report } from '@/core/analyse';
import { readChart, timelineOf, transposeText, type Chart } from '@/core/chart';
import { readReport, readNotes } from '@/core/formats';
import { PLAN_IDS } from '@/core/plan';
import { unwrap } from '@/core/shared';
import { seededLine, SEEDED_CHARTS } from '../corpora/seededLines';

// What must always hold, on seeded lines of every manner (the page on verification).
const SEEDS = Array.from({ length: 112 }, (_, seed) => seed);
const judge = (chart: Chart, tempo: number, notes: readonly PlayedNote[], choruses?: number): Report =>
  analyse({ chart, tempo, notes, plan: { id: 'outline' }, choruses, leanMs: 0 });
const labels = (report: Report) => ({
  notes: report.notes.map((note) => [
    note.interval,
    note.tier,
    note.height,
    note.function,
    note.inPlan,
    note.targetIndex ?? null,
    note.flags,
  ]),
  figures: report.figures,
  shapes: report.shapes.map(({ kind, noteIndices, relation }) => [kind, noteIndices, relation ?? null]),
  stepOuts: report.stepOuts.map(({ noteIndices, homeIndex }) => [noteIndices, homeIndex]),
  landings: report.changes.map(({ landing, connection }) => [
    landing,
    connection.kind,
    connection.semitones,
    connection.nearestTarget?.semitones ?? null,
  ]),
  phrases: report.phrases.map(({ end, changesCrossed, motif, theme, answers }) => [
    end,
    changesCrossed,
    motif ?? null,
    theme ?? null,
    answers ?? null,
  ]),
  coverage: report.coverage.map(({ function: degree, count, byInterval }) => [degree, count, byInterval]),
  muted: report.mutedBand.segments.map(({ verdict, margin }) => [verdict, margin]),
  thirds: report.thirds.map(({ cents }) => cents),
  bars: report.bars,
  handovers: report.handovers,
  missed: report.missedDoors.map(({ changeIndex, fromInterval, toInterval }) => [
    changeIndex,
    fromInterval,
    toInterval,
  ]),
});

test('transposing chart and notes together changes no label', () => {
  // a minor third up: no key of the forms leaves the circle of usual signs
  for (const seed of SEEDS) {
    const { name, chart, tempo, notes } = seededLine(seed);
    const text = SEEDED_CHARTS[seed % SEEDED_CHARTS.length]!;
    const moved = unwrap(readChart(unwrap(transposeText(text, { by: 3 }))));
    expect([
      name,
      labels(
        judge(
          moved,
          tempo,
          notes.map((note) => ({ ...note, midi: note.midi + 3 })),
        ),
      ),
    ]).toEqual([name, labels(judge(chart, tempo, notes))]);
  }
});

test('splitting at a rest of more than a beat with nothing held changes no landing', () => {
  let splits = 0;
  for (const seed of SEEDS) {
    const { name, chart, tempo, notes } = seededLine(seed);
    const whole = judge(chart, tempo, notes);
    const choruses = whole.summary.choruses;
    let end = -Infinity;
    notes.forEach((note, index) => {
      if (index > 0 && note.onsetBeat - end > 1.001) {
        const [before, after] = [
          judge(chart, tempo, notes.slice(0, index), choruses),
          judge(chart, tempo, notes.slice(index), choruses),
        ];
        const landing = (report: Report, at: number, from = 0) => {
          const { landing: one } = report.changes[at]!;
          return [
            one.noteIndex === null ? null : one.noteIndex + from,
            one.timing,
            one.verdict,
            one.rest ?? false,
          ];
        };
        const from = whole.notes.length - after.notes.length;
        whole.changes.forEach(({ beat }, at) => {
          if (beat <= end)
            expect([name, beat, landing(before, at)]).toEqual([name, beat, landing(whole, at)]);
          if (beat >= note.onsetBeat)
            expect([name, beat, landing(after, at, from)]).toEqual([name, beat, landing(whole, at)]);
        });
        splits++;
      }
      end = Math.max(end, note.onsetBeat + note.durationBeats);
    });
  }
  expect(splits).toBeGreaterThan(80);
});

test('stretching time with the tempo, onsets on the grid, changes no label', () => {
  for (const seed of SEEDS) {
    const { name, chart, notes } = seededLine(seed);
    const onGrid = notes.map((note) => ({
      ...note,
      onsetBeat: Math.round(note.onsetBeat * 2) / 2,
      durationBeats: Math.max(0.5, Math.round(note.durationBeats * 2) / 2),
    }));
    expect([name, labels(judge(chart, 60, onGrid))]).toEqual([name, labels(judge(chart, 120, onGrid))]);
  }
});

test('the plan never changes a height, a function of a non-chord tone, a timing or a segment', () => {
  for (const seed of SEEDS.slice(0, 56)) {
    const { name, chart, tempo, notes } = seededLine(seed);
    const follow = (id: (typeof PLAN_IDS)[number]) => {
      const report = analyse({ chart, tempo, notes, plan: { id } });
      return {
        notes: report.notes.map((note) => [
          note.height,
          note.tier,
          note.function === 'target' ? 'chord-tone' : note.function,
          note.flags,
          note.interval,
        ]),
        figures: report.figures,
        phrases: report.phrases,
        muted: report.mutedBand,
        timings: report.changes.map(({ landing }) => landing.timing),
        coverage: report.coverage.map(({ byInterval }) => byInterval),
      };
    };
    const own = follow('outline');
    for (const id of PLAN_IDS) {
      const { muted, ...rest } = follow(id);
      expect([name, id, rest]).toEqual([
        name,
        id,
        {
          notes: own.notes,
          figures: own.figures,
          phrases: own.phrases,
          timings: own.timings,
          coverage: own.coverage,
        },
      ]);
      expect(muted.segments.length).toBe(own.muted.segments.length);
    }
  }
});

test('counts add up, every note has one function, and indices point where they should', () => {
  for (const seed of SEEDS) {
    const { name, chart, tempo, notes } = seededLine(seed);
    const report = judge(chart, tempo, notes);
    // what is kept can be read again: of a line that was written, and of one that was heard
    const byEar = notes.map((note, index) => ({ ...note, confidence: (index % 11) / 10, level: -20 }));
    for (const one of [report, judge(chart, tempo, byEar)])
      expect([name, readReport(JSON.parse(JSON.stringify(one))).ok]).toEqual([name, true]);
    const counted = report.notes.filter((note) => note.function !== 'grace');
    const overChords = counted.filter((note) => note.chord !== null).length;
    const sum = (values: readonly number[]) => values.reduce((total, value) => total + value, 0);
    for (const list of [report.coverage, report.coverageByFunction]) {
      expect(sum(list.map(({ count }) => count))).toBe(overChords);
      for (const { count, byInterval } of list)
        expect(sum(Object.values(byInterval).map((cell) => cell.count))).toBe(count);
    }
    expect(report.coverageOverall.count).toBe(overChords);
    expect(sum(report.coverageOverall.beatsAtHeight)).toBeCloseTo(
      sum(counted.flatMap((note) => note.spans.map(({ beats }) => beats))),
      6,
    );
    expect(report.events.flatMap(({ noteIndices }) => noteIndices).sort((a, b) => a - b)).toEqual(
      counted.map(({ index }) => index),
    );
    expect(report.phrases.flatMap(({ noteIndices }) => noteIndices).sort((a, b) => a - b)).toEqual(
      counted.map(({ index }) => index),
    );
    expect(report.notes.map(({ index }) => index)).toEqual(notes.map((_, index) => index));
    const { formBeats, bars } = timelineOf(chart, tempo);
    expect(report.bars).toHaveLength(bars.length * report.summary.choruses);
    expect(sum(report.bars.map(({ events }) => events))).toBe(
      report.events.filter(({ onsetBeat }) => onsetBeat >= -Math.max(0.12, (0.06 * tempo) / 60) - 1e-6)
        .length,
    );
    const heard = report.mutedBand.segments.filter(({ verdict }) => verdict !== 'silent');
    if (heard.length > 0)
      expect(report.mutedBand.share).toBeCloseTo(
        heard.filter(({ verdict }) => verdict === 'heard').length / heard.length,
        3,
      );
    for (const { chorus, bar, beat } of report.changes)
      expect(bars[bar - 1]!.start + (chorus - 1) * formBeats).toBeLessThanOrEqual(beat + 1e-9);
    for (const { heights } of report.arc) if (sum(heights) > 0) expect(sum(heights)).toBeCloseTo(1, 1);
  }
});

describe('what is handed in wrong', () => {
  const CHART = unwrap(readChart('key: C\n| Dm7 | G7 | Cmaj7 | % |'));
  const note = (onsetBeat: number, midi: number, durationBeats = 1): PlayedNote => ({
    onsetBeat,
    durationBeats,
    midi,
  });
  const sane = (report: Report) => expect(readReport(JSON.parse(JSON.stringify(report))).ok).toBe(true);

  test('out of order is put in order', () =>
    expect(judge(CHART, 120, [note(4, 71), note(0, 65)]).notes.map(({ midi }) => midi)).toEqual([65, 71]));
  test('no notes at all', () => sane(judge(CHART, 120, [])));
  test('the lowest and the highest pitch', () => sane(judge(CHART, 120, [note(0, 0), note(4, 127)])));
  test('a copy of a note is no chord', () => {
    const report = judge(CHART, 120, [note(0, 65), note(0, 65), note(0, 65)]);
    expect(report.events.map(({ kind }) => kind)).toEqual(['single']);
    sane(report);
  });
  test.each([
    ['a chart of one chord', 'key: C\n| Cmaj7 |'],
    ['only N.C.', 'key: C\n| N.C. | % |'],
    ['a chart without a key', '| Bbm7 |'],
  ])('%s', (_, text) => {
    const report = judge(unwrap(readChart(text)), 120, [note(0, 65), note(1, 66, 0.5), note(9, 70)]);
    expect(report.changes).toEqual([]);
    sane(report);
  });
  test.each([10, 1000])('tempo %i', (tempo) =>
    sane(judge(CHART, tempo, [note(0, 65), note(3.9, 70, 0.2), note(4, 71)])),
  );
  test('all before the first beat', () => sane(judge(CHART, 120, [note(-100, 65), note(-50, 71)])));

  // each is refused where it is, with the place in the file
  test.each([
    ['a negative length', '{"onsetBeat":0,"durationBeats":-1,"midi":60}', 'notes.1.durationBeats'],
    ['no length', '{"onsetBeat":0,"durationBeats":0,"midi":60}', 'notes.1.durationBeats'],
    ['no number', '{"onsetBeat":null,"durationBeats":1,"midi":60}', 'notes.1.onsetBeat'],
    ['a pitch of 128', '{"onsetBeat":0,"durationBeats":1,"midi":128}', 'notes.1.midi'],
    ['ends before it starts', '{"onsetSec":1,"offsetSec":0.5,"midi":60}', 'notes.1.offsetSec'],
  ])('%s', (_, wrong, path) => {
    const read = readNotes(`{"notes":[{"onsetBeat":0,"durationBeats":1,"midi":60},${wrong}]}`);
    expect(read.ok ? null : read.problems[0].path).toBe(path);
  });
  test('NaN is no JSON', () =>
    expect(readNotes('{"notes":[{"onsetBeat":NaN,"durationBeats":1,"midi":60}]}').ok).toBe(false));
});

test('a lean is estimated, taken out where it is decided, and reported (T1.6)', () => {
  const { chart, notes } = {
    chart: unwrap(readChart('key: C\n| Dm7 | G7 | Cmaj7 | % |')),
    notes: Array.from({ length: 32 }, (_, index) => ({
      onsetBeat: index / 2,
      durationBeats: 0.5,
      midi: 60 + (index % 7),
    })),
  };
  const late = (ms: number) =>
    analyseAligned({
      chart,
      tempo: 120,
      plan: { id: 'outline' },
      notes: notes.map((note) => ({ ...note, onsetBeat: note.onsetBeat + (ms / 1000) * 2 })),
    });
  expect(late(20).alignment.estimatedMs).toBeCloseTo(20, 1);
  expect(late(20).alignment.appliedMs).toBeCloseTo(20, 1);
  expect(late(60).alignment.appliedMs).toBeCloseTo(60, 1);
  expect(late(60).alignment.estimatedMs).toBeCloseTo(60, 1);
});
