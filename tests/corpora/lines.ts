import { gaussian, pick, seededRandom, type Random } from '@/core/shared';
import type { Line, StringNote, TrueNote } from './line';

export type LineKind = keyof typeof KINDS;
type Range = { readonly lowest: number; readonly highest: number };
type Writer = {
  readonly random: Random;
  readonly strings: StringNote[];
  readonly truth: TrueNote[];
  readonly ghosts: number[];
  at: number;
  midi: number;
  readonly range: Range;
};

/** The lines of the proving ground. Each is invented; what it asks of an ear is in its name. */
const KINDS = {
  plucked: line({ gaps: [0.25, 0.3, 0.5] }),
  swing: line({ gaps: [0.2, 0.12], alternate: true }),
  fast: line({ gaps: [0.0833], range: { lowest: 48, highest: 79 } }),
  low: line({ gaps: [0.3, 0.4], range: { lowest: 40, highest: 55 } }),
  high: line({ gaps: [0.2, 0.3], range: { lowest: 67, highest: 88 } }),
  repeated: line({ gaps: [0.16, 0.25, 0.35], repeat: 0.45 }),
  ringing: line({ gaps: [0.2, 0.3], ring: 0.7 }),
  legato,
  slides,
  bends,
  vibrato,
  ghosts,
  staccato: line({ gaps: [0.2, 0.3, 0.45], short: 0.5 }),
  dyads: chords(2),
  stabs: chords(3),
  mixed: chords(2, 0.3),
  // what a bedroom adds: riffs of fifths, thirds and sixths that go with a drive, strokes as fast as the hand allows
  power: together([[7], [7, 5], [7], [12], [7, 5]], { lowest: 38, highest: 57 }),
  doubles: together([[3], [4], [5], [8], [9], [7]], { lowest: 50, highest: 74 }),
  tremolo: line({ gaps: [0.075, 0.09, 0.11], repeat: 0.88 }),
  pairs: line({ gaps: [0.045, 0.35, 0.07, 0.4, 0.1, 0.3], alternate: true }),
  rakes,
} satisfies Record<string, (writer: Writer) => void>;

/** Kinds with several notes at once. */
export const CHORDAL: readonly LineKind[] = ['dyads', 'stabs', 'mixed', 'power', 'doubles'];
/** Kinds that come with what a bedroom adds; the others are `LINE_KINDS`. */
export const BEDROOM_KINDS: readonly LineKind[] = ['power', 'doubles', 'tremolo', 'pairs', 'rakes'];
export const LINE_KINDS = (Object.keys(KINDS) as LineKind[]).filter((kind) => !BEDROOM_KINDS.includes(kind));

/**
 * One seeded line of a kind.
 * @param range lowest and highest fretted pitch of the instrument it is for
 */
export function writeLine(kind: LineKind, seed: number, range: Range = { lowest: 43, highest: 81 }): Line {
  const random = seededRandom(seed * 7919 + kind.length * 104729);
  const writer: Writer = {
    random,
    strings: [],
    truth: [],
    ghosts: [],
    at: 0.3,
    midi: Math.round((range.lowest + range.highest) / 2),
    range,
  };
  KINDS[kind](writer);
  const truth = [...writer.truth].sort((a, b) => a.onset - b.onset || a.pitch - b.pitch);
  return {
    strings: [...writer.strings].sort((a, b) => a.at - b.at),
    truth,
    ghosts: writer.ghosts,
    seconds: writer.at + 1.2,
  };
}

const NOTES = 26;
const humanTiming = (random: Random): number => 1 + 0.03 * gaussian(random);
const humanLevel = (random: Random): number => 10 ** ((gaussian(random) * 2.5) / 20);

/** The next pitch: mostly near, as lines move, kept in range. */
function walk({ random, midi, range }: Writer): number {
  for (let tries = 0; tries < 50; tries++) {
    const step = random() < 0.85 ? Math.round(gaussian(random) * 3.5) : Math.round(gaussian(random) * 9);
    const next = midi + step;
    if (step !== 0 && next >= range.lowest && next <= range.highest) return next;
  }
  return Math.min(
    range.highest,
    Math.max(range.lowest, midi > (range.lowest + range.highest) / 2 ? midi - 2 : midi + 2),
  );
}

/** Adds a plain picked note; returns when the next may begin. */
function play(
  writer: Writer,
  seconds: number,
  options: { ring?: number; more?: Partial<StringNote>; truth?: Partial<TrueNote> } = {},
): void {
  const { at, midi, random } = writer;
  writer.strings.push({
    at,
    until: at + seconds + (options.ring ?? 0),
    midi,
    gain: humanLevel(random),
    attack: 'pick',
    ...options.more,
  });
  writer.truth.push({
    onset: at,
    offset: at + seconds + (options.ring ?? 0),
    pitch: midi,
    attack: 'pick',
    ...options.truth,
  });
  writer.at += seconds;
}

type LineShape = {
  readonly gaps: readonly number[];
  readonly range?: Range;
  readonly repeat?: number;
  readonly ring?: number;
  readonly alternate?: boolean;
  /** Share of its time that a note is let sound. */ readonly short?: number;
};

function line({ gaps, range, repeat = 0.05, ring, alternate, short }: LineShape) {
  return (given: Writer): void => {
    const writer = range
      ? { ...given, range: meet(given.range, range), midi: Math.round((range.lowest + range.highest) / 2) }
      : given;
    for (let note = 0; note < NOTES; note++) {
      if (note > 0 && writer.random() >= repeat) writer.midi = walk(writer);
      const gap = alternate ? gaps[note % gaps.length]! : pick(writer.random, gaps);
      const seconds = gap * humanTiming(writer.random);
      const rung = ring === undefined ? {} : { ring: ring * (short ? 1 : 0.6 + 0.8 * writer.random()) };
      play(writer, seconds, short ? { ring: -seconds * short } : rung);
    }
    given.at = writer.at;
  };
}

const meet = (a: Range, b: Range): Range => ({
  lowest: Math.max(a.lowest, b.lowest),
  highest: Math.max(a.lowest + 7, Math.min(a.highest, b.highest)),
});

/** Groups of two to four on one string: the first picked, the others hammered or pulled. */
function legato(writer: Writer): void {
  while (writer.truth.length < NOTES) {
    writer.midi = walk(writer);
    play(writer, 0.17 + 0.1 * writer.random());
    for (let more = 1 + Math.floor(writer.random() * 3); more > 0; more--) {
      const step = pick(writer.random, [1, 2, 2, 3, 4]) * (writer.random() < 0.5 ? -1 : 1);
      if (writer.midi + step < writer.range.lowest || writer.midi + step > writer.range.highest) continue;
      writer.midi += step;
      const attack = step > 0 ? 'hammer' : 'pull';
      play(writer, 0.12 + 0.14 * writer.random(), { more: { attack }, truth: { attack } });
    }
  }
}

/** Grace slides into a note (one note), and slides from one held note to another (two). */
function slides(writer: Writer): void {
  while (writer.truth.length < NOTES) {
    writer.midi = walk(writer);
    const kind = writer.random();
    if (kind < 0.4) {
      const from = pick(writer.random, [-3, -2, -1, 1, 2]);
      const takes = 0.05 + 0.04 * writer.random();
      play(writer, 0.35 + 0.2 * writer.random(), {
        more: {
          curve: [
            [0, from * 100],
            [0.02, from * 100],
            [0.02 + takes, 0],
          ],
        },
        truth: { slide: { fromMidi: writer.midi + from } },
      });
    } else if (kind < 0.7) {
      const [first, held, takes] = [
        writer.midi,
        0.28 + 0.15 * writer.random(),
        0.06 + 0.05 * writer.random(),
      ];
      const step = pick(writer.random, [3, 4, 5, 7]) * (first > 62 ? -1 : 1);
      const seconds = held + takes + 0.3 + 0.2 * writer.random();
      const { at } = writer;
      writer.strings.push({
        at,
        until: at + seconds,
        midi: first,
        gain: humanLevel(writer.random),
        attack: 'pick',
        curve: [
          [0, 0],
          [held, 0],
          [held + takes, step * 100],
        ],
      });
      writer.truth.push({ onset: at, offset: at + held + takes / 2, pitch: first, attack: 'pick' });
      writer.truth.push({
        onset: at + held + takes,
        offset: at + seconds,
        pitch: first + step,
        attack: 'slide',
        slide: { fromMidi: first },
      });
      writer.at += seconds;
      writer.midi = first + step;
    } else play(writer, 0.25 + 0.2 * writer.random());
  }
}

/** Bends up and held, bent and released, and bent before the pick; plain notes between. */
function bends(writer: Writer): void {
  while (writer.truth.length < NOTES) {
    writer.midi = walk(writer);
    const [kind, amount] = [writer.random(), pick(writer.random, [100, 200, 200, 300])];
    const [wait, takes] = [0.08 + 0.12 * writer.random(), 0.1 + 0.12 * writer.random()];
    const truth = { bend: { cents: amount } };
    if (kind < 0.35)
      play(writer, wait + takes + 0.4, {
        more: {
          curve: [
            [0, 0],
            [wait, 0],
            [wait + takes, amount],
          ],
        },
        truth: { ...truth, pitch: writer.midi + amount / 100 },
      });
    else if (kind < 0.5) {
      const [held, back] = [0.15 + 0.1 * writer.random(), 0.12 + 0.08 * writer.random()];
      const curve: [number, number][] = [
        [0, 0],
        [wait, 0],
        [wait + takes, amount],
        [wait + takes + held, amount],
        [wait + takes + held + back, 0],
      ];
      play(writer, wait + takes + held + back + 0.4, { more: { curve }, truth });
    } else if (kind < 0.65)
      play(writer, 0.25 + 0.15 + 0.4, {
        more: {
          curve: [
            [0, amount],
            [0.25, amount],
            [0.4, 0],
          ],
        },
        truth,
      });
    else play(writer, 0.25 + 0.2 * writer.random());
  }
}

/** Long notes, most with vibrato once they have begun. */
function vibrato(writer: Writer): void {
  while (writer.truth.length < 18) {
    writer.midi = walk(writer);
    if (writer.random() < 0.35) {
      play(writer, 0.3 + 0.3 * writer.random());
      continue;
    }
    const [hz, cents, seconds] = [
      4.5 + 2 * writer.random(),
      20 + 30 * writer.random(),
      0.8 + 0.4 * writer.random(),
    ];
    const curve = Array.from({ length: Math.ceil(seconds * 100) }, (_, index): [number, number] => {
      const time = index / 100;
      return [
        time,
        time < 0.2 ? 0 : cents * Math.min(1, (time - 0.2) / 0.15) * Math.sin(2 * Math.PI * hz * (time - 0.2)),
      ];
    });
    play(writer, seconds, { more: { curve }, truth: { vibrato: { hz, cents } } });
  }
}

/** Notes with muted strokes between them. */
function ghosts(writer: Writer): void {
  while (writer.truth.length < NOTES) {
    writer.midi = walk(writer);
    const gap = 0.2 + 0.15 * writer.random();
    play(writer, gap);
    if (writer.random() < 0.55) {
      const at = writer.at;
      writer.strings.push({
        at,
        until: at + 0.02,
        midi: writer.midi,
        gain: 0.4 * humanLevel(writer.random),
        attack: 'ghost',
      });
      writer.ghosts.push(at);
      writer.at += 0.12 + 0.1 * writer.random();
    }
  }
}

/** Intervals that lie under the hand, from the lower note; fifths and octaves are there because they are hard. */
const DOUBLE_STOPS = [3, 4, 5, 5, 7, 8, 9, 12, 6, 10];
const STABS = [
  [4, 3],
  [3, 4],
  [5, 4],
  [5, 5],
  [4, 6],
  [3, 5],
  [7, 9],
  [4, 5],
];

/** @param share how many of the events sound several notes */
function chords(voices: 2 | 3, share = 0.8) {
  return (writer: Writer): void => {
    for (let event = 0; event < 18; event++) {
      writer.midi = walk(writer);
      const gap = pick(writer.random, [0.3, 0.4, 0.6]) * humanTiming(writer.random);
      const { at, midi, random } = writer;
      play(writer, gap);
      if (random() >= share) continue;
      const steps = voices === 2 ? [pick(random, DOUBLE_STOPS)] : pick(random, STABS);
      strikeAbove(writer, { at, midi, gap, steps, spread: random() < 0.25 ? 0.025 : 0.008 });
    }
  };
}

type Stroke = {
  readonly at: number;
  readonly midi: number;
  readonly gap: number;
  /** From each string to the next, in semitones. */
  readonly steps: readonly number[];
  /** Seconds within which all strings are struck. */
  readonly spread: number;
};

/** The other strings of a stroke, over the one that was played. */
function strikeAbove(writer: Writer, { at, midi, gap, steps, spread }: Stroke): void {
  const { random } = writer;
  let pitch = midi;
  for (const step of steps) {
    pitch += step;
    if (pitch > writer.range.highest + 7) break;
    const later = at + spread * random();
    writer.strings.push({
      at: later,
      until: at + gap,
      midi: pitch,
      gain: humanLevel(random),
      attack: 'pick',
    });
    writer.truth.push({ onset: later, offset: at + gap, pitch, attack: 'pick' });
  }
}

/** The same shapes of several strings, moved along the neck as riffs move, some of them struck twice. */
function together(shapes: readonly (readonly number[])[], range: Range) {
  return (given: Writer): void => {
    const writer = {
      ...given,
      range: meet(given.range, range),
      midi: Math.round((range.lowest + range.highest) / 2),
    };
    for (let event = 0; event < 18; event++) {
      if (writer.random() >= 0.2) writer.midi = walk(writer);
      const gap = pick(writer.random, [0.2, 0.3, 0.45]) * humanTiming(writer.random);
      const { at, midi, random } = writer;
      play(writer, gap);
      strikeAbove(writer, { at, midi, gap, steps: pick(random, shapes), spread: 0.012 });
    }
    given.at = writer.at;
  };
}

/** Muted strings raked across into a note. */
function rakes(writer: Writer): void {
  while (writer.truth.length < NOTES) {
    writer.midi = walk(writer);
    if (writer.random() < 0.6)
      for (let muted = 2 + Math.floor(writer.random() * 3); muted > 0; muted--) {
        const { at, midi, random } = writer;
        const gain = 0.35 * humanLevel(random);
        writer.strings.push({ at, until: at + 0.02, midi: midi - 4 * muted, gain, attack: 'ghost' });
        writer.ghosts.push(at);
        writer.at += 0.028 + 0.03 * random();
      }
    play(writer, 0.3 + 0.25 * writer.random());
  }
}
