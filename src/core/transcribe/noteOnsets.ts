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

const BELIEVED = 0.5;
/** Less than this counts for nothing, however often it is said. */
const POSSIBLE = 0.1;
/** Where the band strikes too, what is left of it must not be taken for the player. */
const BELIEVED_BESIDE_BAND = 0.95;
const TOGETHER = framesOf(0.036);
const SAME_NOTE = framesOf(0.055);
const SAME_PITCH: Midi = 0.75;
/** Above a surer note these are its own partials, unless they are all but certain. */
const PARTIALS: readonly Midi[] = [19, 24];
const BELIEVED_AS_PARTIAL = 0.95;

/** Each note that may have begun once, as it is taken where it is, and else with the most that is believed of it. */
function eachOnce(
  judged: readonly JudgedCandidate[],
  isTaken: (start: StartingNote) => boolean,
): StartingNote[] {
  const all = judged
    .flatMap(({ onsetCandidate: { frame, kind }, pitchCandidates }) =>
      pitchCandidates
        .filter(({ belief }) => belief >= POSSIBLE)
        .map(({ midi, belief }): StartingNote => ({ frame, midi, belief, kind })),
    )
    .sort((a, b) => Number(isTaken(b)) - Number(isTaken(a)) || b.belief - a.belief);
  const kept: StartingNote[] = [];
  for (const start of all)
    if (
      !kept.some(
        (other) =>
          Math.abs(other.frame - start.frame) <= SAME_NOTE && Math.abs(other.midi - start.midi) < SAME_PITCH,
      )
    )
      kept.push(start);
  return kept;
}

/** How many notes are to be expected among what was not believed: the sum of what was believed of each. */
export type LeftOut = { readonly frame: number; readonly belief: number };

/**
 * The claims that are believed, each note once, gathered into strikes in order of time; and what was left out.
 * @param bandOnsets frames at which a known band strikes
 */
export function noteOnsetsOf(
  judged: readonly JudgedCandidate[],
  bandOnsets: ReadonlySet<number> = new Set(),
): { noteOnsets: NoteOnset[]; leftOut: LeftOut[] } {
  const isBelieved = ({ frame, belief }: StartingNote) =>
    belief >= (bandOnsets.has(frame) ? BELIEVED_BESIDE_BAND : BELIEVED);
  const all = eachOnce(judged, isBelieved);
  const kept = all.filter(isBelieved).sort((a, b) => a.frame - b.frame || a.midi - b.midi);
  const noteOnsets: { frame: number; starts: StartingNote[] }[] = [];
  for (const start of kept) {
    const last = noteOnsets.at(-1);
    if (last && start.frame - last.frame <= TOGETHER) last.starts.push(start);
    else noteOnsets.push({ frame: start.frame, starts: [start] });
  }
  return {
    noteOnsets: noteOnsets.map(({ frame, starts }) => ({ frame, starts: withoutPartials(starts) })),
    leftOut: all.filter((start) => !isBelieved(start)),
  };
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
