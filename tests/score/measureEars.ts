import { transcribe, Transcriber } from '@/core/transcribe';
import { CHORDAL, type LineKind } from '../corpora/lines';
import { CONDITIONS, isSingleLine, recordedTake, soundfontTake, type Condition } from '../corpora/conditions';
import { HELD_OUT_CONDITIONS, HELD_OUT_INSTRUMENTS, heldOutTake } from '../corpora/heldOutSet';
import { BEDROOM, bedroomTake } from '../corpora/bedroomSet';
import { loadGuitar, type Instrument } from '../corpora/guitarSamples';
import type { LabelledTake, TrueNote } from '../corpora/line';
import type { PROGRAMS } from '../corpora/soundfontSet';
import { matchNotes } from './notes';
import { countFrames, reported, Tally, type FrameCount } from './evaluate';

// The ears on takes kept for deciding, one set a run: prints what was measured as JSON. A program of its own, since a test runner's
// sandbox slows arithmetic down several times.
const INSTRUMENTS: readonly Instrument[] = ['acoustic', 'electric', 'nylon'];
const PROGRAM_NAMES: readonly (keyof typeof PROGRAMS)[] = ['nylonString', 'steelString', 'jazz', 'clean'];

/** Lines that are about what the hand does to a note. */
const GESTURES: readonly LineKind[] = ['bends', 'slides', 'vibrato'];

type Gesture = 'bend' | 'slide' | 'vibrato';
type Outcome = {
  byCondition: Map<string, Tally>;
  frames: FrameCount;
  gestures: Record<Gesture, { truth: number; heard: number; both: number }>;
  /** Single lines, where a note is right only if it ends right. */ ends: {
    truth: number;
    heard: number;
    both: number;
  };
  bendErrors: number[];
};
const blank = (): Outcome => ({
  byCondition: new Map(),
  frames: { asked: 0, right: 0, octaves: 0 },
  gestures: {
    bend: { truth: 0, heard: 0, both: 0 },
    slide: { truth: 0, heard: 0, both: 0 },
    vibrato: { truth: 0, heard: 0, both: 0 },
  },
  ends: { truth: 0, heard: 0, both: 0 },
  bendErrors: [],
});

function hear(take: LabelledTake, condition: Condition, outcome: Outcome, framesCount: boolean): void {
  const started = performance.now();
  const transcriber = new Transcriber(
    take.rate,
    take.backing ? { backing: { samples: take.backing, rate: take.rate } } : {},
  );
  transcriber.push(take.samples);
  const {
    transcription: { notes },
    track,
    frameSeconds,
  } = transcriber.finishWithTrack();
  const tally = outcome.byCondition.get(condition.name) ?? new Tally();
  outcome.byCondition.set(condition.name, tally);
  const pairs = tally.add(take, reported(notes), (performance.now() - started) / 1000);
  if (framesCount)
    countFrames({ ...take, detune: condition.detune ?? 0 }, track, frameSeconds, outcome.frames);
  if (!isSingleLine(condition)) return;
  outcome.ends.truth += take.truth.length;
  outcome.ends.heard += notes.length;
  outcome.ends.both += matchNotes(take.truth, reported(notes), true).length;
  for (const kind of ['bend', 'slide', 'vibrato'] as const) {
    const count = outcome.gestures[kind];
    count.truth += take.truth.filter((note) => note[kind]).length;
    count.heard += notes.filter((note) => note[kind]).length;
    for (const [truth, heard] of pairs) if (take.truth[truth]![kind] && notes[heard]![kind]) count.both++;
  }
  for (const [truth, heard] of pairs)
    if (take.truth[truth]!.bend && notes[heard]!.bend)
      outcome.bendErrors.push(Math.abs(reach(notes[heard]!.bend!) - amount(take.truth[truth]!)));
}

const reach = (bend: readonly (readonly [number, number])[]): number =>
  Math.max(...bend.map(([, cents]) => cents)) - Math.min(...bend.map(([, cents]) => cents));
const amount = (note: TrueNote): number => note.bend!.cents;

/** All in per cent; `lowest` the single-line conditions from the worst up. */
export type Measured = {
  mean: number;
  worst: number;
  dyads: number;
  stabs: number;
  ghosts: number;
  bleed: number;
  frames: number;
  octaves: number;
  gestures: number;
  bend: number;
  slide: number;
  vibrato: number;
  bendWithin: number;
  ends: number;
  speed: number;
  lowest: string;
};

function measured(outcome: Outcome): Measured {
  const f1 = (name: string) => 100 * outcome.byCondition.get(name)!.f1;
  const single = CONDITIONS.filter(isSingleLine)
    .map(({ name }): [number, string] => [f1(name), name])
    .sort(([a], [b]) => a - b);
  const ghosts = outcome.byCondition.get('ghosts')!;
  const f1Of = (counts: { truth: number; heard: number; both: number }[]) =>
    (200 * counts.reduce((sum, { both }) => sum + both, 0)) /
    counts.reduce((sum, { truth, heard }) => sum + truth + heard, 0);
  const { bend, slide, vibrato } = outcome.gestures;
  const { asked, right, octaves } = outcome.frames;
  const tallies = [...outcome.byCondition.values()];
  return {
    mean: single.reduce((sum, [value]) => sum + value, 0) / single.length,
    worst: single[0]![0],
    dyads: f1('dyads'),
    stabs: f1('stabs'),
    ghosts: (100 * ghosts.ghostsHeard) / ghosts.ghosts,
    bleed: f1('plucked') - f1('band given'),
    frames: (100 * right) / asked,
    octaves: (100 * octaves) / asked,
    gestures: f1Of([bend, slide, vibrato]),
    bend: f1Of([bend]),
    slide: f1Of([slide]),
    vibrato: f1Of([vibrato]),
    bendWithin: (100 * outcome.bendErrors.filter((error) => error <= 20).length) / outcome.bendErrors.length,
    ends: f1Of([outcome.ends]),
    speed:
      tallies.reduce((sum, { seconds }) => sum + seconds, 0) /
      tallies.reduce((sum, { spent }) => sum + spent, 0),
    lowest: single
      .slice(0, 4)
      .map(([value, name]) => `${name} ${value.toFixed(1)}`)
      .join(', '),
  };
}

/** Where strings are let ring several sound at once: a single pitch a frame says nothing there. */
const hasOnePitch = (condition: Condition): boolean =>
  isSingleLine(condition) && condition.kind !== 'ringing';

const guitarsToDecide = () =>
  Promise.all(
    INSTRUMENTS.map(async (name) => (await loadGuitar(name)).filter(({ share }) => share === 'decide')),
  );

/** Note F1 of each condition of the bedroom in per cent, and the share of raked strokes taken for notes. */
export type BedroomMeasured = { readonly f1: Record<string, number>; readonly rakes: number };

async function bedroom(): Promise<BedroomMeasured> {
  const guitars = await guitarsToDecide();
  const tallies = BEDROOM.map((condition, index): [string, Tally] => {
    const tally = new Tally();
    // two of the three guitars each, in turn
    for (const turn of [0, 1]) {
      const take = bedroomTake(condition, guitars[(index + turn) % 3]!, 9301 + index + 100 * turn);
      tally.add(take, reported(transcribe(take.samples, take.rate).notes), 1);
    }
    return [condition.name, tally];
  });
  const rakes = new Map(tallies).get('rakes')!;
  return {
    f1: Object.fromEntries(tallies.map(([name, { f1 }]) => [name, 100 * f1])),
    rakes: (100 * rakes.ghostsHeard) / rakes.ghosts,
  };
}

/** Instruments and effects the fit heard nothing of: means in per cent, and how far a confidence is off on average, in points. */
export type HeldOutMeasured = {
  readonly f1: Record<string, number>;
  readonly single: number;
  readonly calibrationError: number;
};

function heldOut(): HeldOutMeasured {
  const said: { confidence: number; isRight: boolean }[] = [];
  const tallies = HELD_OUT_CONDITIONS.map((condition, index): [string, LineKind, Tally] => {
    const tally = new Tally();
    // two of the six instruments each, in turn
    for (const turn of [0, 3]) {
      const take = heldOutTake(
        condition,
        HELD_OUT_INSTRUMENTS[(index + turn) % 6]!,
        9501 + index + 100 * turn,
      );
      const { notes } = transcribe(take.samples, take.rate);
      const right = new Set(tally.add(take, reported(notes), 1).map(([, heard]) => heard));
      notes.forEach(({ confidence }, at) => said.push({ confidence, isRight: right.has(at) }));
    }
    return [condition.name, condition.kind, tally];
  });
  const single = tallies.filter(([, kind]) => !CHORDAL.includes(kind)).map(([, , { f1 }]) => 100 * f1);
  return {
    f1: Object.fromEntries(tallies.map(([name, , { f1 }]) => [name, 100 * f1])),
    single: single.reduce((sum, value) => sum + value, 0) / single.length,
    calibrationError: calibrationError(said),
  };
}

/** Expected calibration error (Naeini, Cooper and Hauskrecht, AAAI 2015), in points; bins as a player reads them. */
function calibrationError(said: readonly { confidence: number; isRight: boolean }[]): number {
  const edges = [0, 0.6, 0.7, 0.8, 0.9, 0.95, 0.99, 0.999, 1.001];
  return edges.slice(1).reduce((sum, edge, index) => {
    const bin = said.filter(({ confidence }) => confidence >= edges[index]! && confidence < edge);
    const off = bin.reduce((total, { confidence, isRight }) => total + confidence - (isRight ? 1 : 0), 0);
    return sum + (100 * Math.abs(off)) / said.length;
  }, 0);
}

const outcome = blank();
if (process.argv[2] === 'heldOut') {
  process.stdout.write(JSON.stringify(heldOut()));
  process.exit();
}
if (process.argv[2] === 'bedroom') {
  process.stdout.write(JSON.stringify(await bedroom()));
  process.exit();
}
if (process.argv[2] === 'recorded') {
  const guitars = await guitarsToDecide();
  CONDITIONS.forEach((condition, turn) => {
    // two of the three guitars each, in turn: the table of `npm run bench` has all three
    for (const index of [turn % guitars.length, (turn + 1) % guitars.length])
      hear(
        recordedTake(condition, guitars[index]!, 9001 + 100 * index),
        condition,
        outcome,
        hasOnePitch(condition),
      );
  });
} else {
  // the steel and nylon strings of this soundfont ring on for a second after they are let go: several pitches at once
  CONDITIONS.forEach((condition, turn) => {
    // two of the four programs each, in turn; the few gestures of a take are counted over all four
    for (const index of GESTURES.includes(condition.kind) ? [0, 1, 2, 3] : [turn % 2, (turn % 2) + 2]) {
      const name = PROGRAM_NAMES[index]!;
      hear(
        soundfontTake(condition, name, 9001 + 100 * index),
        condition,
        outcome,
        hasOnePitch(condition) && (name === 'jazz' || name === 'clean'),
      );
    }
  });
}
process.stdout.write(JSON.stringify(measured(outcome)));
