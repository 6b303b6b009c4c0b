import type { PlayedNote } from '../analyse';
import { beatsPerBar, changesOf } from '../chart';
import { isStrongBeat, rhythmOf, type PhraseWindow, type PitchSlot } from '../lines';
import { chordShapes } from '../neck';
import { cellAt } from '../plan';
import { elementAt, seededRandom, type Beats, type Midi } from '../shared';
import { chordAt, type DrillContext } from './drillContext';
import { barsOf, type Fill, type MusicBar } from './musicBars';
import { tradedIn, type TradeRule } from './rules/trade';

/** Bars of chords in a rhythm of their own, and phrases of chord tones between them. */
export function traded(scene: DrillContext, rule: TradeRule, seed: number, fill: Fill): PlayedNote[] | null {
  const random = seededRandom(seed);
  const bars = barsOf(scene);
  const isChords = (bar: number) => tradedIn(rule, bar) === 'chords';
  const ofLine = rule.first === 'line' ? rule.bars : (rule.then ?? rule.bars);
  const notes = bars.flatMap((bar, index) => (isChords(index) ? hits(scene, bar, random) : []));
  const bar = beatsPerBar(scene.chart.meter);
  const windows = bars.flatMap(({ start }, index): PhraseWindow[] =>
    !isChords(index) && (index === 0 || isChords(index - 1))
      ? [
          {
            from: start,
            to: Math.min(scene.end, start + ofLine * bar),
            start: start + elementAt([0, 0.5], Math.floor(random() * 2)),
          },
        ]
      : [],
  );
  const rhythm = rhythmOf({
    end: scene.end,
    bar,
    tempo: scene.tempo,
    level: scene.level,
    base: 'mixed',
    changes: changesOf(scene.timeline, scene.choruses).map(({ at }) => at),
    leadIn: null,
    ahead: 0,
    windows,
    answers: false,
    seed,
  });
  const line = fill(
    rhythm.map((note): PitchSlot => {
      const { stretch, chorus } = chordAt(scene, note.beat);
      const tones = stretch.chord?.tones.map(({ pc }) => pc) ?? [];
      const { material } = cellAt(scene.plan, stretch.index, chorus);
      const isStrong = isStrongBeat(note.beat, bar) || note.place === 'last';
      return { ...note, pcs: isStrong ? tones : [...new Set([...material, ...tones])], tones, isStrong };
    }),
    seed,
  );
  return line && [...notes, ...line].sort((a, b) => a.onsetBeat - b.onsetBeat || a.midi - b.midi);
}

/** Where chords are struck in a bar: on one and the second half of two, on one and three, on two and four. */
const HITS: readonly (readonly Beats[])[] = [
  [0, 1.5],
  [0, 2],
  [0, 2.5],
];

function hits(scene: DrillContext, { start, beats, single }: MusicBar, random: () => number): PlayedNote[] {
  const chosen = elementAt(HITS, single ? Math.floor(random() * HITS.length) : 1);
  const places = chosen.filter((beat) => beat < beats - 0.5);
  return places.flatMap((beat, index) => {
    const { chord } = chordAt(scene, start + beat).stretch;
    const shapes = chord ? chordShapes(chord, { position: 5, most: 4 }) : [];
    const frets = shapes[Math.floor(random() * Math.min(3, shapes.length))]?.frets ?? [];
    const until = places[index + 1] ?? beats - 0.5;
    return frets.flatMap((fret, string): PlayedNote[] =>
      fret === null
        ? []
        : [
            {
              onsetBeat: start + beat,
              durationBeats: until - beat - 0.1,
              midi: elementAt(OPEN, string) + fret,
            },
          ],
    );
  });
}

/** Open strings from low to high, as the shapes count them: E2 A2 D3 G3 B3 E4. */
const OPEN: readonly Midi[] = [40, 45, 50, 55, 59, 64];
