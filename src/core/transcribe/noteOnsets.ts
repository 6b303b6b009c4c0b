import type { Midi } from '../shared';
import { framesOf } from './frames';
import type { OnsetCandidate } from './onsetCandidates';

/** A claim with the judge's belief in it. */
export type JudgedCandidate = {
  readonly onsetCandidate: OnsetCandidate;
  readonly pitchCandidates: readonly { readonly midi: Midi; readonly belief: number }[];
};

/** One note that begins. */
export type StartingNote = {
  readonly frame: number;
  readonly midi: Midi;
  readonly belief: number;
  readonly kind: OnsetCandidate['kind'];
  /** Where it set out from, where two claims of one slide were made one. */ readonly from?: Midi;
};

/** What begins together: one note, or several strings struck at once. In order of pitch. */
export type NoteOnset = { readonly frame: number; readonly starts: readonly StartingNote[] };

const BELIEVED = 0.6;
/** Where the band strikes too, what is left of it must not be taken for the player. */
const BELIEVED_BESIDE_BAND = 0.95;
const TOGETHER = framesOf(0.036);
const SAME_NOTE = framesOf(0.055);
const SAME_PITCH: Midi = 0.75;
/** Above a surer note these are its own partials, unless they are all but certain. */
const PARTIALS: readonly Midi[] = [19, 24];
const BELIEVED_AS_PARTIAL = 0.95;

/**
 * The claims that are believed, each note once, gathered into strikes in order of time.
 * @param bandOnsets frames at which a known band strikes
 */
export function noteOnsetsOf(
  judged: readonly JudgedCandidate[],
  bandOnsets: ReadonlySet<number> = new Set(),
): NoteOnset[] {
  const least = (frame: number) => (bandOnsets.has(frame) ? BELIEVED_BESIDE_BAND : BELIEVED);
  const believed = judged
    .flatMap(({ onsetCandidate: moment, pitchCandidates: claims }) =>
      claims
        .filter(({ belief }) => belief >= least(moment.frame))
        .map(({ midi, belief }): StartingNote => ({ frame: moment.frame, midi, belief, kind: moment.kind })),
    )
    .sort((a, b) => b.belief - a.belief);
  const kept: StartingNote[] = [];
  for (const start of believed)
    if (
      !kept.some(
        (other) =>
          Math.abs(other.frame - start.frame) <= SAME_NOTE && Math.abs(other.midi - start.midi) < SAME_PITCH,
      )
    )
      kept.push(start);
  kept.sort((a, b) => a.frame - b.frame || a.midi - b.midi);
  const noteOnsets: { frame: number; starts: StartingNote[] }[] = [];
  for (const start of kept) {
    const last = noteOnsets.at(-1);
    if (last && start.frame - last.frame <= TOGETHER) last.starts.push(start);
    else noteOnsets.push({ frame: start.frame, starts: [start] });
  }
  return noteOnsets.map(({ frame, starts }) => ({ frame, starts: withoutPartials(starts) }));
}

/** A twelfth or two octaves over a string struck with it is what the pick leaves of that string. */
const withoutPartials = (starts: readonly StartingNote[]): StartingNote[] =>
  starts.filter(
    ({ midi, belief }) =>
      belief >= BELIEVED_AS_PARTIAL ||
      !starts.some(
        (other) =>
          other.belief > belief && PARTIALS.some((above) => Math.abs(midi - other.midi - above) < SAME_PITCH),
      ),
  );
