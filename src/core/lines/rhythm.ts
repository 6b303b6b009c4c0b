import { elementAt, seededRandom, type Beats, type Random } from '../shared';
import { cellsFor, plainCells, type RhythmCell, type Cells } from './cells';
import { EPS, weighted, type PhraseWindow, type RhythmNote, type RhythmRequest } from './request';
import { fixedWindows, freeWindows } from './windows';

/** A breath is a beat of silence at least, so that a phrase is heard to end (T10.5). */
const BREATH: Beats = 1;

/**
 * The rhythm of a line: phrases of one to four bars, each with a held last note and a breath after it. Cells of
 * one and two beats are common practice, no source.
 */
export function rhythmOf(request: RhythmRequest): RhythmNote[] {
  const random = seededRandom(request.seed * 6151 + 29);
  const windows =
    request.windows ??
    (request.phrase ? fixedWindows(request, request.phrase, random) : freeWindows(request, random));
  const cells = request.plain ? plainCells(request.base) : cellsFor(request);
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

/** Where the last note of a phrase is struck, and how long it may be held. */
function endingOf(
  request: RhythmRequest,
  window: PhraseWindow,
  next: PhraseWindow | null,
  random: Random,
): [Beats, Beats] {
  const { end, changes, ahead } = request;
  const limit = next ? next.start - BREATH : end;
  const at = window.last ?? lastOnset(request, window, limit, random);
  // it does not ring into a chord that asks for a note of its own
  const following = changes.find((change) => change > at + ahead + EPS) ?? Infinity;
  // a change that is to be landed on and is not played has silence around it
  const passed = request.leadIn !== null && next !== null && next.start > following + EPS;
  const until = Math.min(limit, following - ahead - (passed ? BREATH : 0) - 0.05);
  const most = Math.max(0.5, (following < limit + EPS ? until : limit) - at);
  return [at, Math.min(most, next ? weighted([1, 1.5, 2, 2.5], [1, 1, 1, 0.6], random()) : 3)];
}

/** Where in the last bar of a phrase its last note may be struck. */
const PLACES = { on: [0, 1, 1.5, 2], off: [0.5, 1.5] } as const;

/** On a change where the last bar has one that can be held for a beat, else on a beat of the last bar. */
function lastOnset(
  { bar, end, changes, base, ahead, leadIn, runs }: RhythmRequest,
  { to, start }: PhraseWindow,
  limit: Beats,
  random: Random,
): Beats {
  const lastBar = to - bar;
  const isOpen = (beat: Beats) => beat > start + 1 - EPS && beat + 1 <= limit + EPS;
  const onChange = changes.findLast(
    (change) => change >= lastBar - EPS && change < to - EPS && isOpen(change),
  );
  const isEnd = limit >= end - EPS;
  if (onChange !== undefined && !runs && base !== 'offbeats' && (isEnd || leadIn !== null || random() < 0.5))
    return Math.max(start, onChange - ahead);
  const beats = runs ? [runs / 2] : PLACES[base === 'offbeats' ? 'off' : 'on'];
  const places = beats.map((beat) => lastBar + beat).filter(isOpen);
  const place = places.length > 0 ? elementAt(places, Math.floor(random() * places.length)) : limit - 1;
  return Math.max(start, place);
}

function phraseIn(
  request: RhythmRequest,
  window: PhraseWindow,
  next: PhraseWindow | null,
  cells: Cells,
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
  cells: Cells,
  random: Random,
): [Beats, Beats][] {
  const { bar, runs = 0, ahead } = request;
  const needed = neededFrom(request, from);
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
    const fits = [...cells.one, ...(room >= 2 - EPS ? cells.two : [])].filter(
      ([, durations, rests]) =>
        // a phrase begins with a note
        isFree(at, durations, rests ?? [], needed, at + left) && !(at === from && rests?.includes(0)),
    );
    const open = isRun || fits.length === 0 ? RUN : fits;
    const [, durations, rests = []] = weighted(
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

/** Beats from one on that need a note of their own. */
const neededFrom = ({ changes, ahead, leadIn }: RhythmRequest, from: Beats): Beats[] =>
  leadIn === null ? [] : changes.map((change) => change - ahead).filter((beat) => beat >= from - EPS);

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

const RUN: readonly RhythmCell[] = [[1, [0.5, 0.5]]];

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
  calls: PhraseWindow,
  window: PhraseWindow,
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
      request.leadIn === null ||
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
  const rings = request.changes.some((change) => change > end.beat + EPS && change < end.beat + held - EPS);
  if (rings) return null;
  return [...moved.slice(0, -1), { ...end, duration: held }];
}
