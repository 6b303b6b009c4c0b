import { defined, modulo } from '../../shared';
import { ladderOf, type Scale } from '../../music';
import type { HarmonicContext } from '../harmonicContext/harmonicContext';
import type { Line } from '../notes/voice';

export type SequenceRun = { readonly first: number; readonly last: number };

/**
 * Sequences: a cell of 2–4 notes stated at least three times, moved each time by one step of the
 * chord-scale, key or home scale.
 * Rule T7.9: a cell of 2–4 notes stated ≥ 3 times, moved each time by one step of the chord-scale, key or
 * home scale, rhythm free. Places in the
 * line, inclusive; those that lie in another one are left out.
 * @param linked is each note linked to the next?
 * @param contexts what lies under each note
 */
export function sequencesOf(
  line: Line,
  linked: readonly boolean[],
  contexts: readonly HarmonicContext[],
): SequenceRun[] {
  const runs: SequenceRun[] = [];
  const climbsOf = climbsOn(line);
  let reached = -1;
  for (let first = 0; first + 2 < line.length; first++) {
    const climb = climbsOf(defined(contexts[first]));
    let last = -1;
    for (let size = 2; size <= 4; size++) {
      if (!linked[first + size - 2]) break;
      for (const steps of climb) last = Math.max(last, longestFrom(steps, linked, first, size));
    }
    if (last <= reached) continue;
    runs.push({ first, last });
    reached = last;
  }
  return runs;
}

/**
 * The last note of a sequence of cells so long from a place on; −1 where there is none. `steps` is the line in
 * steps of one scale.
 */
function longestFrom(steps: Int16Array, linked: readonly boolean[], first: number, size: number): number {
  const moved = (place: number): number => {
    if (place + size >= steps.length || !linked[place + size - 1]) return 0;
    const [from, to] = [steps[place]!, steps[place + size]!];
    return from === FOREIGN || to === FOREIGN ? 0 : to - from;
  };
  const way = moved(first);
  if (way !== 1 && way !== -1) return -1;
  let place = first;
  while (moved(place) === way) place++;
  const statements = Math.floor((place - first) / size) + 1;
  return statements >= 3 ? first + statements * size - 1 : -1;
}

/**
 * The line in steps of every scale that a ground knows it by; grounds whose scales hold the same tones share
 * one.
 */
function climbsOn(line: Line): (context: HarmonicContext) => readonly Int16Array[] {
  const climbs = new Map<string, Int16Array>();
  const climbOf = (scale: Scale): Int16Array => {
    const tones = scale.pcs.join();
    const known = climbs.get(tones);
    if (known) return known;
    const made = stepsUp(line, scale);
    climbs.set(tones, made);
    return made;
  };
  const byContext = new Map<HarmonicContext, readonly Int16Array[]>();
  return (context) => {
    const known = byContext.get(context);
    if (known) return known;
    const { bareScale, keyScale, home } = context;
    const made = [...new Set([bareScale, keyScale, home].map(climbOf))];
    byContext.set(context, made);
    return made;
  };
}

/** A note that is not in the scale. */
const FOREIGN = -0x8000;

/** The notes of a line in steps of a scale, counted from its lowest octave. */
function stepsUp(line: Line, scale: Scale): Int16Array {
  const { places, size } = ladderOf(scale);
  const steps = new Int16Array(line.length);
  for (let at = 0; at < line.length; at++) {
    const { pitch } = line[at]!;
    const place = places[modulo(pitch, 12)]!;
    steps[at] = place < 0 ? FOREIGN : Math.floor(pitch / 12) * size + place;
  }
  return steps;
}
