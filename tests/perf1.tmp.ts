import { analyse } from '@/core/analyse';
import { LIBRARY, readChart, timelineOf, harmonyOf, soundingAt } from '@/core/chart';
import { certain, seededRandom } from '@/core/vocabulary';
const chart = certain(readChart(LIBRARY.find(({ id }) => id.includes('orchard'))!.text));
const form = timelineOf(chart, 120); const { readings } = harmonyOf(chart, form);
const random = seededRandom(5); const notes: any[] = []; let midi = 64; const step = 4 / 14;
for (let beat = 0; beat < form.formBeats * 10; beat += step) {
    if (random() < 0.06) { beat += step; continue; }
    const pcs = readings[soundingAt(form, beat).stretch.index]!.scale.pcs;
    let to = midi + (random() < 0.5 ? 1 : -1) * (1 + Math.floor(random() * 4)); if (random() < 0.85) while (!pcs.includes(((to % 12) + 12) % 12)) to++;
    midi = to > 80 ? to - 12 : to < 50 ? to + 12 : to; notes.push({ onsetBeat: beat, durationBeats: step, midi });
}
for (let i = 0; i < 60; i++) { const t = performance.now(); analyse({ chart, tempo: 120, notes, plan: { id: 'scale-per-chord' } }); if (i % 10 === 9) console.log((performance.now() - t).toFixed(0)); }
