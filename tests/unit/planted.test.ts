import { expect, test } from '@jest/globals';
import { analyse, type PlayedNote } from '@/core/analyse';
import { findingsOf, findingsOver, firstPageOf } from '@/core/findings';
import { playersOn } from '../corpora/planted';

const plan = { id: 'scale-per-chord' as const };
/** A blues, a tune of thirty-two bars, a minor tune: other chords, other tempos, chords of half a bar to two bars. */
const BLUES = playersOn('lamplight', 96, 6, {
  into: 'F7',
  ignored: { chord: 'G7', pc: 11 },
  never: { chord: 'Eb7', pc: 1 },
});
const SONG = playersOn('orchard', 132, 3, {
  into: 'Bb7',
  ignored: { chord: 'C7b9', pc: 4 },
  never: { chord: 'Fm7', pc: 8 },
});
const MINOR = playersOn('ferry', 116, 5, {
  into: 'C7b9',
  ignored: { chord: 'C7b9', pc: 4 },
  never: { chord: 'Fm7', pc: 8 },
});

/** The weaknesses a clean stand-in has none of by its nature. That a line can lie in one place of the neck is true of seven of its twenty lines, whoever plays them. */
const FIGURED = [
  'target-missed',
  'tone-missed',
  'still-on-old-chord',
  'landing-late',
  'root-only',
  'leaps-into-changes',
  'turns-late',
  'turns-early',
  'home-scale-only',
  'outline-only',
  'narrow-range',
  'starts-on-one',
  'no-space',
  'phrases-too-short',
  'rushes',
  'drags',
  'uneven',
  'no-upbeats',
  'scale-running',
  'leaps-only',
  'one-direction',
  'stays-outside',
  'lost-place',
  'step-out-lost',
  'chord-hit-wrong',
  'handover-late',
];

const findings = ({ chart, tempo, choruses }: typeof BLUES, notes: PlayedNote[]) =>
  findingsOf({ chart, tempo, plan, report: analyse({ chart, tempo, notes, plan, choruses }) }).map(
    ({ kind }) => kind,
  );

// Whatever is planted must come back: the first finding names it. Fourteen seeds a kind over the three forms gave 1,401 of 1,428 first and 1,416 within three.
test.each([
  ['a blues', BLUES, [1, 2, 3, 4, 5, 6], 0.97, 0.98],
  ['a song', SONG, [1, 2, 3], 0.97, 0.98],
  ['a minor tune', MINOR, [1, 2, 3], 0.93, 0.97],
])(
  'thirty-four planted weaknesses come back from their notes over %s, nearly always first',
  (name, players, seeds, first, three) => {
    expect(players.planted.length).toBeGreaterThanOrEqual(34);
    const missed: string[] = [];
    let [named, within] = [0, 0];
    for (const { kind, notes } of players.planted)
      for (const seed of seeds) {
        const found = findings(players, notes(seed));
        if (found[0] === kind) named++;
        else missed.push(`${kind} ${seed}: ${found.slice(0, 3).join(', ')}`);
        if (found.slice(0, 3).includes(kind as (typeof found)[number])) within++;
      }
    const all = players.planted.length * seeds.length;
    console.log(`${name}: named first ${named} of ${all}, within three ${within}; ${missed.join(' | ')}`);
    expect(named / all).toBeGreaterThanOrEqual(first);
    expect(within / all).toBeGreaterThanOrEqual(three);
  },
  300_000,
);

test('a player with nothing planted is told nothing that hides the harmony', () => {
  for (const players of [BLUES, SONG, MINOR])
    for (const seed of [1, 2, 3, 4, 5, 6])
      for (const kind of findings(players, players.goodPlayer(seed)))
        expect([
          'one-position',
          'no-motif',
          'ends-asking',
          'no-approaches',
          'no-space',
          'tone-never-played',
          'change-ignored',
          'starts-alike',
        ]).toContain(kind);
}, 120_000);

test('who has none of them is told none of them: at most one in twenty, kind by kind', () => {
  const told = new Map<string, number>();
  for (let seed = 1; seed <= 20; seed++)
    for (const kind of new Set(findings(BLUES, BLUES.widePlayer(seed))))
      told.set(kind, (told.get(kind) ?? 0) + 1);
  console.log(
    `told to a good player, of 20: ${[...told].map(([kind, times]) => `${kind} ${times}`).join(', ') || 'nothing'}`,
  );
  for (const kind of FIGURED) expect([kind, Math.max(1, told.get(kind) ?? 0)]).toEqual([kind, 1]);
}, 120_000);

test('of sixty good players nearly all hear a strength first, then a next step', () => {
  const said = { strength: 0, step: 0, all: 0 };
  const faults: string[] = [];
  for (const players of [BLUES, SONG, MINOR])
    for (let seed = 1; seed <= 20; seed++) {
      const { chart, tempo, choruses } = players;
      const notes = players.widePlayer(seed);
      const request = { chart, tempo, plan, report: analyse({ chart, tempo, notes, plan, choruses }) };
      const { strength, practise, step } = firstPageOf(request, findingsOver([request]));
      said.all++;
      if (strength) said.strength++;
      if (step) said.step++;
      else faults.push(`${practise?.kind} ${practise?.weight.toFixed(2)}`);
    }
  console.log(JSON.stringify(said), faults.join(', '));
  expect(said.strength).toBe(said.all);
  expect(said.step / said.all).toBeGreaterThanOrEqual(0.95);
}, 120_000);
