import { expect, test } from '@jest/globals';
import { analyse } from '@/core/analyse';
import type { PlanId } from '@/core/plan';
import { secondReading } from '../corpora/secondReading';
import { seededLine } from '../corpora/seededLines';

const SEEDS = 500;
const PLANS: readonly PlanId[] = [
  'outline',
  'scale-per-chord',
  'home-tell-tale',
  'home-scale',
  'single-target',
];
const round = (value: number): number => Math.round(value * 1e4) / 1e4;

/** Agreement of two lists, place by place, and the first places where they part. */
class Tally {
  same = 0;
  all = 0;
  readonly parted: string[] = [];
  compare(where: string, own: unknown, other: unknown): void {
    this.all++;
    if (JSON.stringify(own) === JSON.stringify(other)) this.same++;
    else if (this.parted.length < 3)
      this.parted.push(`${where}: ${JSON.stringify(own)}, read again ${JSON.stringify(other)}`);
  }
}

// The rules read twice, once for speed and once sentence by sentence. Where the two part, one of them has misread the page.
test(`${SEEDS} seeded lines over fifteen forms, in eight manners, at nine tempos: both readings agree`, () => {
  const tallies: Record<string, Tally> = {};
  const tally = (part: string): Tally => (tallies[part] ??= new Tally());
  for (let seed = 0; seed < SEEDS; seed++) {
    const { name, chart, tempo, notes } = seededLine(seed);
    const plan = { id: PLANS[seed % PLANS.length]! };
    const own = analyse({ chart, tempo, notes, plan, leanMs: 0 });
    const read = secondReading({ chart, tempo, notes, plan });
    own.notes.forEach((note, index) => {
      const other = read.notes[index]!;
      const target =
        other.target === undefined
          ? null
          : read.notes.findIndex((one) => one.top && !one.grace && one.event === other.target);
      tally('notes').compare(
        `${name}, note ${index}`,
        [
          note.chord,
          note.interval,
          note.tier,
          note.height,
          note.event,
          note.top,
          note.from ?? null,
          note.targetIndex ?? null,
          [...note.flags].sort(),
        ],
        [
          other.chord,
          other.interval,
          other.tier,
          other.height,
          other.event,
          other.top,
          other.from ?? null,
          target,
          [...other.flags].sort(),
        ],
      );
      tally('function').compare(`${name}, note ${index}`, note.function, other.function);
    });
    const figures = own.figures.map(
      ({ kind, noteIndices, targetIndex }) => `${kind} ${noteIndices.join(' ')} → ${targetIndex}`,
    );
    for (const figure of new Set([...figures, ...read.figures]))
      tally('figures').compare(
        name,
        figures.includes(figure) && figure,
        read.figures.includes(figure) && figure,
      );
    own.changes.forEach(({ beat, landing, connection, fix }, index) => {
      const other = read.landings[index]!;
      tally('landings').compare(
        `${name}, beat ${beat}`,
        [
          landing.noteIndex,
          landing.timing,
          landing.verdict,
          landing.rest ?? false,
          landing.resolutionIndex ?? null,
          connection.kind,
          fix?.toMidi ?? null,
        ],
        [
          other.note,
          other.timing,
          other.verdict,
          other.rest,
          other.resolution ?? null,
          other.connection,
          other.fix,
        ],
      );
    });
    tally('phrases').compare(
      name,
      own.phrases.map((one) => [
        round(one.startBeat),
        round(one.endBeat),
        one.end,
        one.changesCrossed,
        round(one.pickupBeats),
      ]),
      read.phrases.map((one) => [
        round(one.start),
        round(one.end),
        one.ending,
        one.crossed,
        round(one.pickup),
      ]),
    );
    const covered = (
      list: readonly {
        chord: string;
        count: number;
        byInterval: Readonly<Record<string, { count: number; beats: number; strong: number }>>;
        missing: readonly string[];
      }[],
    ) =>
      list.map(({ chord, count, byInterval, missing }) => [
        chord,
        count,
        Object.entries(byInterval)
          .map(([interval, cell]) => [interval, cell.count, round(cell.beats), cell.strong].join(' '))
          .sort(),
        [...missing].sort(),
      ]);
    tally('coverage').compare(name, covered(own.coverage), covered(read.coverage));
    own.mutedBand.segments.forEach(({ beat, chord, verdict }, index) =>
      tally('muted band').compare(
        `${name}, beat ${beat}`,
        [chord, verdict],
        [read.muted[index]!.chord, read.muted[index]!.verdict],
      ),
    );
  }
  for (const [part, { same, all, parted }] of Object.entries(tallies))
    expect([part, same / all >= 0.999, parted]).toEqual([part, true, parted]);
  expect(tallies.notes!.all).toBeGreaterThan(5000);
}, 240_000);
