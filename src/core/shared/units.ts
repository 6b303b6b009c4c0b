/**
 * The units every room of the core speaks in. A number never travels without one of these names,
 * so that beats are not taken for seconds nor a MIDI number for a frequency.
 */

/** Frequency in hertz. */
export type Hz = number;
/**
 * Pitch as a MIDI note number; 69 = A4 = 440 Hz (ISO 16, MIDI Tuning; T1.4); the fraction is in hundredths:
 * cents.
 */
export type Midi = number;
/** Hundredths of an equal-tempered semitone. */
export type Cents = number;
/** Performed time in seconds. */
export type Seconds = number;
/** Performed or written time in beats from bar 1 of the first chorus; negative before it. */
export type Beats = number;
/** A count of audio samples, or a position in them. */
export type Samples = number;
/** Level in decibels; the reference is named where the value is made. */
export type Decibels = number;
/** Beats a minute. */
export type BeatsPerMinute = number;
/** Pitch class 0–11, 0 = C. */
export type PitchClass = number;
/** A distance in equal-tempered semitones, signed. */
export type Semitones = number;

/** The remainder that is never negative. */
export const modulo = (value: number, by: number): number => ((value % by) + by) % by;

/** The pitch class of a (possibly fractional) MIDI number, by its nearest semitone. */
export const pitchClassOf = (midi: Midi): PitchClass => modulo(Math.round(midi), 12);

/** Equal temperament: MIDI number of a frequency against a reference A4 (MIDI Tuning, ISO 16). */
export const hzToMidi = (hz: Hz, a4: Hz = 440): Midi => 69 + 12 * Math.log2(hz / a4);

/** Equal temperament: frequency of a MIDI number against a reference A4. */
export const midiToHz = (midi: Midi, a4: Hz = 440): Hz => a4 * 2 ** ((midi - 69) / 12);

/** Seconds that a stretch of beats lasts at a steady tempo. */
export const beatsToSeconds = (beats: Beats, tempo: BeatsPerMinute): Seconds => (beats * 60) / tempo;

/** Beats that a stretch of seconds fills at a steady tempo. */
export const secondsToBeats = (seconds: Seconds, tempo: BeatsPerMinute): Beats => (seconds * tempo) / 60;

/** The value under which a quarter of them lie, between neighbours by the line that joins them; null of none. */
export function lowerQuartile(values: readonly number[]): number | null {
  const sorted = [...values].sort((a, b) => a - b);
  const at = (sorted.length - 1) / 4;
  const [low, high] = [sorted[Math.floor(at)], sorted[Math.ceil(at)]];
  return low === undefined || high === undefined ? null : low + (at - Math.floor(at)) * (high - low);
}

/** The middle value; the mean of the two middle ones for an even count; null of nothing. */
export function median(values: readonly number[]): number | null {
  if (values.length === 0) return null;
  const own = new Float64Array(values);
  const middle = own.length >> 1;
  const upper = nthSmallest(own, middle);
  if (own.length % 2) return upper;
  // what lies before the middle is no greater than it
  let lower = -Infinity;
  for (let at = 0; at < middle; at++) lower = Math.max(lower, own[at]!);
  return (lower + upper) / 2;
}

/** Hoare's selection (Communications of the ACM 4, 1961): values are moved until the nth, from 0, is in its place. */
function nthSmallest(values: Float64Array, nth: number): number {
  let [left, right] = [0, values.length - 1];
  while (left < right) {
    const pivot = values[nth]!;
    let [low, high] = [left, right];
    while (low <= high) {
      while (values[low]! < pivot) low++;
      while (values[high]! > pivot) high--;
      if (low > high) break;
      const swapped = values[low]!;
      values[low++] = values[high]!;
      values[high--] = swapped;
    }
    if (high < nth) left = low;
    if (low > nth) right = high;
  }
  return values[nth]!;
}
