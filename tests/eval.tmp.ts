import { CONDITIONS, recordedTake, soundfontTake } from './corpora/conditions';
import { loadGuitar, type Instrument } from './corpora/guitarSamples';
import { Tally, type ReportedNote } from './score/evaluate';
import { Transcriber } from '@/core/transcribe';
const set = process.argv[2]!; const only = process.argv[3] ? process.argv[3].split(',') : null; const verbose = process.argv[4] === '-v'; const share = process.env.SHARE ?? 'tune';
const seeds = (process.env.SEEDS ?? '1').split(',').map(Number);
const t0 = performance.now();
const sources: any[] = set === 'rec' ? await Promise.all((['acoustic','electric','nylon'] as Instrument[]).map(async (n) => [n, (await loadGuitar(n)).filter((s) => s.share === share)])) : (['nylonString','steelString','jazz','clean'] as const).map((n) => [n, null]);
const rows: string[] = []; let sum = 0, count = 0; const worst: [number,string][] = [];
for (const condition of CONDITIONS) {
  if (only && !only.some((o) => condition.name.startsWith(o))) continue;
  const tally = new Tally(); const per: string[] = [];
  for (const [name, guitar] of sources) {
    const own = new Tally();
    const program = condition.effect === 'drive' && name === 'jazz' ? 'overdriven' : condition.effect === 'distortion' && (name === 'jazz' || name === 'clean') ? 'distorted' : name;
    for (const seed of seeds) {
      const s = seed + 100 * name.length + (share === 'decide' ? 5000 : 0);
      const take = set === 'rec' ? recordedTake(condition, guitar, s) : soundfontTake(condition, program, s);
      const started = performance.now();
      const t = new (Transcriber as any)(take.rate, take.backing ? { backing: take.backing } : {});
      t.push(take.samples);
      const { notes } = t.finish();
      const spent = (performance.now() - started) / 1000;
      const rep: ReportedNote[] = notes.map((n: any) => ({ onset: n.onsetSec, offset: n.offsetSec, pitch: n.midi + n.cents / 100 }));
      const pairs = own.add(take, rep, spent); tally.add(take, rep, spent);
      if (verbose) {
        const ft = new Set(pairs.map((p) => p[0])), fh = new Set(pairs.map((p) => p[1]));
        const ev: [number, string][] = [];
        take.truth.forEach((n, i) => ev.push([n.onset, `${ft.has(i) ? '   ' : 'MISS'} T ${n.onset.toFixed(3)}-${n.offset.toFixed(3)} ${n.pitch.toFixed(2)} ${n.attack ?? ''} ${n.bend ? 'bend' + n.bend.cents : ''}${n.slide ? 'slide' : ''}${n.vibrato ? 'vib' : ''}`]));
        rep.forEach((n, i) => { if (!fh.has(i)) ev.push([n.onset, `FALSE H ${n.onset.toFixed(3)}-${n.offset!.toFixed(3)} ${n.pitch.toFixed(2)} conf ${notes[i]!.confidence} lev ${notes[i]!.level} ${(notes[i] as any).from ?? ''}`]); });
        take.ghosts.forEach((g) => ev.push([g, `    ghost ${g.toFixed(3)}`]));
        ev.sort((a, b) => a[0] - b[0]);
        console.log(`--- ${condition.name} ${name} seed ${s} f1 ${(100*own.f1).toFixed(1)}`);
        ev.forEach(([t, e], i) => { const near = ev.some(([u, f], j) => Math.abs(i - j) <= 1 && (f.startsWith('MISS') || f.startsWith('FALSE'))); if (near) console.log(e); });
      }
    }
    per.push((100 * own.f1).toFixed(1).padStart(6));
  }
  const single = !['dyads','stabs','mixed'].includes(condition.name);
  if (single) { sum += tally.f1; count++; worst.push([tally.f1, condition.name]); }
  rows.push(`${condition.name.padEnd(12)} F ${(100*tally.f1).toFixed(1).padStart(5)} P ${(100*tally.precision).toFixed(1).padStart(5)} R ${(100*tally.recall).toFixed(1).padStart(5)} oct ${tally.octaves} gh ${tally.ghostsHeard}/${tally.ghosts} on ${(1000*[...tally.onsetErrors].sort((a,b)=>a-b)[tally.onsetErrors.length>>1]!).toFixed(0)}ms x${(tally.seconds/tally.spent).toFixed(0)}  ${per.join('')}`);
}
worst.sort((a,b)=>a[0]-b[0]);
console.log(rows.join('\n')); console.log(`${set} ${share} single mean ${(100*sum/count).toFixed(2)} worst ${worst.slice(0,3).map(w=>w[1]+' '+(100*w[0]).toFixed(1)).join(', ')}  (${((performance.now()-t0)/1000).toFixed(0)} s)`);
