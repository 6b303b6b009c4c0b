import { perform } from '../src/core/band';
import { transcribe } from '../src/core/transcribe';
import { analyse } from '../src/core/analyse';
import { findingsOf } from '../src/core/practise';
import { drillOfFinding } from '../src/core/drill';
import { toBeats } from '../src/core/formats';
import { playersOn } from '../tests/corpora/planted';
const plan = { id: 'scale-per-chord' as const };
const BLUES = playersOn('lamplight', 96, 6, { into: 'F7', ignored: { chord: 'G7', pc: 11 }, never: { chord: 'Bb7', pc: 10 } });
const rate = 22050; const seeds = (process.argv[2] ?? '1').split(',').map(Number);
let first = 0, three = 0, all = 0;
const heard = (notes: any, seed: number) => {
  const samples = perform({ notes, tempo: 96, rate, seed });
  const t = transcribe(samples, rate) as any;
  return toBeats({ notes: t.notes } as any, 96, 0);
};
for (const seed of seeds) for (const { kind, notes } of BLUES.planted) {
  const t0 = performance.now();
  const played = heard(notes(seed), seed);
  const report = analyse({ chart: BLUES.chart, tempo: 96, plan, notes: played, choruses: 6 });
  const found = findingsOf({ chart: BLUES.chart, tempo: 96, plan, report });
  const drill = found[0] ? drillOfFinding(found[0], BLUES.chart, plan) : null;
  all++; if (found[0]?.kind === kind) first++; if (found.slice(0, 3).some((f) => f.kind === kind)) three++;
  console.log(kind, seed, found[0]?.kind === kind ? 'OK' : 'MISS ' + found.slice(0, 4).map((f) => f.kind).join(','), drill?.kind ?? 'NO DRILL', Math.round(performance.now() - t0), notes(seed).length, played.length);
}
console.log({ first, three, all });
for (const seed of [1, 2, 3]) { const r = analyse({ chart: BLUES.chart, tempo: 96, plan, notes: heard(BLUES.goodPlayer(seed), seed), choruses: 6 }); console.log('good', findingsOf({ chart: BLUES.chart, tempo: 96, plan, report: r }).map((f) => f.kind).join(',')); }
