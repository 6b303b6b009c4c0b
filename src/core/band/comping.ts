import { modulo, pick, type Midi, type Random } from '../vocabulary';
import { isDominant, rootPc, type Chord } from '../music';
import type { BandEvent } from './events';
import { offBeat, type BandFeel } from './feel';
import { barsOf, chordAt, type Tune } from './walk';

/** Where the right hand of a keyboard lies. */
const LOWEST: Midi = 52;
const HIGHEST: Midi = 74;

/** Rhythms for a bar of four: beat (`+` half a beat later, by the feel) and length. Common practice, no source. */
const RHYTHMS: Record<BandFeel, readonly (readonly (readonly [number, 0 | 1, number])[])[]> = {
  swing: [[[0, 0, 0.7], [1, 1, 0.4]], [[1, 1, 0.4], [3, 1, 0.5]], [[0, 1, 0.4], [2, 1, 1.2]], [[0, 0, 1.6]], [[1, 0, 0.5], [2, 1, 0.5]]],
  straight: [[[0, 0, 1.4], [1, 1, 0.4], [2, 1, 1.2]], [[0, 0, 1.8], [2, 0, 1.8]], [[0, 0, 0.9], [1, 1, 0.9], [3, 0, 0.9]]],
  shuffle: [[[1, 0, 0.3], [3, 0, 0.3]], [[0, 0, 0.5], [1, 1, 0.4], [3, 0, 0.3]], [[0, 1, 0.3], [1, 1, 0.3], [2, 1, 0.3]]],
};

type Hit = { readonly beat: number; readonly beats: number; readonly loudness: number };

/** Voice-led chords under a rhythm that varies by the seed. Each chord sounds at least once while it lasts. */
export function comping(tune: Tune, feel: BandFeel, random: Random): BandEvent[] {
  const late = offBeat(feel, tune.timeline.tempo);
  const events: BandEvent[] = [];
  let hand: readonly Midi[] = [57, 60, 64, 67];
  for (const bar of barsOf(tune)) {
    const rhythm = pick(random, RHYTHMS[feel]).map(([beat, off, beats]) => ({ beat: bar.start + beat + (off ? late : 0), beats, loudness: 0.62 }));
    const hits = withEveryChord(tune, bar, rhythm.filter(({ beat }) => beat < bar.end - 1e-6));
    for (const { beat, beats, loudness } of hits) {
      const chord = chordAt(tune, beat);
      if (!chord) continue;
      hand = voiceLed(chord, hand);
      for (const midi of hand) events.push({ part: 'chords', beat, beats, midi, loudness: loudness * (0.94 + 0.06 * random()) });
    }
  }
  return events;
}

/** A chord that the rhythm would pass over is struck where it begins. */
function withEveryChord({ timeline }: Tune, bar: { start: number; end: number; index: number }, rhythm: readonly Hit[]): Hit[] {
  const offset = bar.start - timeline.bars[bar.index]!.start;
  const missed = timeline.stretches.filter(({ bar: own, start, end }) =>
    own === bar.index && !rhythm.some(({ beat }) => beat - offset >= start - 1e-6 && beat - offset < end - 1e-6));
  const added = missed.map(({ start, end }) => ({ beat: start + offset, beats: Math.min(0.8, end - start), loudness: 0.55 }));
  return [...rhythm, ...added].sort((a, b) => a.beat - b.beat);
}

/** The tones worth playing: third and seventh first, then a colour or the fifth; the bass has the root. */
function voicingTones(chord: Chord): number[] {
  const root = rootPc(chord);
  const own = chord.tones.filter((tone) => tone.role !== 'root' && tone.role !== 'bass').map((tone) => tone.pc);
  const colours = chord.colours.map((tone) => tone.pc);
  const plain = own.length < 3 && !isDominant(chord) ? [root] : [];
  return [...new Set([...own, ...colours, ...plain])].slice(0, 4);
}

/** Each tone as near as it can be to where a finger already is; voices move by less than an octave. */
export function voiceLed(chord: Chord, hand: readonly Midi[]): Midi[] {
  const centre = hand.reduce((sum, midi) => sum + midi, 0) / Math.max(1, hand.length);
  const middle = Math.max(LOWEST + 8, Math.min(HIGHEST - 8, centre));
  const placed = voicingTones(chord).map((pc) => {
    const near = [...hand].sort((a, b) => Math.abs(modulo(a - pc + 6, 12) - 6) - Math.abs(modulo(b - pc + 6, 12) - 6))[0] ?? middle;
    const around = (near + middle) / 2;
    const midi = Math.round(around) - modulo(Math.round(around) - pc, 12);
    const best = around - midi <= 6 ? midi : midi + 12;
    return best < LOWEST ? best + 12 : best > HIGHEST ? best - 12 : best;
  });
  return [...new Set(placed)].sort((a, b) => a - b);
}
