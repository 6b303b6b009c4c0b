import { centsAt, type LabelledTake, type TrueNote } from '../corpora/line';
import type { HeardNote } from '@/core/transcribe';
import { matchNotes } from './notes';

/** A note as any transcriber reports it; pitch as a MIDI number with its fraction. */
export type ReportedNote = {
  readonly onset: number;
  readonly offset?: number;
  readonly pitch: number;
  readonly bend?: number;
  readonly slide?: boolean;
  readonly vibrato?: boolean;
};

/** What our own ears say, in the scorer's words. */
export const reported = (notes: readonly HeardNote[]): ReportedNote[] =>
  notes.map((note) => ({
    onset: note.onsetSec,
    offset: note.offsetSec,
    pitch: note.midi + note.cents / 100,
  }));

/** Counts that can be added over takes. */
export class Tally {
  truth = 0;
  heard = 0;
  matched = 0;
  /** Reported notes whose only fault is an octave. */
  octaves = 0;
  ghosts = 0;
  ghostsHeard = 0;
  readonly onsetErrors: number[] = [];
  readonly centErrors: number[] = [];
  seconds = 0;
  spent = 0;

  get precision(): number {
    return this.heard ? this.matched / this.heard : 1;
  }
  get recall(): number {
    return this.truth ? this.matched / this.truth : 1;
  }
  get f1(): number {
    return this.heard + this.truth ? (2 * this.matched) / (this.heard + this.truth) : 1;
  }

  add(take: LabelledTake, notes: readonly ReportedNote[], spentSeconds: number): readonly [number, number][] {
    const pairs = matchNotes(take.truth, notes);
    this.truth += take.truth.length;
    this.heard += notes.length;
    this.matched += pairs.length;
    this.seconds += take.seconds;
    this.spent += spentSeconds;
    const [foundTruth, usedHeard] = [
      new Set(pairs.map(([truth]) => truth)),
      new Set(pairs.map(([, heard]) => heard)),
    ];
    for (const [truth, heard] of pairs) {
      this.onsetErrors.push(Math.abs(notes[heard]!.onset - take.truth[truth]!.onset));
      this.centErrors.push(100 * Math.abs(notes[heard]!.pitch - take.truth[truth]!.pitch));
    }
    this.octaves += notes.filter(
      (note, index) =>
        !usedHeard.has(index) &&
        take.truth.some((truth, at) => !foundTruth.has(at) && isOctaveOff(truth, note)),
    ).length;
    this.ghosts += take.ghosts.length;
    this.ghostsHeard += take.ghosts.filter((at) =>
      notes.some((note, index) => !usedHeard.has(index) && Math.abs(note.onset - at) < 0.05),
    ).length;
    return pairs;
  }
}

const isOctaveOff = (truth: TrueNote, note: ReportedNote): boolean => {
  const apart = Math.abs(truth.pitch - note.pitch);
  return (
    Math.abs(truth.onset - note.onset) <= 0.05 &&
    apart > 1 &&
    Math.abs(apart - 12 * Math.round(apart / 12)) <= 0.5
  );
};

export function quantile(values: readonly number[], share: number): number {
  const sorted = [...values].sort((a, b) => a - b);
  return sorted[Math.min(sorted.length - 1, Math.floor(share * sorted.length))] ?? NaN;
}

/** Frames of a single line: how many of those that sound were asked, were right within 50 cents, and were right but for an octave. */
export type FrameCount = { asked: number; right: number; octaves: number };

/**
 * Raw pitch accuracy as in MIREX melody extraction (Poliner et al., IEEE TASLP 2007): every frame in which a string is held, 30 ms past
 * its attack and 10 ms before its end, against the pitch its curve stands at. What is reported without a pitch counts as wrong.
 * @param track MIDI numbers every `hop` seconds from 0, NaN for none
 */
export function countFrames(take: LabelledTake, track: Float64Array, hop: number, count: FrameCount): void {
  const held = take.strings.filter(({ attack }) => attack !== 'ghost');
  held.forEach((string, index) => {
    const next = held[index + 1];
    const until = Math.min(string.until, next?.at ?? Infinity) - 0.01;
    for (
      let frame = Math.ceil((string.at + 0.03) / hop);
      frame * hop < until && frame < track.length;
      frame++
    ) {
      const pitch = string.midi + (centsAt(string.curve, frame * hop - string.at) + (take.detune ?? 0)) / 100;
      const away = Math.abs(track[frame]! - pitch);
      count.asked++;
      if (away <= 0.5) count.right++;
      else if (Math.abs(away - 12 * Math.round(away / 12)) <= 0.5 && away > 6) count.octaves++;
    }
  });
}
