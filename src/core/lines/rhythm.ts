import { elementAt, seededRandom, type Beats, type BeatsPerMinute, type Random } from '../shared';

/** How much is played: fewer and longer notes, as most players would, or with triplets and sixteenths. */
export type Level = 'easy' | 'usual' | 'rich';

/** One note of a rhythm, and which part of its phrase it is. */
export type RhythmNote = {
  readonly beat: Beats;
  readonly duration: Beats;
  /** Which phrase it belongs to, from 0. */
  readonly phrase: number;
  readonly place: 'first' | 'inner' | 'last';
};

export type RhythmRequest = {
  /** Where the line ends, in beats from its beginning. */
  readonly end: Beats;
  /** Beats of a bar. */
  readonly bar: Beats;
  readonly tempo: BeatsPerMinute;
  readonly level: Level;
  /** What moves the line: mixed values, running eighths, quarters and longer, or offbeats. */
  readonly base: 'mixed' | 'running' | 'quarters' | 'offbeats';
  /** Beats that need a note of their own while the line is playing: where chords change. */
  readonly changes: readonly Beats[];
  /** Phrases begin on a change or lead into one by at least so many notes; null: they begin where they like. */
  readonly leadIn: number | null;
  /** Beats before each change on which the note for it is struck. */
  readonly ahead: Beats;
  /** Phrases of one place in the bar (in beats from its start) and one length, with so many bars of rest. */
  readonly phrase?: {
    readonly start: Beats;
    readonly bars: number;
    readonly rest: number;
    readonly turn?: true;
  };
  /** Where the phrases lie, if that is not free. */
  readonly windows?: readonly PhraseWindow[];
  /** Every second phrase has the rhythm of the one before it. */
  readonly answers: boolean;
  /** Each bar begins with so many running eighths. */
  readonly runs?: number;
  readonly seed: number;
};

type Cell = readonly [weight: number, durations: readonly Beats[], rests?: readonly number[]];
/** Whole bars a phrase lies in, where it begins, and where its last note is struck if that is said. */
export type PhraseWindow = {
  readonly from: Beats;
  readonly to: Beats;
  readonly start: Beats;
  readonly last?: Beats;
};
type Window = PhraseWindow;

const EPS = 1e-6;
/** A breath is a beat of silence at least, so that a phrase is heard to end (T10.5). */
const BREATH: Beats = 1;
const TRIPLET = 1 / 3;

/**
 * The rhythm of a line: phrases of one to four bars, each with a held last note and a breath after it. Cells of
 * one and two beats are common practice, no source.
 */
export function rhythmOf(request: RhythmRequest): RhythmNote[] {
  const random = seededRandom(request.seed * 6151 + 29);
  const windows =
    request.windows ??
    (request.phrase ? fixedWindows(request, request.phrase) : freeWindows(request, random));
  const cells = cellsFor(request);
  const made: (readonly RhythmNote[])[] = [];
  windows.forEach((window, number) => {
    const call = made[number - 1];
    const own = phraseIn(request, window, windows[number + 1] ?? null, cells, random, number);
    const copies = request.answers && number % 2 === 1 && call && random() < (request.phrase ? 1 : 0.6);
    made.push(
      (copies && call ? answerTo(call, elementAt(windows, number - 1), window, own, request) : null) ?? own,
    );
  });
  return made.flat();
}

/** Windows of whole bars, one for each phrase, and where in or before them the phrase begins. */
function freeWindows(request: RhythmRequest, random: Random): Window[] {
  const { bar, end, base } = request;
  const bars = Math.max(1, Math.round(end / bar));
  const windows: Window[] = [];
  for (let at = 0; at < bars;) {
    const left = bars - at;
    const length = closable(request, at, lengthOf(left, base, random), left);
    const from = at * bar;
    const start =
      windows.length === 0 ? firstStart(request, random) : from + startOffset(request, from, random);
    windows.push({ from, to: Math.min(end, (at + length) * bar), start });
    at += length;
  }
  return windows;
}

/**
 * A phrase that ends in a bar of two chords leaves no time to land on the second and to lead into the next bar:
 * it goes on for a bar.
 */
function closable(request: RhythmRequest, at: number, length: number, left: number): number {
  const { bar, leadIn } = request;
  const isTight = (boundary: number) =>
    leadIn !== null && leadIn > 0 && hasInnerChange(request, boundary * bar);
  let bars = length;
  while (bars < left && isTight(at + bars)) bars++;
  return bars;
}

/** Does the bar before this bar line hold a change of its own? */
const hasInnerChange = ({ changes, bar }: RhythmRequest, line: Beats): boolean =>
  changes.some((change) => change > line - bar + EPS && change < line - EPS);

/** Bars of a phrase: mostly two; never so many that a single bar is left over. */
function lengthOf(left: number, base: RhythmRequest['base'], random: Random): number {
  if (left <= 3) return left;
  const chance = random();
  const wanted =
    base === 'running'
      ? pick([2, 3, 4], [0.5, 0.2, 0.3], chance)
      : pick([1, 2, 3, 4], [0.08, 0.62, 0.15, 0.15], chance);
  const fits = Math.min(wanted, left);
  return left - fits === 1 ? fits - (fits > 2 ? 1 : -1) : fits;
}

function pick<T>(values: readonly T[], weights: readonly number[], chance: number): T {
  let left = chance * weights.reduce((sum, weight) => sum + weight, 0);
  for (const [index, value] of values.entries()) {
    left -= elementAt(weights, index);
    if (left <= 0) return value;
  }
  return elementAt(values, values.length - 1);
}

/** The first phrase has no bar before it to lead in from. */
function firstStart({ leadIn, base, changes }: RhythmRequest, random: Random): Beats {
  if (base === 'offbeats') return 0.5;
  const late = leadIn !== null && changes.some((change) => change > EPS && change < 1.5);
  return late ? 0 : pick([0, 0.5, 1], [0.6, 0.2, 0.2], random());
}

function startOffset(request: RhythmRequest, from: Beats, random: Random): Beats {
  const { bar, base, changes, ahead, leadIn } = request;
  if (base === 'offbeats') return pick([0.5, -0.5], [0.7, 0.3], random());
  const onChange = changes.some((change) => Math.abs(change - from) < EPS);
  if (ahead > 0 && onChange) return -ahead;
  if (leadIn !== null && onChange) {
    const least = 0.5 * leadIn;
    if (leadIn === 0 && hasInnerChange(request, from)) return 0;
    return -pick([least, least + 0.5], [0.65, 0.35], random());
  }
  if (base === 'quarters') return pick([0, 1, -1], [0.5, 0.25, 0.25], random());
  return pick(
    [0, 0.5, 1, -0.5, -1],
    bar >= 4 ? [0.3, 0.2, 0.15, 0.2, 0.15] : [0.5, 0.2, 0, 0.2, 0.1],
    random(),
  );
}

function fixedWindows(
  { bar, end }: RhythmRequest,
  { start, bars, rest, turn }: NonNullable<RhythmRequest['phrase']>,
): Window[] {
  const windows: Window[] = [];
  const each = Math.ceil(bars + rest) * bar;
  for (let number = 0; number * each + start < end - 1 + EPS; number++) {
    const from = number * each;
    const own = from + start + (turn ? number % bar : 0);
    if (own > end - 1 + EPS) break;
    windows.push({
      from,
      to: Math.min(end, own + Math.max(bar / 2, bars * bar - (own - from) * (rest >= 1 ? 0 : 1))),
      start: own,
    });
  }
  return windows;
}

/** Cells of one and of two beats that suit the tempo and the level. */
function cellsFor({ base, tempo, level }: RhythmRequest): { one: readonly Cell[]; two: readonly Cell[] } {
  const fast = tempo > 190 || level === 'easy';
  const triplets = tempo <= 170 && level !== 'easy' ? 0.5 : 0;
  const sixteenths = tempo <= 84 || (level === 'rich' && tempo <= 110) ? 0.5 : 0;
  const rich = level === 'rich' ? 2 : 1;
  switch (base) {
    case 'running':
      return {
        one: [
          [4, [0.5, 0.5]],
          [0.25 + triplets * 0.4, [TRIPLET, TRIPLET, TRIPLET]],
          [0.3, [1]],
        ],
        two: [
          [5, [0.5, 0.5, 0.5, 0.5]],
          [0.6, [1, 0.5, 0.5]],
          [0.5, [0.5, 0.5, 1]],
        ],
      };
    case 'quarters':
      return {
        one: [
          [4, [1]],
          [1.1, [0.5, 0.5]],
        ],
        two: [
          [2.4, [1, 1]],
          [1, [1.5, 0.5]],
          [0.7, [2]],
          [0.9, [1, 0.5, 0.5]],
          [0.6, [0.5, 0.5, 1]],
        ],
      };
    case 'offbeats':
      return {
        one: [
          [4, [0.5, 0.5], [0]],
          [0.8, [0.5, 0.5]],
        ],
        two: [
          [2.2, [0.5, 1, 0.5], [0]],
          [1, [0.5, 1.5], [0]],
          [1, [0.5, 0.5, 0.5, 0.5], [0, 2]],
          [0.8, [0.5, 0.5, 0.5, 0.5], [0]],
        ],
      };
    case 'mixed':
      return {
        one: [
          [fast ? 2.6 : 1.1, [1]],
          [2.4, [0.5, 0.5]],
          [0.5, [0.5, 0.5], [0]],
          [triplets * rich, [TRIPLET, TRIPLET, TRIPLET]],
          [sixteenths * rich, [0.25, 0.25, 0.5]],
        ],
        two: [
          [2.2, [0.5, 0.5, 0.5, 0.5]],
          [fast ? 1.6 : 1, [1.5, 0.5]],
          [1, [0.5, 1, 0.5]],
          [fast ? 1.8 : 0.9, [1, 0.5, 0.5]],
          [1.1, [0.5, 0.5, 1]],
          [0.4, [0.5, 0.5, 0.5, 0.5], [0]],
        ],
      };
  }
}

/** Where the last note of a phrase is struck, and how long it may be held. */
function endingOf(
  request: RhythmRequest,
  window: Window,
  next: Window | null,
  random: Random,
): [Beats, Beats] {
  const { end, changes, ahead } = request;
  const limit = next ? next.start - BREATH : end;
  const at = window.last ?? lastOnset(request, window, limit, random);
  // it does not ring into a chord that asks for a note of its own
  const following = changes.find((change) => change > at + ahead + EPS) ?? Infinity;
  const until = Math.min(limit, following - ahead - 0.05);
  const most = Math.max(0.5, (following < limit + EPS ? until : limit) - at);
  return [at, Math.min(most, next ? pick([1, 1.5, 2, 2.5], [1, 1, 1, 0.6], random()) : 3)];
}

/** On a change where the last bar has one that can be held for a beat, else on a beat of the last bar. */
function lastOnset(
  { bar, changes, base, ahead, leadIn, runs }: RhythmRequest,
  { to, start }: Window,
  limit: Beats,
  random: Random,
): Beats {
  const lastBar = to - bar;
  const isOpen = (beat: Beats) => beat > start + 1 - EPS && beat + 1 <= limit + EPS;
  const onChange = changes.findLast((change) => change >= lastBar - EPS && isOpen(change));
  if (onChange !== undefined && !runs && base !== 'offbeats' && (leadIn !== null || random() < 0.5))
    return Math.max(start, onChange - ahead);
  const beats = runs ? [runs / 2] : [0, 1, 1.5, 2];
  const places = beats.map((beat) => lastBar + beat).filter(isOpen);
  const place = places.length > 0 ? elementAt(places, Math.floor(random() * places.length)) : limit - 1;
  return Math.max(start, base === 'offbeats' ? Math.floor(place) + 0.5 : place);
}

function phraseIn(
  request: RhythmRequest,
  window: Window,
  next: Window | null,
  cells: ReturnType<typeof cellsFor>,
  random: Random,
  phrase: number,
): RhythmNote[] {
  const [last, held] = endingOf(request, window, next, random);
  const notes = filled(request, window.start, last, cells, random);
  return placed([...notes, [last, held]], phrase);
}

const placed = (notes: readonly (readonly [Beats, Beats])[], phrase: number): RhythmNote[] =>
  notes.map(([beat, duration], index) => ({
    beat,
    duration,
    phrase,
    place: placeOf(index, notes.length),
  }));

function placeOf(index: number, count: number): RhythmNote['place'] {
  if (index === count - 1) return 'last';
  return index === 0 ? 'first' : 'inner';
}

/** Cells from a beat to another one: no cell is laid across a bar line or over a change. */
function filled(
  request: RhythmRequest,
  from: Beats,
  to: Beats,
  cells: ReturnType<typeof cellsFor>,
  random: Random,
): [Beats, Beats][] {
  const { bar, runs = 0, ahead } = request;
  const needed = request.changes.map((change) => change - ahead).filter((beat) => beat >= from - EPS);
  const notes: [Beats, Beats][] = [];
  let at = from;
  while (at < to - EPS) {
    const next = ahead > 0 ? needed.find((beat) => beat >= at - EPS) : undefined;
    const left = Math.min(to, next !== undefined && next > at + EPS ? next : to) - at;
    const odd = oddStep(at, left, ahead > 0 && next !== undefined && next < at + EPS);
    if (odd !== null) {
      notes.push([at, odd]);
      at += odd;
      continue;
    }
    const inBar = ((at % bar) + bar) % bar;
    const isRun = inBar / 0.5 < runs - EPS;
    const room = Math.min(left, bar - inBar);
    const fits = [...cells.one, ...(room >= 2 - EPS ? cells.two : [])].filter(([, durations, rests]) =>
      isFree(at, durations, rests ?? [], needed, at + left),
    );
    const open = isRun || fits.length === 0 ? RUN : fits;
    const [, durations, rests = []] = pick(
      open,
      open.map(([weight]) => weight),
      random(),
    );
    for (const [index, duration] of durations.entries()) {
      if (!rests.includes(index)) notes.push([at, Math.min(duration, to - at)]);
      at += duration;
    }
  }
  return notes.filter(([beat]) => beat < to - EPS);
}

/**
 * A step that no cell makes: from an offbeat up to the beat, into a last half beat, and over the change that
 * has been struck ahead of it; null where a cell is to be laid.
 */
function oddStep(at: Beats, left: Beats, isPushed: boolean): Beats | null {
  if (isPushed) return Math.min(left, left >= 2 ? 1.5 : 1);
  const away = Math.abs(at - Math.round(at)) > EPS ? Math.ceil(at - EPS) - at : null;
  if (away !== null) return Math.min(left, away);
  return left < 1 - EPS ? left : null;
}

const RUN: readonly Cell[] = [[1, [0.5, 0.5]]];

/** A cell is free where every beat that needs a note gets one, and nothing reaches over the last note. */
function isFree(
  at: Beats,
  durations: readonly Beats[],
  rests: readonly number[],
  needed: readonly Beats[],
  to: Beats,
): boolean {
  const onsets: Beats[] = [];
  let beat = at;
  durations.forEach((duration, index) => {
    if (!rests.includes(index)) onsets.push(beat);
    beat += duration;
  });
  if (beat > to + EPS) return false;
  return needed.every(
    (need) => need < at - EPS || need >= beat - EPS || onsets.some((onset) => Math.abs(onset - need) < EPS),
  );
}

/** The rhythm of the call in the window of its answer; null where it does not fit there. */
function answerTo(
  call: readonly RhythmNote[],
  calls: Window,
  window: Window,
  own: readonly RhythmNote[],
  request: RhythmRequest,
): RhythmNote[] | null {
  const by = window.from - calls.from;
  const last = own[own.length - 1];
  if (
    !last ||
    window.to - window.from !== calls.to - calls.from ||
    Math.abs(window.start - calls.start - by) > EPS
  )
    return null;
  const moved = call.map((note) => ({ ...note, beat: note.beat + by, phrase: last.phrase }));
  const end = elementAt(moved, moved.length - 1);
  const isLanded = request.changes.every(
    (change) =>
      change - request.ahead < elementAt(moved, 0).beat - EPS ||
      change - request.ahead > end.beat + end.duration + EPS ||
      moved.some(({ beat }) => Math.abs(beat - change + request.ahead) < EPS),
  );
  if (
    !isLanded ||
    end.beat + Math.min(end.duration, 1) > Math.max(last.beat + last.duration, end.beat + 1) + EPS
  )
    return null;
  const held = Math.min(end.duration, Math.max(1, last.beat + last.duration - end.beat));
  return [...moved.slice(0, -1), { ...end, duration: held }];
}
