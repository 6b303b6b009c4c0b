import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { analyse } from '../analyse';
import { improvise } from '../band';
import { readChart } from '../chart';
import { unwrap } from '../shared';
import {
  afterSitting,
  climbed,
  DAY_MS,
  dayOf,
  diaryOf,
  fastestPassed,
  gradeOf,
  ladderTo,
  ladderWords,
  measuresOf,
  progressOf,
  progressWords,
  scheduledMemory,
  sessionOf,
  spreadGoal,
  retentionOf,
  weekOf,
  weekStart,
  type DiaryEntry,
  type Ladder,
  type DrillMemory,
  type Played,
  type LadderTry,
} from './index';

const NOON = Date.UTC(2026, 10, 2, 12); // a Monday
const tried = (tempo: number, met: number, of = 12): LadderTry => ({
  tempo,
  met,
  of,
  passed: met / of >= 0.8,
});

describe('the tempo ladder', () => {
  test('goes by every second mark of the metronome to its goal, from three quarters of it, with two rungs below', () => {
    expect(ladderTo({ goal: 96 })).toEqual({ rungs: [60, 66, 72, 80, 88, 96], at: 2, up: 2, down: 2 });
    expect(ladderTo({ goal: 100, start: 60 }).rungs).toEqual([52, 56, 60, 66, 72, 80, 88, 96, 100]);
    expect(ladderTo({ goal: 30 })).toMatchObject({ rungs: [30], at: 0 });
  });
  test('up after two passes in a row, down after two misses, learnt at the top', () => {
    let ladder: Ladder = ladderTo({ goal: 88, start: 80 });
    const tries: LadderTry[] = [];
    const play = (met: number) => {
      tries.push(tried(ladder.rungs[ladder.at]!, met));
      const { ladder: next, climb } = climbed(ladder, tries);
      ladder = next;
      return `${climb} ${ladder.rungs[ladder.at]}`;
    };
    expect([11, 9, 11, 10].map(play)).toEqual(['stay 80', 'stay 80', 'stay 80', 'up 88']);
    expect([8, 8, 8, 11, 12, 11, 12].map(play)).toEqual([
      'stay 88',
      'down 80',
      'stay 80',
      'stay 80',
      'up 88',
      'stay 88',
      'learnt 88',
    ]);
    expect(fastestPassed(tries)).toBe(88);
  });
  test('there is always somewhere slower to go, down to the slowest mark', () => {
    const low: Ladder = { rungs: [60, 66], at: 0, up: 2, down: 1 };
    expect(climbed(low, [tried(60, 2)])).toMatchObject({
      climb: 'down',
      ladder: { rungs: [56, 60, 66], at: 0 },
    });
    expect(climbed({ ...low, rungs: [40, 44] }, [tried(40, 2)])).toMatchObject({
      climb: 'stay',
      ladder: { rungs: [40, 44], at: 0 },
    });
  });
  test('says what the next try has to bring', () => {
    const ladder = ladderTo({ goal: 96 });
    expect(ladderWords(ladder, [], { met: 10, of: 12 })).toEqual({
      bold: '10 of 12 twice in a row',
      soft: 'moves you up to 80.',
    });
    expect(ladderWords(ladder, [tried(72, 11)], { met: 10, of: 12 }).soft).toBe(
      'moves you up to 80. One is in.',
    );
    expect(ladderWords({ ...ladder, at: 5 }, [], { met: 10, of: 12 }).soft).toBe('and it is learnt.');
  });
  test('whatever is tried, the ladder stays on its rungs and moves one at a time', () => {
    fc.assert(
      fc.property(
        fc.integer({ min: 40, max: 300 }),
        fc.array(fc.integer({ min: 0, max: 12 }), { maxLength: 40 }),
        (goal, mets) => {
          let ladder = ladderTo({ goal });
          const tries: LadderTry[] = [];
          for (const met of mets) {
            const before = ladder.rungs[ladder.at]!;
            tries.push(tried(before, met));
            const next = climbed(ladder, tries);
            expect(next.ladder.at).toBeGreaterThanOrEqual(0);
            expect(next.ladder.at).toBeLessThan(next.ladder.rungs.length);
            const now = next.ladder.rungs[next.ladder.at]!;
            const place = next.ladder.rungs.indexOf(before);
            expect(Math.abs(next.ladder.rungs.indexOf(now) - place)).toBeLessThanOrEqual(1);
            if (next.climb === 'up') expect(now).toBeGreaterThan(before);
            if (next.climb === 'down') expect(now).toBeLessThan(before);
            ladder = next.ladder;
          }
        },
      ),
      { numRuns: 60 },
    );
  });
});

describe('coming back', () => {
  test('the grade of a sitting', () => {
    expect(
      [
        [],
        [tried(72, 3)],
        [tried(72, 3), tried(66, 11)],
        [tried(72, 3), tried(72, 4), tried(72, 11)],
        [tried(72, 9), tried(72, 11)],
        [tried(72, 11), tried(72, 12), tried(80, 12)],
      ].map(gradeOf),
    ).toEqual(['again', 'again', 'hard', 'hard', 'good', 'easy']);
  });
  test('intervals grow while it is passed and begin anew when it is forgotten', () => {
    let memory: DrillMemory | null = null;
    let now = NOON;
    const days: number[] = [];
    for (const grade of ['good', 'good', 'good', 'again', 'good'] as const) {
      memory = scheduledMemory(memory, grade, now);
      days.push(Math.round((memory.due - now) / DAY_MS));
      now = memory.due;
    }
    expect(days[1]).toBeGreaterThan(days[0]!);
    expect(days[2]).toBeGreaterThan(days[1]!);
    expect(days[3]).toBeLessThan(days[2]!);
    expect(Math.min(...days)).toBeGreaterThanOrEqual(1);
    expect(memory!.lapses).toBe(1);
  });
  test('nine in ten are still there on the day, as FSRS defines stability; fewer later', () => {
    const memory = scheduledMemory(null, 'good', NOON);
    expect(retentionOf(memory, NOON + memory.stability * DAY_MS)).toBeCloseTo(0.9, 1);
    expect(retentionOf(memory, NOON + 60 * DAY_MS)).toBeLessThan(0.75);
    expect(retentionOf(null, NOON)).toBe(0);
  });
  test('what is kept is plain JSON and the same practice gives the same day', () => {
    const { memory, dueAt } = afterSitting(
      ladderTo({ goal: 96 }),
      null,
      [tried(72, 11), tried(72, 12)],
      NOON,
    );
    // still climbing: soon again, whatever the scheduler would say; at the top the scheduler has its way
    expect([
      dueAt <= NOON + 3 * DAY_MS,
      afterSitting(
        { rungs: [96], at: 0, up: 2, down: 2 },
        { ...memory, stability: 40 },
        [tried(96, 12)],
        NOON + 5 * DAY_MS,
      ).dueAt >
        NOON + 15 * DAY_MS,
    ]).toEqual([true, true]);
    expect(JSON.parse(JSON.stringify(memory))).toEqual(memory);
    expect(scheduledMemory(JSON.parse(JSON.stringify(memory)) as DrillMemory, 'good', NOON + DAY_MS)).toEqual(
      scheduledMemory(memory, 'good', NOON + DAY_MS),
    );
  });
});

describe('a session', () => {
  const drill = (id: string, chart: string, dueDays: number, still = 0.8, minutes = 4) => ({
    id,
    chart,
    dueAt: NOON + dueDays * DAY_MS,
    minutes,
    still,
  });
  const tune = (chart: string, days: number | null, held = 2, of = 6) => ({
    chart,
    lastPlayed: days === null ? null : NOON - days * DAY_MS,
    minutes: 5,
    held,
    of,
  });
  const base = { restAfter: 25, goal: null, now: NOON };
  test('the likeliest forgotten first, tunes in turn, a take at the end, never more than there is time for', () => {
    const steps = sessionOf({
      ...base,
      minutes: 18,
      drills: [
        drill('a', 'x', -1, 0.9),
        drill('b', 'x', -1, 0.3),
        drill('c', 'y', -1, 0.5),
        drill('later', 'y', 3),
      ],
      tunes: [tune('x', 1), tune('y', 6)],
    });
    expect(
      steps.map((step) => {
        if (step.kind === 'drill') return step.id;
        if (step.kind === 'take') return `take ${step.chart}`;
        return 'rest';
      }),
    ).toEqual(['b', 'c', 'a', 'take y']);
    expect(steps.reduce((sum, { minutes }) => sum + minutes, 0)).toBeLessThanOrEqual(18);
  });
  test('the goal comes first, and fills what is left with what is not due yet', () => {
    const goal = { words: 'three tunes by Thursday', date: NOON + 3 * DAY_MS, charts: ['y'] };
    const steps = sessionOf({
      ...base,
      goal,
      minutes: 20,
      drills: [
        drill('a', 'x', 0, 0.8),
        drill('b', 'y', 0, 0.8),
        drill('later', 'y', 5),
        drill('other', 'x', 5),
      ],
      tunes: [tune('x', 20), tune('y', 3)],
    });
    expect(
      steps.map((step) => {
        if ('id' in step) return `${step.id} ${step.why}`;
        if (step.kind === 'take') return `${step.chart} ${step.why}`;
        return 'rest';
      }),
    ).toEqual(['b goal', 'a due', 'later ahead', 'y goal']);
    // a goal that is past asks for nothing
    expect(
      sessionOf({
        ...base,
        goal: { ...goal, date: NOON - 1 },
        minutes: 20,
        drills: [drill('later', 'y', 5)],
        tunes: [],
      }),
    ).toEqual([]);
  });
  test('a course begins its next drill where little else is due, and time is left for it', () => {
    const kinds = (minutes: number, count: number) =>
      sessionOf({
        ...base,
        minutes,
        course: { chart: 'x', minutes: 4 },
        drills: Array.from({ length: count }, (_, index) => drill(`d${index}`, 'x', -1, 0.5)),
        tunes: [],
      }).map(({ kind }) => kind);
    expect(kinds(30, 1)).toEqual(['drill', 'course']);
    expect(kinds(6, 1)).toEqual(['drill']);
    expect(kinds(60, 6)).not.toContain('course');
  });
  test('hands rest after so many minutes', () => {
    const steps = sessionOf({
      ...base,
      minutes: 60,
      drills: Array.from({ length: 12 }, (_, index) => drill(`d${index}`, `c${index % 3}`, -1, 0.5)),
      tunes: [],
    });
    let playing = 0;
    for (const step of steps) {
      playing = step.kind === 'rest' ? 0 : playing + step.minutes;
      expect(playing).toBeLessThanOrEqual(25);
    }
    expect(steps.some(({ kind }) => kind === 'rest')).toBe(true);
    expect(steps.reduce((sum, { minutes }) => sum + minutes, 0)).toBeLessThanOrEqual(60);
  });
  test('a goal spreads its tunes over the days, the least ready more often, all of them on the last', () => {
    const goal = { words: '', date: NOON + 9 * DAY_MS, charts: ['x', 'y', 'z'] };
    const days = spreadGoal(goal, [tune('x', 1, 6, 6), tune('y', 1, 3, 6), tune('z', null, 0, 9)], 9);
    const often = (chart: string) => days.filter(({ charts }) => charts.includes(chart)).length;
    expect(days).toHaveLength(10);
    expect(days[9]!.charts).toEqual(['x', 'y', 'z']);
    expect(often('z')).toBeGreaterThan(often('y'));
    expect(often('y')).toBeGreaterThan(often('x'));
    expect(often('x')).toBeGreaterThan(1);
    expect(spreadGoal({ ...goal, charts: [] }, [], 4)).toEqual([]);
  });
});

describe('progress', () => {
  const kind = (met: number, of: number, to = 'Eb7') => ({
    key: 'Bb major',
    measures: { places: { 5: met }, kinds: [{ from: 'Bb7', to, met, of }], tones: [], approaches: [] },
  });
  const week = (n: number, met: number, of: number, tempo = 96, to = 'Eb7'): Played => ({
    id: `${n}`,
    at: NOON + n * 7 * DAY_MS,
    tempo,
    seconds: 120,
    ...kind(met, of, to),
  });
  const only = (...takes: Played[]) => progressOf(takes, 60).kinds[0]!;

  // The worked figures of R. G. Newcombe, Statistics in Medicine 17 (1998), table II, method 10: 56/70 less
  // 48/80 is +0.20, 0.0524 to 0.3339.
  test('first week against the last by Newcombe’s interval', () => {
    const { difference, between, verdict } = only(week(0, 48, 80), week(1, 56, 70));
    expect([difference!, ...between!].map((value) => Math.round(value * 10_000) / 10_000)).toEqual([
      0.2, 0.0524, 0.3339,
    ]);
    expect(verdict).toBe('better');
  });
  test('a few landings are too few; the same again is as before; a fall is said', () => {
    expect(
      [
        only(week(0, 1, 3), week(1, 3, 3)),
        only(week(0, 9, 18), week(1, 9, 18)),
        only(week(0, 17, 18), week(1, 5, 18)),
        only(week(0, 6, 12), week(1, 14, 18)),
        only(week(0, 9, 12)),
      ].map(({ verdict }) => verdict),
    ).toEqual(['too few to judge', 'as before', 'worse', 'probably better', 'first week']);
  });
  test('weeks begin on Monday in the player’s own time (ISO 8601) and are counted once', () => {
    const sunday = Date.UTC(2026, 10, 1, 23, 30);
    expect([weekOf(sunday, 0), weekOf(sunday, 60)]).toEqual([weekOf(NOON, 0) - 1, weekOf(NOON, 60)]);
    expect(new Date(weekStart(weekOf(NOON, 60), 60)).toISOString()).toBe('2026-11-01T23:00:00.000Z');
    const { weeks } = only(week(0, 1, 6), { ...week(0, 2, 6), id: 'b', at: NOON + DAY_MS }, week(2, 6, 6));
    expect(weeks.map(({ met, of }) => [met, of])).toEqual([
      [3, 12],
      [6, 6],
    ]);
    const attempts = [
      { at: NOON, seconds: 60, passed: true },
      { at: NOON, seconds: 60, passed: false },
    ];
    expect(progressOf([], 0, attempts).weeks).toMatchObject([
      { minutes: 2, takes: 0, attempts: 2, passed: 1 },
    ]);
    expect(progressOf([week(0, 1, 6), week(2, 6, 6, 120)], 0).weeks).toMatchObject([
      { takes: 1, minutes: 2, fastest: 96 },
      { takes: 0, minutes: 0, fastest: null },
      { takes: 1, fastest: 120 },
    ]);
  });
  test('keys and places that were covered', () => {
    const { keys, places } = progressOf(
      [week(0, 3, 6, 80), { ...week(1, 4, 6, 96), key: 'F minor' }, week(2, 2, 6, 90)],
      0,
    );
    expect(keys).toEqual([
      { key: 'Bb major', takes: 2, fastest: 90 },
      { key: 'F minor', takes: 1, fastest: 96 },
    ]);
    expect(places).toEqual([{ fret: 5, notes: 9 }]);
  });
  test('held at the fastest tempo where four in five were met', () => {
    expect(
      [only(week(0, 9, 10, 80), week(1, 9, 10, 96), week(2, 5, 10, 120)), only(week(0, 3, 3, 200))].map(
        ({ heldAt }) => heldAt,
      ),
    ).toEqual([96, null]);
  });
  test('a plateau: three weeks below four in five with no rise; what rises or is held is none', () => {
    expect(only(week(0, 6, 14, 80), week(1, 7, 14, 80), week(2, 6, 14, 96)).plateau).toEqual({
      weeks: 3,
      advice: 'slower',
    });
    expect(only(week(0, 4, 14), week(1, 5, 14), week(2, 4, 14)).plateau).toEqual({
      weeks: 3,
      advice: 'smaller',
    });
    expect(only(week(0, 8, 14), week(1, 8, 14), week(2, 8, 14)).plateau).toEqual({
      weeks: 3,
      advice: 'other',
    });
    expect(
      [
        only(week(0, 3, 14), week(1, 7, 14), week(2, 11, 14)),
        only(week(0, 13, 14), week(1, 13, 14), week(2, 13, 14)),
        only(week(0, 5, 14), week(1, 5, 14)),
      ].map(({ plateau }) => plateau),
    ).toEqual([null, null, null]);
  });
  test('the sentences count kinds of change and name the rarest', () => {
    const words = progressWords(
      progressOf([week(0, 2, 16), week(0, 8, 16, 96, 'F7'), week(1, 14, 16), week(1, 8, 16, 96, 'F7')], 0),
      (symbol) => symbol,
    );
    expect(words).toEqual({
      soft: 'One kind of change is better than in the first week.',
      bold: 'From the Bb7 into the F7 the third or seventh is not sure yet: 8 of 16 in the last week.',
    });
    expect(progressWords(progressOf([], 0), String).soft).toBe('Too few landings to judge yet.');
  });
  test('measures are the same for every plan, and a perfect player meets every change', () => {
    const chart = unwrap(readChart('key: Bb\n| Bb7 | Eb7 | Cm7 F7 | Bb7 |'));
    const notes = improvise({
      chart,
      tempo: 96,
      choruses: 4,
      plan: { id: 'outline' },
      seed: 3,
      profile: { meet: 1, early: 0, late: 0 },
    });
    const [outline, home] = (['outline', 'home-scale'] as const).map((id) =>
      measuresOf(analyse({ chart, tempo: 96, choruses: 4, notes, plan: { id } })),
    );
    expect(home!.kinds).toEqual(outline!.kinds);
    for (const { met, of } of outline!.kinds) expect(met).toBe(of);
    const [third, seventh] = ['third', 'seventh'].map((tone) =>
      outline!.tones.find((one) => one.tone === tone)!,
    );
    expect(third!.met + seventh!.met).toBe(third!.of);
  });
});

test('the diary: one line a drill and day, from its first tempo to its last, takes in between', () => {
  const attempt = (minute: number, tempo: number, met: number): DiaryEntry => ({
    kind: 'try',
    at: NOON + minute * 60_000,
    drill: 'd',
    name: 'Thirds into F7',
    title: 'Lamplight Quarry',
    tempo,
    met,
    of: 12,
    passed: met >= 10,
    seconds: 60,
  });
  const days = diaryOf(
    [
      attempt(0, 72, 9),
      attempt(2, 72, 11),
      {
        kind: 'take',
        at: NOON + 5 * 60_000,
        take: 't',
        number: 4,
        title: 'Tin Orchard',
        tempo: 96,
        seconds: 180,
        said: 'You met 4 of 9.',
      },
      attempt(9, 80, 12),
      { ...attempt(0, 72, 12), at: NOON - DAY_MS },
    ],
    0,
  );
  expect(days.map(({ day, minutes, lines }) => [day, minutes, lines.length])).toEqual([
    ['2026-11-02', 6, 2],
    ['2026-11-01', 1, 1],
  ]);
  expect(days[0]!.lines[0]).toMatchObject({
    from: 72,
    to: 80,
    tries: 3,
    passes: 2,
    best: { met: 12, tempo: 80, passed: true },
  });
  expect(dayOf(Date.UTC(2026, 0, 1, 23, 30), 60)).toBe('2026-01-02');
});
