import { centsAt, type LabelledTake, type TrueNote } from '../../tests/corpora/line';
import { FRAME_SECONDS, transcribe } from '@/core/transcribe';

/**
 * What the judge learns from: a claim's features, and whether it holds (1), does not (0), or is a matter of
 * opinion (2).
 */
export type Example = { readonly features: Float64Array; readonly label: 0 | 1 | 2 };

const ON_TIME = 0.04;
const NEARLY = 0.075;
const SLACK = 0.008;
const SAME_PITCH = 0.45;
const NEAR_PITCH = 0.75;

/**
 * What may be heard when a true note begins: the pitch to be found, and how far it moves soon after, where
 * either answer will do.
 */
function pitchToHear(
  take: LabelledTake,
  note: TrueNote,
): { pitch: number; low: number; high: number; arrives: number } {
  if (note.slide && note.attack === 'slide')
    return { pitch: note.pitch, low: note.pitch, high: note.pitch, arrives: note.onset };
  const string = take.strings.reduce((best, other) => (cost(other, note) < cost(best, note) ? other : best));
  const at = (seconds: number) =>
    cost(string, note) > 20
      ? note.pitch
      : string.midi + (centsAt(string.curve, note.onset - string.at + seconds) + (take.detune ?? 0)) / 100;
  const pitch = at(note.slide ? 0.035 : 0.05);
  const moving = note.slide ? [at(0), note.pitch] : [pitch, at(0.09)];
  return {
    pitch,
    low: Math.min(...moving),
    high: Math.max(...moving),
    arrives: note.slide ? note.onset + (string.curve?.at(-1)?.[0] ?? 0) : note.onset,
  };
}

const cost = (string: { at: number; midi: number }, note: TrueNote): number =>
  Math.abs(string.at - note.onset) * 1000 + Math.abs(string.midi - note.pitch);

type Wanted = ReturnType<typeof pitchToHear> & { readonly onset: number; readonly settled: number };

/** What a true note makes of a claim at `time` seconds. */
function labelFor(
  time: number,
  midi: number,
  { onset, pitch, settled, low, high, arrives }: Wanted,
): 0 | 1 | 2 {
  const [apart, away] = [Math.abs(time - onset), Math.abs(midi - pitch)];
  if (apart <= ON_TIME && away <= SAME_PITCH) return 1;
  // a moment well before the note, whose look reaches into it, must not be believed
  const nearly = time > onset ? NEARLY : ON_TIME + SLACK;
  if (apart <= nearly && away <= NEAR_PITCH) return 2;
  if (apart <= ON_TIME && midi > low - SAME_PITCH && midi < high + SAME_PITCH) return 2;
  // the arrival of a slide into the note may be believed or not: what follows the glide settles it
  const inGlide = arrives > onset && time > onset && time < arrives + ON_TIME;
  return inGlide && Math.abs(midi - settled) < NEAR_PITCH ? 2 : 0;
}

/** Every claim of a take with its label. */
export function examplesOf(
  take: LabelledTake,
  look: 'first' | 'second',
): { examples: Example[]; reached: number; truth: number } {
  const moments: { frame: number; claims: readonly { midi: number; features: Float64Array }[] }[] = [];
  transcribe(take.samples, take.rate, {
    onClassify: ({ frame }, first, second) =>
      void moments.push({ frame, claims: look === 'first' ? first : second }),
  });
  const wanted = take.truth.map((note) => ({
    onset: note.onset,
    ...pitchToHear(take, note),
    settled: note.pitch,
  }));
  const reached = new Set<number>();
  const examples = moments.flatMap(({ frame, claims }) => {
    const time = frame * FRAME_SECONDS;
    return claims.map((claim): Example => {
      const labels = wanted.map((note) => labelFor(time, claim.midi, note));
      labels.forEach((label, index) => label === 1 && reached.add(index));
      return { features: claim.features, label: labels.includes(1) ? 1 : (Math.max(...labels, 0) as 0 | 2) };
    });
  });
  return { examples, reached: reached.size, truth: take.truth.length };
}
