import { analyse } from '@/core/analyse';
import { seededLine, SEEDED_CHARTS } from './corpora/seededLines';
import { secondReading } from './corpora/secondReading';
const PLANS = ['outline','scale-per-chord','home-tell-tale','home-scale','single-target'] as const;
const N = Number(process.argv[2] ?? 400);
const tally: Record<string,[number,number]> = {};
const shown: Record<string, number> = {};
const MAX = Number(process.argv[3] ?? 3);
function cmp(part: string, name: string, a: unknown, b: unknown, more?: () => string) {
  const t = (tally[part] ??= [0,0]); t[1]++;
  if (JSON.stringify(a) === JSON.stringify(b)) { t[0]++; return; }
  shown[part] = (shown[part] ?? 0) + 1;
  if (shown[part]! <= MAX) console.log(`${part}: ${name}\n   core ${JSON.stringify(a)}\n   read ${JSON.stringify(b)} ${more ? more() : ''}`);
}
for (let seed = 0; seed < N; seed++) {
  const { name, chart, tempo, notes } = seededLine(seed);
  const plan = { id: PLANS[seed % PLANS.length]! };
  const core = analyse({ chart, tempo, notes, plan });
  const read = secondReading({ chart, tempo, notes, plan });
  if (core.notes.length !== read.notes.length) { console.log('LENGTH', name); continue; }
  const ctx = (i: number) => '\n   ' + core.notes.slice(Math.max(0, i - 3), i + 4).map((n) => `${n.index}:${n.onsetBeat.toFixed(2)}+${n.durationBeats.toFixed(2)} ${n.midi} ${n.chord}:${n.interval} ${n.function}${n.top ? '' : '~'}`).join(' | ');
  core.notes.forEach((n, i) => {
    const r = read.notes[i]!;
    for (const [k, a, b] of [['chord', n.chord, r.chord], ['interval', n.interval, r.interval], ['height', n.height, r.height], ['function', n.function, r.function], ['event', [n.event, n.top], [r.event, r.top]], ['flags', [...n.flags].sort(), [...r.flags].sort()], ['from', n.from ?? null, r.from ?? null], ['target', n.targetIndex ?? null, r.target === undefined ? null : read.notes.findIndex((x) => x.top && x.event === r.target && !x.grace)]] as const)
      cmp(`note.${k}`, `${name} #${i}`, a, b, () => ctx(i));
  });
  const figs = core.figures.map((f) => `${f.kind} ${f.noteIndices.join(' ')} → ${f.targetIndex}`);
  for (const f of new Set([...figs, ...read.figures])) cmp('figures', name, figs.includes(f) ? f : null, read.figures.includes(f) ? f : null, () => ctx(Number(f.split('→ ')[1])));
  core.changes.forEach((c, i) => {
    const r = read.landings[i];
    const L = c.landing;
    cmp('landings', `${name} beat ${c.beat} ${c.from}→${c.to}`, [c.beat, L.noteIndex, L.timing, L.verdict, L.rest ?? false, L.resolutionIndex ?? null], r ? [r.beat, r.note, r.timing, r.verdict, r.rest, r.resolution ?? null] : null, () => ctx(L.noteIndex ?? Math.max(0, core.notes.findIndex((n) => n.onsetBeat > c.beat))));
    cmp('connection', `${name} beat ${c.beat}`, [c.connection.kind, c.fix?.toMidi ?? null], r ? [r.connection, r.fix] : null);
  });
  cmp('phrasecount', name, core.phrases.length, read.phrases.length);
  core.phrases.forEach((p, i) => { const r = read.phrases[i]; const round = (x: number) => Math.round(x * 1e4) / 1e4; cmp('phrases', name + ' ' + i, [p.startBeat, p.endBeat, p.end, p.changesCrossed, p.pickupBeats].map((x) => typeof x === 'number' ? round(x) : x), r ? [r.start, r.end, r.ending, r.crossed, r.pickup].map((x) => typeof x === 'number' ? round(x) : x) : null); });
  const cov = (x: any) => x.map((c: any) => [c.chord, c.count, Object.entries(c.byInterval).map(([k, v]: any) => [k, v.count, Math.round(v.beats * 1e4) / 1e4, v.strong]).sort(), [...c.missing].sort()]);
  const [ca, cb] = [cov(core.coverage), cov(read.coverage)];
  ca.forEach((c: any, i: number) => cmp('coverage', name, c, cb[i]));
  core.mutedBand.segments.forEach((s, i) => { const r = read.muted[i]; cmp('muted', `${name} beat ${s.beat} margin ${s.margin} best ${s.best}`, [s.beat, s.chord, s.verdict], r ? [r.beat, r.chord, r.verdict] : null); });
}
for (const [k, [a, b]] of Object.entries(tally)) console.log(k.padEnd(16), a, '/', b, (100 * a / b).toFixed(2));
