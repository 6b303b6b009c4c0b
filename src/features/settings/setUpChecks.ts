import type { AudioInputState } from '@/audio/input/audioInput';
import type { Guitar } from '@/ui/instrument';
import type { ListensBy } from '../shell/preferences';

/** What a step of the set-up says of itself: whether it is done, and what that means. */
export type SetUpCheck = { readonly isDone: boolean; readonly words: string };
const done = (words: string): SetUpCheck => ({ isDone: true, words });
const open = (words: string): SetUpCheck => ({ isDone: false, words });

const dBFS = (level: number): string => `${String(Math.round(level)).replace('-', '−')} dBFS`;

/** Levels in dBFS: what is heard at all, and where a loud note should lie (common practice, no source). */
const HEARD = -60;
const [SOFT, LOUD] = [-40, -3];

/** @param highest the loudest that came in since the input was opened; @param clipped how often it was too loud */
export function inputCheck(phase: AudioInputState['phase'], highest: number, clipped: number): SetUpCheck {
  if (phase !== 'open') return open('Listen to the input, then play your loudest chord.');
  if (highest < HEARD)
    return open('Nothing is heard yet. Play your loudest chord; look at volume, lead and gain.');
  if (clipped > 0 || highest > LOUD)
    return open('Too loud: the tops of loud notes are cut off. Turn the gain down and open it again.');
  if (highest < SOFT) return open(`Very quiet, at most ${dBFS(highest)}. Turn the gain up and play again.`);
  return done(`You are heard: your loudest was ${dBFS(highest)}, with room above it.`);
}

export function hearingCheck(hearing: ListensBy | null): SetUpCheck {
  if (hearing === null) return open('Say how you hear the band.');
  return hearing === 'headphones'
    ? done('The band stays out of your microphone. Begin low: ears do not come back.')
    : done(
        'The band comes into the microphone too. It is taken out of the take; keep it well under the guitar.',
      );
}

export function latencyCheck(
  latency: { readonly seconds: number; readonly measured: boolean } | null,
): SetUpCheck {
  if (!latency) return open('Shown once the input is open: what is counted belongs to its device.');
  if (!latency.measured)
    return open('Not measured: every note may be judged a little early or late. It takes half a minute.');
  const ms = (latency.seconds * 1_000).toFixed(0);
  return done(`${ms} ms on the way in and out, taken off every note of this device.`);
}

/** @param inTune the strings that were heard in tune on this visit, from 1 */
export function tuningCheck(inTune: ReadonlySet<number>, strings: number): SetUpCheck {
  if (inTune.size >= strings) return done('Every string is in tune.');
  if (inTune.size === 0) return open('Play the open strings one by one.');
  const left = Array.from({ length: strings }, (_, index) => index + 1).filter(
    (string) => !inTune.has(string),
  );
  return open(`In tune: ${inTune.size} of ${strings}. Still to hear: ${left.join(', ')}.`);
}

export function guitarCheck({ tuning, capo, leftHanded, size }: Guitar): SetUpCheck {
  const strings = tuning.trim().split(/\s+/).length;
  const parts = [
    `${strings} strings`,
    tuning,
    ...(capo > 0 ? [`capo at ${capo}`] : []),
    leftHanded ? 'left-handed' : 'right-handed',
    `${size === 'usual' ? 'a usual' : `a ${size}`} hand`,
  ];
  return done(`${parts.join(', ')}: shapes, tablature and fingerings follow it.`);
}
