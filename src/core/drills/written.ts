import type { PlayedNote } from '../analyse';
import { beatsPerBar, type ChordSpan } from '../chart';
import { chordShapes } from '../neck';
import { pitchClassOf, seededRandom, type Midi, elementAt, present } from '../shared';
import type { WrittenExample } from './recipe';
import { chordAt, type DrillContext } from './drillContext';
import type { Slot } from './line';
import { tonesOf } from './aims';
import type { Motif } from './rules';

type Fill = (slots: readonly Slot[], seed: number) => PlayedNote[] | null;
type MusicBar = {
  readonly start: number;
  readonly beats: number;
  /** The chord, where it is one for the whole bar. */ readonly single: ChordSpan | null;
};

const [LOWEST, HIGHEST]: readonly [Midi, Midi] = [50, 78];

/**
 * Lines that are laid out bar by bar: patterns, arpeggios against scales, one phrase again and again, chords
 * against line.
 */
export function writtenLine(
  scene: DrillContext,
  written: WrittenExample,
  seed: number,
  fill: Fill,
): PlayedNote[] | null {
  switch (written.kind) {
    case 'pattern':
      return barByBar(scene, seed, (bar, from) => patternIn(scene, bar, from, written));
    case 'up-and-down':
      return barByBar(scene, seed, (bar, from) => upAndDown(scene, bar, from, written.up));
    case 'motif':
      return motifs(scene, written.like ?? elementAt(MOTIFS, seed % MOTIFS.length), seed, fill);
    case 'trade':
      return traded(scene, written.bars, seed, fill);
  }
}

function barsOf({ timeline, choruses }: DrillContext): MusicBar[] {
  return Array.from({ length: choruses }, (_, chorus) =>
    timeline.bars.map(({ start, end }): MusicBar => {
      const inside = timeline.chordSpans.filter(
        (stretch) => stretch.start < end - 1e-6 && stretch.end > start + 1e-6,
      );
      return {
        start: chorus * timeline.formBeats + start,
        beats: end - start,
        single: inside.length === 1 && elementAt(inside, 0).chord ? elementAt(inside, 0) : null,
      };
    }),
  ).flat();
}

/**
 * Each bar of one chord from near where the one before it ended; chord tones in quarters where a bar holds
 * more.
 */
function barByBar(
  scene: DrillContext,
  seed: number,
  lay: (bar: MusicBar, from: Midi) => PlayedNote[],
): PlayedNote[] {
  let hand: Midi = 56 + (seed % 5);
  return barsOf(scene).flatMap((bar) => {
    const notes = bar.single
      ? lay(bar, hand)
      : Array.from({ length: Math.round(bar.beats) }, (_, beat) => {
          const { chord } = chordAt(scene, bar.start + beat).stretch;
          hand = chord ? nearestOf(tonesOf(chord, ['chord']), hand) : hand;
          return { onsetBeat: bar.start + beat, durationBeats: 0.95, midi: hand };
        });
    hand = notes[notes.length - 1]?.midi ?? hand;
    return notes;
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
 * three or four of them fill.
 */
function patternIn(
  scene: DrillContext,
  { start, beats, single }: MusicBar,
  from: Midi,
  { cell, way }: { readonly cell: 2 | 3 | 4; readonly way: 1 | -1 },
): PlayedNote[] {
  const rungs = ladder(present(scene.harmony.readings[present(single).index]).scale.pcs);
  const step = cell === 2 ? 0.5 : 1 / 3;
  const count = Math.round(beats / step);
  const within = cell === 2 ? 2 : 1;
  // in the middle of the neck, on the side the pattern leaves from
  const home = way === 1 ? Math.min(from, 58) : Math.max(from, 70);
  const first = placeNear(rungs, home);
  return Array.from({ length: count }, (_, index) => ({
    onsetBeat: start + index * step,
    durationBeats: step * 0.95,
    midi: elementAt(rungs, first + way * (Math.floor(index / cell) + within * (index % cell))),
  }));
}

/** Eighths: four notes up one way and four down the other. */
function upAndDown(
  scene: DrillContext,
  { start, beats, single }: MusicBar,
  from: Midi,
  up: 'arpeggio' | 'scale-run',
): PlayedNote[] {
  // a sixth lies a step from the fifth: no arpeggio skips to it
  const tones = ladder(
    present(present(single).chord)
      .tones.filter(({ role }) => role !== 'sixth')
      .map(({ pc }) => pc),
  );
  const scale = ladder([
    ...new Set([
      ...present(scene.harmony.readings[present(single).index]).scale.pcs,
      ...present(present(single).chord).tones.map(({ pc }) => pc),
    ]),
  ]);
  const low = nearestOf(tonesOf(present(present(single).chord), ['root', 'third']), Math.min(60, from));
  const count = Math.round(beats * 2);
  const rise = up === 'arpeggio' ? Math.min(4, count - 4) : Math.min(5, count - 2);
  const base = placeNear(up === 'arpeggio' ? tones : scale, low);
  const rising = Array.from({ length: rise }, (_, index) =>
    elementAt(up === 'arpeggio' ? tones : scale, base + index),
  );
  const top = elementAt(rising, rising.length - 1);
  const other = up === 'arpeggio' ? scale : tones;
  const below = other.filter((midi) => midi < top);
  const falling = Array.from({ length: count - rise }, (_, index) =>
    elementAt(below, below.length - 1 - index),
  );
  return [...rising, ...falling].map((midi, index) => ({
    onsetBeat: start + index / 2,
    durationBeats: 0.47,
    midi,
  }));
}

/**
 * Shapes to begin with: rhythm and contour, all with a beat and a half of rest behind them in a bar of four.
 */
const MOTIFS: readonly Motif[] = [
  { gaps: [0.5, 0.5, 1], moves: [2, 2, -3] },
  { gaps: [0.5, 0.5, 0.5], moves: [-2, -2, 4] },
  { gaps: [1, 0.5, 0.5], moves: [3, -2, -2] },
];

/**
 * One phrase on every bar that has room for it, its moves fitted to the chord and its end on one of its tones.
 */
function motifs(scene: DrillContext, { gaps, moves }: Motif, seed: number, fill: Fill): PlayedNote[] | null {
  const length = gaps.reduce((sum, gap) => sum + gap, 0);
  const bar = beatsPerBar(scene.chart.meter);
  const every = Math.ceil((length + 2) / bar) * bar;
  const slots: Slot[] = [];
  for (let start = 0; start + length < scene.end; start += every) {
    let beat = start;
    for (let index = 0; index <= gaps.length; index++) {
      const { chord, index: stretch } = chordAt(scene, beat).stretch;
      const last = index === gaps.length;
      const tones = chord?.tones.map(({ pc }) => pc) ?? [];
      const pcs =
        chord && last
          ? tones
          : [...new Set([...present(scene.harmony.readings[stretch]).scale.pcs, ...tones])];
      const move = moves[index - 1];
      const steps =
        move === undefined
          ? undefined
          : [0, 1, -1, 2, -2].map((by) => move + by).filter((to) => Math.sign(to) === Math.sign(move));
      slots.push({
        beat,
        duration: last ? 0.4 : Math.min(0.95, elementAt(gaps, index) * 0.95),
        pcs,
        ...(steps ? { steps } : {}),
      });
      beat += gaps[index] ?? 0;
    }
  }
  return fill(slots, seed);
}

/** Bars of chords struck twice, and bars of chord tones in eighths. */
function traded(scene: DrillContext, each: number, seed: number, fill: Fill): PlayedNote[] | null {
  const random = seededRandom(seed);
  const notes: PlayedNote[] = [];
  const slots: Slot[] = [];
  barsOf(scene).forEach(({ start, beats }, bar) => {
    const isChords = Math.floor(bar / each) % 2 === 0;
    for (let beat = 0; beat < beats - 1e-6; beat += isChords ? Math.max(1, beats / 2) : 0.5) {
      const { chord } = chordAt(scene, start + beat).stretch;
      if (!chord) continue;
      if (!isChords) {
        slots.push({ beat: start + beat, duration: 0.47, pcs: chord.tones.map(({ pc }) => pc) });
        continue;
      }
      const shapes = chordShapes(chord, { position: 5, most: 4 });
      const frets = shapes[Math.floor(random() * Math.min(3, shapes.length))]?.frets ?? [];
      frets.forEach((fret, string) => {
        if (fret !== null)
          notes.push({
            onsetBeat: start + beat,
            durationBeats: Math.max(0.9, beats / 2 - 0.3),
            midi: elementAt(OPEN, string) + fret,
          });
      });
    }
  });
  const line = fill(slots, seed);
  return line && [...notes, ...line].sort((a, b) => a.onsetBeat - b.onsetBeat || a.midi - b.midi);
}

/** Open strings from low to high, as the shapes count them: E2 A2 D3 G3 B3 E4. */
const OPEN: readonly Midi[] = [40, 45, 50, 55, 59, 64];
