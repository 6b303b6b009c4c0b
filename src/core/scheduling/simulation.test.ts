import { expect, test } from '@jest/globals';
import { analyse } from '../analyse';
import { improvise } from '../band';
import { LIBRARY, readChart } from '../chart';
import { judgeDrill, type Drill } from '../drills';
import { planFromWords } from '../plan';
import { drillOfFinding, findingsOf } from '../findings';
import { unwrap, seededRandom } from '../shared';
import {
  afterSitting,
  climbed,
  DAY_MS,
  ladderTo,
  measuresOf,
  progressOf,
  retentionOf,
  type Ladder,
  type DrillMemory,
  type Played,
  type LadderTry,
} from './index';

const chart = unwrap(readChart(LIBRARY.find(({ id }) => id === 'lamplight')!.text));
const plan = { id: 'scale-per-chord' as const };
const TEMPO = 96;
const MONDAY = Date.UTC(2026, 10, 2, 18);

/**
 * A player who misses one kind of change and learns it by drilling: every try a little, slower ones more
 * surely met. An invented curve,
 * no claim about people: what is tested is that the product follows whoever improves.
 */
class Learner {
  private skill = 0.1;
  constructor(
    private readonly learns: boolean,
    private seed: number,
  ) {}
  private get meet(): number {
    return Math.min(0.97, this.skill);
  }
  take(choruses: number) {
    return improvise({
      chart,
      tempo: TEMPO,
      choruses,
      plan,
      seed: this.seed++,
      profile: { meet: 0.95, early: 0, late: 0, outside: 0, changes: { F7: this.meet } },
    });
  }
  try(drill: Drill, tempo: number, choruses: number) {
    const slower = (TEMPO - tempo) / TEMPO;
    const meet = Math.min(0.98, this.meet + slower * 1.1);
    if (this.learns) this.skill = Math.min(0.95, this.skill + 0.016);
    return improvise({
      chart: unwrap(readChart(drill.chartText)),
      tempo,
      choruses,
      plan: unwrap(planFromWords(drill.plan)),
      seed: this.seed++,
      profile: { meet, early: 0, late: 0, outside: 0, approach: 0 },
    });
  }
}

type Story = {
  readonly ladder: Ladder;
  readonly rungs: readonly number[];
  readonly played: readonly Played[];
  readonly asked: readonly (readonly string[])[];
  readonly memory: DrillMemory;
  /** Days after the four weeks until it is due. */ readonly days: number;
};

/** Four weeks: a take, the drill it asks for on the days it is due, a take again. */
function fourWeeks(learner: Learner): Story {
  const played: Played[] = [];
  const asked: string[][] = [];
  const tries: LadderTry[] = [];
  const rungs: number[] = [];
  let drill: Drill | null = null;
  let ladder: Ladder | null = null;
  let memory: DrillMemory | null = null;
  let due = 0;
  for (let day = 0; day < 28; day++) {
    const now = MONDAY + day * DAY_MS;
    if (day % 3 === 0) {
      const notes = learner.take(4);
      const report = analyse({ chart, tempo: TEMPO, plan, choruses: 4, notes });
      const findings = findingsOf({ chart, tempo: TEMPO, plan, report });
      asked.push(
        findings
          .filter(({ kind, where }) => kind === 'target-missed' && where.change?.endsWith('→F7'))
          .map(({ sentence }) => sentence),
      );
      played.push({
        id: `${day}`,
        at: now,
        tempo: TEMPO,
        seconds: 120,
        key: 'Bb major',
        measures: measuresOf(report),
      });
      const weak = findings.find(({ where }) => where.change?.endsWith('→F7'));
      if (weak) drill ??= drillOfFinding(weak, chart, plan);
      if (drill) ladder ??= ladderTo({ goal: drill.tempo });
    }
    // until a take asks for it there is nothing to drill
    if (!drill || due > now) continue;
    const sitting: LadderTry[] = [];
    for (let attempt = 0; attempt < 5; attempt++) {
      const tempo: number = ladder!.rungs[ladder!.at]!;
      rungs.push(tempo);
      const { met, of, passed } = judgeDrill({ ...drill!, tempo }, learner.try(drill!, tempo, 6), 6);
      sitting.push({ tempo, met, of, passed });
      tries.push(sitting[attempt]!);
      ({ ladder } = climbed(ladder!, tries));
    }
    ({ memory, dueAt: due } = afterSitting(ladder!, memory, sitting, now));
  }
  return { ladder: ladder!, rungs, played, asked, memory: memory!, days: (due - MONDAY) / DAY_MS - 28 };
}

test('who improves climbs, is asked less, comes back less often, and Progress shows it', () => {
  const { ladder, rungs, played, asked, days } = fourWeeks(new Learner(true, 40));
  expect(ladder.rungs[ladder.at]).toBeGreaterThan(rungs[0]!);
  const [early, late] = [asked.slice(0, 3).flat().length, asked.slice(-3).flat().length];
  expect(early).toBeGreaterThan(0);
  expect(late).toBeLessThan(early);
  expect(days).toBeGreaterThan(3);
  const into = progressOf(played, 0).kinds.find(({ to, from }) => to === 'F7' && from === 'Cm7')!;
  expect(['better', 'probably better']).toContain(into.verdict);
  expect(into.difference).toBeGreaterThan(0.2);
});

test('who does not improve stays where the ladder is met, is asked again, and is told that it stands still', () => {
  const { ladder, played, asked, days } = fourWeeks(new Learner(false, 90));
  expect(ladder.at).toBeLessThan(ladder.rungs.length - 1);
  expect(asked.slice(-3).flat().length).toBeGreaterThan(0);
  expect(days).toBeLessThanOrEqual(3);
  const into = progressOf(played, 0).kinds.find(({ to, from }) => to === 'F7' && from === 'Cm7')!;
  expect(['better', 'probably better']).not.toContain(into.verdict);
  expect(into.plateau).not.toBeNull();
});

test('what was learnt is slowly forgotten without practice', () => {
  const { memory } = fourWeeks(new Learner(true, 7));
  const random = seededRandom(1);
  let before = 1;
  for (let day = 0; day < 200; day += 1 + Math.floor(random() * 20)) {
    const still = retentionOf(memory, memory.lastReview! + day * DAY_MS);
    expect(still).toBeLessThanOrEqual(before);
    before = still;
  }
});
