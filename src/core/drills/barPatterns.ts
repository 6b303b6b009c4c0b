import type { PlayedNote } from '../analyse';
import { elementAt, pitchClassOf, present, seededRandom, type Beats, type Midi } from '../shared';
import { tonesOf } from './aims';
import { chordAt, heldFor, type DrillContext } from './drillContext';
import { barsOf, type MusicBar } from './musicBars';

/** How a bar of a written line ends: it goes on, comes to a held note inside it, or rings into an empty bar. */
type BarEnd = 'goes-on' | 'held' | 'rings-over';

const [LOWEST, HIGHEST]: readonly [Midi, Midi] = [48, 79];

type Lay = (bar: MusicBar, from: Midi, end: BarEnd, way: 1 | -1, late: Beats) => PlayedNote[];

/**
 * Each bar of one chord from near where the one before it ended, in phrases of one to three bars; chord tones
 * where a bar holds more than one chord.
 */
export function barByBar(scene: DrillContext, seed: number, lay: Lay): PlayedNote[] {
  const bars = barsOf(scene);
  const ends = barEnds(bars.length, seed);
  let hand: Midi = 57 + (seed % 7);
  let phrase = seed % 2;
  return bars.flatMap((bar, index) => {
    const end = elementAt(ends, index);
    if (end === null) return [];
    const way = (index + seed) % 2 === 0 ? 1 : -1;
    // every second phrase begins a beat into its bar, where the bar has room for that
    const begins = index === 0 || ends[index - 1] === null;
    if (begins) phrase++;
    const late = begins && phrase % 2 === 0 && end !== 'held' ? 1 : 0;
    const notes = bar.single ? lay(bar, hand, end, way, late) : throughChords(scene, bar, hand, end);
    hand = notes[notes.length - 1]?.midi ?? hand;
    return end === 'rings-over' ? ringing(scene, notes, bar, 1 + ((index + seed) % 3) / 2) : notes;
  });
}

/** How each bar ends; null for a bar of rest after a note that rings into it. */
function barEnds(count: number, seed: number): (BarEnd | null)[] {
  const random = seededRandom(seed * 31 + 5);
  const ends: (BarEnd | null)[] = [];
  while (ends.length < count) {
    const left = count - ends.length;
    const length = left <= 3 ? left : elementAt([2, 3, 3], Math.floor(random() * 3));
    if (length === 1) ends.push('held');
    else {
      for (let bar = 0; bar < length - 2; bar++) ends.push(random() < 0.5 ? 'held' : 'goes-on');
      ends.push('rings-over', null);
    }
  }
  return ends;
}

/** The last note held into the empty bar after it. */
function ringing(
  scene: DrillContext,
  notes: readonly PlayedNote[],
  { start, beats }: MusicBar,
  most: Beats,
): PlayedNote[] {
  const last = notes[notes.length - 1];
  if (!last) return [];
  const held = start + beats + Math.min(most, beats / 2) - last.onsetBeat;
  return [...notes.slice(0, -1), { ...last, durationBeats: heldFor(scene, last.onsetBeat, held) }];
}

/** Chord tones through a bar of several chords: on each chord, and an eighth pair between. */
function throughChords(
  scene: DrillContext,
  { start, beats }: MusicBar,
  from: Midi,
  end: BarEnd,
): PlayedNote[] {
  let hand = from;
  const rhythm: [Beats, Beats][] = [];
  for (let beat = 0; beat < beats - 1e-6; beat += 2)
    rhythm.push(
      ...(beat + 2 <= beats
        ? ([
            [beat, 1],
            [beat + 1, 0.5],
            [beat + 1.5, 0.5],
          ] as [Beats, Beats][])
        : ([[beat, 1]] as [Beats, Beats][])),
    );
  const played = end === 'goes-on' ? rhythm : rhythm.filter(([beat]) => beat <= beats - 2 + 1e-6);
  return played.map(([beat, duration], index) => {
    const { chord } = chordAt(scene, start + beat).stretch;
    hand = chord ? nearestOf(tonesOf(chord, ['chord']), hand) : hand;
    const isLast = end !== 'goes-on' && index === played.length - 1;
    return { onsetBeat: start + beat, durationBeats: isLast ? 1.2 : duration * 0.95, midi: hand };
  });
}

/** The nearest pitch of some pitch classes that is not the note itself. */
function nearestOf(pcs: readonly number[], to: Midi): Midi {
  let best: Midi | null = null;
  for (let midi = LOWEST; midi <= HIGHEST; midi++)
    if (
      midi !== to &&
      pcs.includes(pitchClassOf(midi)) &&
      (best === null || Math.abs(midi - to) < Math.abs(best - to))
    )
      best = midi;
  return best ?? to;
}

/** The pitches of a scale from low to high. */
const ladder = (pcs: readonly number[]): Midi[] =>
  Array.from({ length: HIGHEST - LOWEST + 25 }, (_, index) => LOWEST - 12 + index).filter((midi) =>
    pcs.includes(pitchClassOf(midi)),
  );
const placeNear = (rungs: readonly Midi[], midi: Midi): number =>
  rungs.reduce(
    (best, rung, index) => (Math.abs(rung - midi) < Math.abs(elementAt(rungs, best) - midi) ? index : best),
    0,
  );

/**
 * Statements of a cell, each a step of the scale on: skips in eighths, threes and fours in triplets, which
 * three or four of them fill. A bar that ends holds a chord tone for its last beat.
 */
export function patternIn(
  scene: DrillContext,
  { start, beats, single }: MusicBar,
  from: Midi,
  end: BarEnd,
  cell: 2 | 3 | 4,
  turned: 1 | -1,
  late: Beats,
): PlayedNote[] {
  const { scale } = present(scene.harmony.readings[present(single).index]);
  const rungs = ladder(scale.pcs);
  const way = cell === 4 ? -1 : turned;
  const step = cell === 2 ? 0.5 : 1 / 3;
  const playing = end === 'held' && beats >= 4 ? beats - 1 : beats;
  const entry = cell !== 4 && beats >= 4 ? late : 0;
  const count = Math.round((playing - entry) / step);
  const within = cell === 2 ? 2 : 1;
  // in the middle of the neck, on the side the pattern leaves from
  const first = placeNear(rungs, way === 1 ? Math.min(from, 55) : Math.max(from, 72));
  const notes = Array.from({ length: count }, (_, index) => ({
    onsetBeat: start + entry + index * step,
    durationBeats: step * 0.95,
    midi: elementAt(rungs, first + way * (Math.floor(index / cell) + within * (index % cell))),
  }));
  if (playing === beats) return notes;
  const last = elementAt(notes, notes.length - 1).midi;
  const tones = tonesOf(present(present(single).chord), ['chord']);
  return [...notes, { onsetBeat: start + playing, durationBeats: 1, midi: nearestOf(tones, last) }];
}

/** Eighths: four notes up one way and four down the other; a bar that ends holds its last note. */
export function upAndDown(
  scene: DrillContext,
  { start, beats, single }: MusicBar,
  from: Midi,
  end: BarEnd,
  up: 'arpeggio' | 'scale-run',
): PlayedNote[] {
  const chord = present(present(single).chord);
  // a sixth lies a step from the fifth: no arpeggio skips to it
  const tones = ladder(chord.tones.filter(({ role }) => role !== 'sixth').map(({ pc }) => pc));
  const { scale } = present(scene.harmony.readings[present(single).index]);
  const steps = ladder([...new Set([...scale.pcs, ...chord.tones.map(({ pc }) => pc)])]);
  const low = nearestOf(tonesOf(chord, ['root', 'third']), Math.min(60, from));
  const count = Math.round(beats * 2);
  const rise = up === 'arpeggio' ? Math.min(4, count - 4) : Math.min(5, count - 2);
  const base = placeNear(up === 'arpeggio' ? tones : steps, low);
  const rising = Array.from({ length: rise }, (_, index) =>
    elementAt(up === 'arpeggio' ? tones : steps, base + index),
  );
  const top = elementAt(rising, rising.length - 1);
  const below = (up === 'arpeggio' ? steps : tones).filter((midi) => midi < top);
  const falling = Array.from({ length: count - rise }, (_, index) =>
    elementAt(below, below.length - 1 - index),
  );
  const last = end === 'goes-on' ? count : count - 1;
  return [...rising, ...falling].slice(0, last).map((midi, index) => ({
    onsetBeat: start + index / 2,
    durationBeats: index === last - 1 && end === 'held' ? 1 : 0.47,
    midi,
  }));
}
