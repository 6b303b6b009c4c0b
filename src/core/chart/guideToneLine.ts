import { modulo, type Midi, present, defined } from '../shared';
import { guideTones, toneByRole, type Chord, type ChordTone } from '../music';

/** One voice of the thread at a chord. */
export type GuideTone = {
  readonly tone: ChordTone;
  readonly midi: Midi;
  /** Semitones to the same voice at the next chord, the form a loop; null where no chord follows. */
  readonly toNext: number | null;
};

/** Two voices at a chord, the upper first; null over N.C. */
export type GuideToneStop = readonly [GuideTone, GuideTone] | null;

/** Where the thread keeps to: around the middle of a guitar's range. */
const LOWEST: Midi = 50;
const HIGHEST: Midi = 72;

/**
 * Third (or sus note) and seventh (or sixth); a triad has its root beside its third, a power chord root and
 * fifth.
 */
function pairOf(chord: Chord): readonly [ChordTone, ChordTone] {
  const root = defined(chord.tones[0]);
  const third = toneByRole(chord, 'third', 'sus');
  const seventh = toneByRole(chord, 'seventh', 'sixth');
  if (third && seventh) return [third, seventh];
  if (third) return [third, root];
  const guides = guideTones(chord);
  return [guides[1] ?? root, guides[0] ?? root];
}

/**
 * The guide-tone thread: two voices through the form, each change by the smallest moves.
 * At every change the two ways to hand over are compared, the one with the smaller sum is taken; of equals
 * the one with more half steps. Where a voice
 * would leave the register both move by an octave.
 * @returns one stop per chord given
 */
export function guideToneLineOf(chords: readonly (Chord | null)[]): GuideToneStop[] {
  const midis: ([Midi, Midi] | null)[] = [];
  const pairs: ([ChordTone, ChordTone] | null)[] = [];
  let before: readonly [Midi, Midi] | null = null;
  for (const chord of chords) {
    if (!chord) {
      midis.push(null);
      pairs.push(null);
      continue;
    }
    const [a, b] = pairOf(chord);
    const laid: Laid = before ? handOver(before, a, b) : open(a, b);
    let drift: number;
    if (Math.max(...laid.midi) > HIGHEST) drift = -12;
    else if (Math.min(...laid.midi) < LOWEST) drift = 12;
    else drift = 0;
    before = [laid.midi[0] + drift, laid.midi[1] + drift];
    midis.push([before[0], before[1]]);
    pairs.push(laid.tones);
  }
  return chords.map((_, index) => {
    const [own, tones] = [midis[index], pairs[index]];
    const next = midis[(index + 1) % midis.length] ?? null;
    if (!own || !tones) return null;
    const round = index === midis.length - 1;
    const move = (voice: 0 | 1): number | null => {
      if (!next) return null;
      if (round) return roundTo(own, next, voice);
      return next[voice] - own[voice];
    };
    return [
      { tone: tones[0], midi: own[0], toNext: move(0) },
      { tone: tones[1], midi: own[1], toNext: move(1) },
    ] as const;
  });
}

/**
 * From the last chord back to the first: each voice to whichever of its tones is nearer, the other taking the
 * other.
 */
function roundTo(own: readonly [Midi, Midi], first: readonly [Midi, Midi], voice: 0 | 1): number {
  const near = (from: Midi, to: Midi) => modulo(to - from + 5, 12) - 5;
  const straight = Math.abs(near(own[0], first[0])) + Math.abs(near(own[1], first[1]));
  const crossed = Math.abs(near(own[0], first[1])) + Math.abs(near(own[1], first[0]));
  return near(own[voice], straight <= crossed ? first[voice] : first[voice === 0 ? 1 : 0]);
}

type Laid = { midi: [Midi, Midi]; tones: [ChordTone, ChordTone] };

/** The first chord: the voices a sixth or less apart, around the middle. */
function open(a: ChordTone, b: ChordTone): Laid {
  const low = 57 + modulo(b.pc - 57, 12) - (modulo(b.pc - 57, 12) > 6 ? 12 : 0);
  return { midi: [low + (modulo(a.pc - low, 12) || 12), low], tones: [a, b] };
}

function handOver(before: readonly [Midi, Midi], a: ChordTone, b: ChordTone): Laid {
  const near = (from: Midi, tone: ChordTone) => from + modulo(tone.pc - from + 5, 12) - 5;
  const ways: Laid[] = [
    [a, b],
    [b, a],
  ].map(([upper, lower]) => ({
    midi: [near(before[0], present(upper)), near(before[1], present(lower))],
    tones: [present(upper), present(lower)],
  }));
  const cost = ({ midi }: Laid) => {
    const moves = [Math.abs(midi[0] - before[0]), Math.abs(midi[1] - before[1])];
    return (
      defined(moves[0]) +
      defined(moves[1]) -
      0.1 * moves.filter((move) => move === 1).length +
      (midi[0] === midi[1] ? 6 : 0)
    );
  };
  return cost(defined(ways[1])) < cost(defined(ways[0])) ? defined(ways[1]) : defined(ways[0]);
}
