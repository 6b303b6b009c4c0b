import { centsAt, type LabelledTake, type TrueNote } from '../../tests/corpora/line';

import { FRAME_SECONDS } from '@/core/transcribe/frames';

import { Transcriber } from '@/core/transcribe';

/** What the judge learns from: a claim's features, and whether it holds (1), does not (0), or is a matter of opinion (2). */
export type Example = { readonly features: Float64Array; readonly label: 0 | 1 | 2 };

const ON_TIME = 0.04;
const NEARLY = 0.075;
const SAME_PITCH = 0.45;
const NEAR_PITCH = 0.75;

/** Where a true note's pitch stands when it is asked for: past the pick, or at the arrival of a slide. */
function pitchToHear(take: LabelledTake, note: TrueNote): number {
  if (note.slide) return note.pitch;
  const string = take.strings.reduce((best, other) => (cost(other, note) < cost(best, note) ? other : best));
  if (cost(string, note) > 20) return note.pitch;
  return string.midi + (centsAt(string.curve, note.onset - string.at + 0.05) + (take.detune ?? 0)) / 100;
}

const cost = (string: { at: number; midi: number }, note: TrueNote): number => Math.abs(string.at - note.onset) * 1000 + Math.abs(string.midi - note.pitch);

/** Every claim of a take with its label. */
export function examplesOf(take: LabelledTake): { examples: Example[]; reached: number; truth: number } {
  const transcriber = new Transcriber(take.rate);
  transcriber.push(take.samples);
  const moments = transcriber.finishWithClaims();
  const wanted = take.truth.map((note) => ({ onset: note.onset, pitch: pitchToHear(take, note), settled: note.pitch }));
  const reached = new Set<number>();
  const examples = moments.flatMap(({ moment, claims }) => {
    const time = moment.frame * FRAME_SECONDS;
    return claims.map((claim): Example => {
      let label: 0 | 1 | 2 = 0;
      wanted.forEach(({ onset, pitch, settled }, index) => {
        const [late, away] = [Math.abs(time - onset), Math.abs(claim.midi - pitch)];
        if (late <= ON_TIME && away <= SAME_PITCH) {
          label = 1;
          reached.add(index);
        } else if (label === 0 && late <= NEARLY && (away <= NEAR_PITCH || (late <= ON_TIME && Math.abs(claim.midi - settled) <= NEAR_PITCH))) label = 2;
      });
      return { features: claim.features, label };
    });
  });
  return { examples, reached: reached.size, truth: take.truth.length };
}

