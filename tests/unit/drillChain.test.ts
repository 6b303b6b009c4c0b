import { expect, test } from '@jest/globals';
import { analyse, type PlayedNote } from '@/core/analyse';
import { timelineOf, type Chart } from '@/core/chart';
import { exampleFor, judgeDrill, type Drill } from '@/core/drills';
import { drillOfFinding, findingsOf } from '@/core/findings';
import { playersOn } from '../corpora/planted';

const plan = { id: 'scale-per-chord' as const };
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

/** What a solo played over the bars of a drill, chorus by chorus, as an attempt at it. */
function over({ span, tempo }: Drill, chart: Chart, notes: readonly PlayedNote[], choruses: number) {
  const { bars, formBeats } = timelineOf(chart, tempo);
  const [from, to] = [bars[span[0] - 1]!.start, bars[span[1] - 1]!.end];
  return Array.from({ length: choruses }, (_, chorus) => {
    const shift = chorus * formBeats + from;
    return notes
      .filter(({ onsetBeat }) => onsetBeat >= shift - 0.25 && onsetBeat < shift + to - from - 0.25)
      .map((note) => ({ ...note, onsetBeat: note.onsetBeat - shift + chorus * (to - from) }));
  }).flat();
}

// The chain from finding to drill: what raised the finding does not pass its drill, and the drill's own line does.
test.each([
  ['a blues', BLUES],
  ['a song', SONG],
  ['a minor tune', MINOR],
])(
  '%s: the solo that raised a finding fails its drill, and the drill has a line that passes',
  (_, players) => {
    const { chart, tempo, choruses } = players;
    const wrong: string[] = [];
    let drilled = 0;
    for (const { kind, notes } of players.planted)
      for (const seed of [1, 2]) {
        const solo = notes(seed);
        const report = analyse({ chart, tempo, notes: solo, plan, choruses });
        const found = findingsOf({ chart, tempo, plan, report }).find((one) => one.kind === kind);
        const drill = found && drillOfFinding(found, chart, plan);
        if (!drill) continue;
        drilled++;
        const attempt = judgeDrill(drill, over(drill, chart, solo, choruses), choruses);
        if (attempt.passed)
          wrong.push(`${kind} ${seed}: the solo passes ${drill.kind} ${attempt.met}/${attempt.of}`);
        const made = exampleFor(drill, seed);
        if (!made || !judgeDrill(drill, made.line, made.passes).passed)
          wrong.push(`${kind} ${seed}: no line for ${drill.kind} over bars ${drill.span}`);
      }
    expect(drilled).toBeGreaterThanOrEqual(60);
    expect(wrong).toEqual([]);
  },
  300_000,
);
