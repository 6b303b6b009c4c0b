import { analyse } from '@/core/analyse';
import { findingsOf } from '@/core/practise';
import { LIBRARY, readChart, timelineOf, harmonyOf, soundingAt } from '@/core/chart';
import { certain, seededRandom } from '@/core/vocabulary';
const chart = certain(readChart(LIBRARY.find(({ id }) => id.includes('orchard'))!.text));
const form = timelineOf(chart, 120); const { readings } = harmonyOf(chart, form);
function line(choruses: number, perBar: number) {
  const random = seededRandom(5); const notes = []; let midi = 64;
  const step = 4 / perBar;
  for (let beat = 0; beat < form.formBeats * choruses; beat += step) {
    if (random() < 0.06) { beat += step; continue; }
    const pcs = readings[soundingAt(form, beat).stretch.index]!.scale.pcs;
    let to = midi + (random() < 0.5 ? 1 : -1) * (1 + Math.floor(random() * 4)); if (random() < 0.85) while (!pcs.includes(((to % 12) + 12) % 12)) to++;
    midi = to > 80 ? to - 12 : to < 50 ? to + 12 : to; notes.push({ onsetBeat: beat, durationBeats: step, midi });
  }
  return notes;
}
for (const [choruses, rep] of [[10, 12], [100, 3], [250, 1]] as const) {
  const notes = line(choruses, 14);
  const times: number[] = [];
  for (let i = 0; i < rep; i++) { const t = performance.now(); analyse({ chart, tempo: 120, notes, plan: { id: 'scale-per-chord' } }); times.push(performance.now() - t); }
  const report = analyse({ chart, tempo: 120, notes, plan: { id: 'scale-per-chord' } });
  const t = performance.now(); findingsOf({ chart, tempo: 120, plan: { id: 'scale-per-chord' }, report }); const f = performance.now() - t;
  console.log(choruses, notes.length, 'first', times[0]!.toFixed(0), 'best', Math.min(...times).toFixed(0), (Math.min(...times) * 1000 / notes.length).toFixed(1), 'us/note', 'findings', f.toFixed(0));
}
