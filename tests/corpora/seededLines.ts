import { harmonyOf, readChart, soundingAt, timelineOf, type Chart } from '@/core/chart';
import type { PlayedNote } from '@/core/analyse';
import { unwrap, modulo, seededRandom, type Random } from '@/core/shared';

/** Forms of every kind the rules speak of: meters, N.C., slash and altered chords, minor and major, blues and vamps. All invented. */
export const SEEDED_CHARTS: readonly string[] = [
  'key: C\n| Dm7 | G7 | Cmaj7 | A7 |',
  'key: Bb\nfeel: blues\n| Bb7 | Eb7 | Bb7 | % | Eb7 | % | Bb7 | G7 | Cm7 | F7 | Bb7 G7 | Cm7 F7 |',
  'key: Fm\n| Fm7 | Gm7b5 C7b9 | Fm6 | Db7 C7alt |',
  'key: Dm\nmeter: 3/4\n| Dm7 | Em7b5 A7 . | Dm7 | N.C. | Gm7 | C7 |',
  'key: G\nmeter: 5/4\n| Gmaj7 | Am7 . . D7 . | Bm7 | E7#9 |',
  'key: Eb\n| Ebmaj7 Cm7 | Fm7 Bb7 | Gm7 C7 | Fm7/Bb Bb7 |',
  'key: A\n| A7 | N.C. | N.C. | D7 | E7 | A7 |',
  'key: C\n| C6 | C/E Ebdim7 | Dm7/G | G7sus4 G13 |',
  'key: Am\nfeel: minor blues\n| Am7 | Dm7 | Am7 | E7#9 |',
  'key: F\nmeter: 6/8\n| F | Dm | Gm | C7 |',
  'key: D\n| Dmaj7 | Em7 A7 | F#m7 B7#5 | Em7 Eb7#11 |',
  'key: C\n| Cmaj7 Bm7b5 E7 Am7 | Dm7 G7 Em7 A7 | Fmaj7 Bb9 Cmaj7 N.C. |',
  'key: Cm\nmeter: 2/4\n| Cm | Ab7 | G7 | Cm/Bb |',
  'key: E\n| E9 |',
  'key: C\n| N.C. | Dm7 | G7 | N.C. |',
];
const TEMPOS = [50, 72, 96, 120, 144, 180, 220, 260, 300];
export type Style = 'bebop' | 'blues' | 'sparse' | 'motifs' | 'outside' | 'doubles' | 'pickups' | 'wild';
export const STYLES: readonly Style[] = [
  'bebop',
  'blues',
  'sparse',
  'motifs',
  'outside',
  'doubles',
  'pickups',
  'wild',
];

export type SeededLine = {
  readonly name: string;
  readonly chart: Chart;
  readonly tempo: number;
  readonly notes: readonly PlayedNote[];
};

/** A line of a style over a form, the same for the same seed. */
export function seededLine(seed: number): SeededLine {
  const random = seededRandom(seed * 7919 + 13);
  const text = SEEDED_CHARTS[seed % SEEDED_CHARTS.length]!;
  const style = STYLES[Math.floor(seed / SEEDED_CHARTS.length) % STYLES.length]!;
  const chart = unwrap(readChart(text));
  const tempo = TEMPOS[Math.floor(random() * TEMPOS.length)]!;
  return {
    name: `${seed} ${style} at ${tempo} over ${text.replace(/\n/g, ' ')}`,
    chart,
    tempo,
    notes: play(chart, tempo, style, random),
  };
}

const chance = (random: Random, share: number): boolean => random() < share;
const pick = <T>(random: Random, from: readonly T[]): T => from[Math.floor(random() * from.length)]!;

function play(chart: Chart, tempo: number, style: Style, random: Random): PlayedNote[] {
  const form = timelineOf(chart, tempo);
  const { readings, homeScales } = harmonyOf(chart, form);
  const beats = form.formBeats * (1 + Math.floor(random() * 2));
  const notes: PlayedNote[] = [];
  let midi = 60 + Math.floor(random() * 8);
  let beat = style === 'pickups' ? -2 + Math.floor(random() * 4) / 2 : 0;
  const groundAt = (at: number) => soundingAt(form, Math.max(0, at)).span.index;
  const near = (pcs: readonly number[], from: number, way: number): number => {
    let to = from + way;
    while (!pcs.includes(modulo(to, 12))) to += Math.sign(way);
    return to;
  };
  const tones = (at: number): number[] =>
    readings[groundAt(at)]?.chord.tones.map((tone) => tone.pc) ?? [...homeScales[groundAt(at)]!.pcs];
  const scale = (at: number): readonly number[] =>
    style === 'blues' && chance(random, 0.5)
      ? homeScales[groundAt(at)]!.pcs
      : (readings[groundAt(at)]?.scale.pcs ?? homeScales[groundAt(at)]!.pcs);
  const put = (length: number, pitch: number, sounds = length) => {
    notes.push({ onsetBeat: beat, durationBeats: sounds, midi: pitch });
    beat += length;
    midi = pitch;
  };
  const keep = (pitch: number): number => {
    if (pitch < 48) return pitch + 12;
    if (pitch > 82) return pitch - 12;
    return pitch;
  };
  let cell: { steps: number[]; lengths: number[] } | null = null;
  while (beat < beats - 1) {
    midi = keep(midi);
    const way = chance(random, 0.5) ? 1 : -1;
    const rests = new Map([
      ['sparse', 0.5],
      ['pickups', 0.25],
    ]);
    if (chance(random, rests.get(style) ?? 0.12)) beat += pick(random, [0.5, 1, 1, 1.5, 2, 3]);
    switch (style) {
      case 'bebop': {
        const what = random();
        if (what < 0.35) for (let n = 0; n < 4; n++) put(0.5, near(scale(beat), midi, way));
        else if (what < 0.55) for (let n = 0; n < 3; n++) put(0.5, near(tones(beat), midi, way));
        else if (what < 0.75) {
          const to = near(tones(beat + 1), midi, way);
          put(0.5, to + (chance(random, 0.5) ? 1 : 2));
          put(0.5, to - 1);
          put(pick(random, [0.5, 1]), to);
        } else if (what < 0.88) {
          const to = near(tones(beat + 1), midi, way * 2);
          put(0.5, to - 2 * way);
          put(0.5, to - way);
          put(0.5, to);
        } else put(0.5, midi + way);
        break;
      }
      case 'blues': {
        if (chance(random, 0.25)) {
          const to = near(tones(beat), midi, way);
          put(Math.min(0.12, (tempo / 60) * 0.06), to - pick(random, [1, 2]));
          put(pick(random, [0.5, 1]), to);
        } else put(pick(random, [1 / 3, 2 / 3, 0.5, 1, 1.5]), near(scale(beat), midi, way));
        break;
      }
      case 'sparse':
        put(
          pick(random, [0.5, 1, 2, 3]),
          near(chance(random, 0.6) ? tones(beat) : scale(beat), midi, way),
          pick(random, [0.5, 1, 2, 2.5, 4]),
        );
        break;
      case 'motifs': {
        cell =
          cell && chance(random, 0.7)
            ? cell
            : {
                steps: [pick(random, [1, 2, -1]), pick(random, [2, -2, 1, -3]), pick(random, [-1, 1, 3])],
                lengths: [0.5, pick(random, [0.5, 1]), 0.5],
              };
        for (const [n, step] of cell.steps.entries())
          put(
            cell.lengths[n]!,
            Math.abs(step) > 2
              ? near(tones(beat), midi, Math.sign(step))
              : near(scale(beat), midi, Math.sign(step)),
          );
        break;
      }
      case 'outside': {
        const shape = pick(random, [
          [0, 4, 7],
          [0, 3, 7],
          [0, 2, 4],
          [0, 5, 3],
        ]);
        for (let n = 0; n < pick(random, [1, 2, 3]); n++) {
          const from = keep(midi + way * pick(random, [1, 1, 3]));
          for (const step of shape) put(0.5, from + step);
          midi = from;
        }
        if (chance(random, 0.7)) put(pick(random, [0.5, 1, 1.5]), near(tones(beat), midi, way));
        break;
      }
      case 'doubles': {
        const [start, length] = [beat, pick(random, [0.5, 1, 1.5])];
        put(length, near(scale(beat), midi, way), length * pick(random, [0.8, 1, 1]));
        if (chance(random, 0.6))
          notes.push({
            onsetBeat: start + (chance(random, 0.3) ? (tempo / 60) * 0.02 : 0),
            durationBeats: length * pick(random, [0.9, 1, 1.4]),
            midi: near(tones(start), midi, -3),
          });
        if (chance(random, 0.2))
          notes.push({ onsetBeat: start, durationBeats: length, midi: near(tones(start), midi, -8) });
        break;
      }
      case 'pickups': {
        for (let n = 0; n < pick(random, [2, 3, 4]); n++)
          put(0.5, chance(random, 0.3) ? midi + way : near(scale(beat + 1), midi, way));
        put(pick(random, [0.5, 1, 2]), near(tones(beat), midi, way));
        break;
      }
      case 'wild':
        put(
          pick(random, [0.25, 1 / 3, 0.5, 0.5, 0.75, 1]),
          keep(midi + Math.floor(random() * 11) - 5),
          pick(random, [0.2, 0.5, 0.5, 1, 1.5]),
        );
        break;
    }
  }
  // a hand: some onsets a little off the grid
  return notes
    .filter(({ onsetBeat }) => onsetBeat < beats)
    .map((note) =>
      chance(random, 0.3) ? { ...note, onsetBeat: note.onsetBeat + (random() - 0.5) * 0.1 } : note,
    )
    .sort((a, b) => a.onsetBeat - b.onsetBeat || a.midi - b.midi);
}
