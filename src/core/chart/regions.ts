import {
  isDominant,
  isMinorish,
  noteName,
  pitchClass,
  rootPc,
  sameKey,
  type Chord,
  type Key,
  type SpelledNote,
} from '../music';
import { costIn, edgeGain, isBluesKey, isHome, type KeyStep } from './keyCost';
import type { ChordSpan } from './timeline';
import { present, defined } from '../shared';

/** A part of the form that is heard in one key. `from` and `to` are stretches, half-open. */
export type Region = {
  readonly key: Key;
  readonly from: number;
  readonly to: number;
  /** The chart says so, or its cadences do. */
  readonly source: 'written' | 'found';
  /** The key that would come next, where one is near. */
  readonly runnerUp: Key | null;
  readonly reason: string;
};

const TONICS: readonly SpelledNote[] = (
  [
    ['C', 0],
    ['D', -1],
    ['D', 0],
    ['E', -1],
    ['E', 0],
    ['F', 0],
    ['G', -1],
    ['G', 0],
    ['A', -1],
    ['A', 0],
    ['B', -1],
    ['B', 0],
  ] as const
).map(([letter, alter]) => ({ letter, alter }));

/** Moving to another key costs as much as a few strange chords; less where a section begins. */
const MOVE = 1.5;
const MOVE_AT_SECTION = 1;
/** Relative keys share their chords: a tune wanders between them without leaving home. */
const TO_RELATIVE = 2;
const NEAR = 1.2;

/**
 * The key of every part of the form.
 * Rule T2.6: a section's `key:`, else found from cadences. Where the chart names no key, the cheapest walk
 * through 24 keys is
 * taken (Viterbi, IEEE Transactions on Information Theory 1967): strange chords cost, cadences that come
 * home gain, and moving costs.
 * @param sections the section of each stretch
 */
export function keyRegions(chordSpans: readonly ChordSpan[], sections: readonly (string | null)[]): Region[] {
  const steps = stepsOf(chordSpans);
  const keys = candidates(chordSpans.flatMap(({ chord }) => (chord ? [chord] : [])));
  const found = chordSpans.every(({ key }) => key !== null) ? [] : walk(steps, keys, sections);
  const chosen = chordSpans.map((span, index) => span.key ?? defined(found[index]));
  const regions: Region[] = [];
  for (let from = 0; from < chordSpans.length;) {
    let to = from + 1;
    while (to < chordSpans.length && sameKey(defined(chosen[to]), defined(chosen[from]))) to++;
    regions.push(
      regionOf(steps, keys, defined(chosen[from]), from, to, defined(chordSpans[from]).key !== null),
    );
    from = to;
  }
  return regions;
}

type KeyCandidate = { readonly key: Key; readonly blues: boolean };

function candidates(chords: readonly Chord[]): KeyCandidate[] {
  const all = TONICS.flatMap((plain, pc) =>
    [false, true].map((minor) => {
      const key = { tonic: chords.find((chord) => rootPc(chord) === pc)?.root ?? plain, minor };
      return { key, blues: isBluesKey(chords, key) };
    }),
  );
  // a key whose tonic is never heard is a last resort
  const heard = all.filter(({ key, blues }) => chords.some((chord) => isHome(chord, key, blues)));
  return heard.length > 0 ? heard : all;
}

/** Each stretch with the nearest chords of another root; null over N.C. */
function stepsOf(chordSpans: readonly ChordSpan[]): (KeyStep | null)[] {
  const count = chordSpans.length;
  const neighbour = (index: number, way: 1 | -1, own: Chord): { chord: Chord; at: number } => {
    for (let step = 1; step < count; step++) {
      const at = (index + way * step + count * step) % count;
      const chord = defined(chordSpans[at]).chord;
      if (chord && rootPc(chord) !== rootPc(own)) return { chord, at };
    }
    return { chord: own, at: index };
  };
  return chordSpans.map(({ chord, start, end }, index) => {
    if (!chord) return null;
    const before = neighbour(index, -1, chord);
    const next = neighbour(index, 1, chord);
    return {
      chord,
      bars: Math.min(2, Math.max(0.5, (end - start) / 4)),
      next: next.chord,
      afterNext: neighbour(next.at, 1, next.chord).chord,
      before: before.chord,
      beforeThat: neighbour(before.at, -1, before.chord).chord,
    };
  });
}

function walk(
  steps: readonly (KeyStep | null)[],
  keys: readonly KeyCandidate[],
  sections: readonly (string | null)[],
): Key[] {
  const single = loneRoot(steps);
  if (single) return steps.map(() => single);
  const first = steps.find((step) => step !== null);
  if (!first) return steps.map(() => defined(keys[0]).key);
  let costs = keys.map(({ key, blues }) => -edgeGain(first.chord, key, blues));
  const from: number[][] = [];
  steps.forEach((step, index) => {
    let move: number;
    if (index === 0) move = Infinity;
    else if (sections[index] !== sections[index - 1]) move = MOVE_AT_SECTION;
    else move = MOVE;
    const arrivals = keys.map((_, place) => cheapestWay(costs, keys, place, move));
    from.push(arrivals.map((arrival) => arrival.from));
    costs = keys.map(
      ({ key, blues }, place) => defined(arrivals[place]).cost + (step ? costIn(step, key, blues) : 0),
    );
  });
  const last = present([...steps].reverse().find((step) => step !== null));
  // the form is a loop: a walk that ends in another key than it began in moves once more
  const ends = costs.map((cost, place) => {
    const path = pathTo(from, place);
    return {
      path,
      cost:
        cost -
        edgeGain(last.chord, defined(keys[place]).key, defined(keys[place]).blues) +
        (path[0] === place ? 0 : MOVE_AT_SECTION),
    };
  });
  return ends
    .reduce((best, one) => (one.cost < best.cost ? one : best))
    .path.map((place) => defined(keys[place]).key);
}

function pathTo(from: readonly (readonly number[])[], end: number): number[] {
  const path = [end];
  for (let index = from.length - 1; index > 0; index--)
    path.unshift(defined(defined(from[index])[defined(path[0])]));
  return path;
}

/** Into one key from whichever it costs least to come from. */
function cheapestWay(
  costs: readonly number[],
  keys: readonly KeyCandidate[],
  to: number,
  move: number,
): { from: number; cost: number } {
  let best = { from: to, cost: defined(costs[to]) };
  costs.forEach((cost, from) => {
    const total =
      cost +
      move +
      (from !== to && areRelative(defined(keys[from]).key, defined(keys[to]).key) ? TO_RELATIVE : 0);
    if (from !== to && total < best.cost) best = { from, cost: total };
  });
  return best;
}

const areRelative = (a: Key, b: Key): boolean =>
  a.minor !== b.minor && (pitchClass(a.tonic) - pitchClass(b.tonic) + 12) % 12 === (a.minor ? 9 : 3);

/** A vamp on one root is in its own key. */
function loneRoot(steps: readonly (KeyStep | null)[]): Key | null {
  const chords = steps.flatMap((step) => (step ? [step.chord] : []));
  return chords.length > 0 && new Set(chords.map(rootPc)).size === 1
    ? {
        tonic: defined(chords[0]).root,
        minor: isMinorish(defined(chords[0])) && !isDominant(defined(chords[0])),
      }
    : null;
}

function regionOf(
  steps: readonly (KeyStep | null)[],
  keys: readonly KeyCandidate[],
  key: Key,
  from: number,
  to: number,
  written: boolean,
): Region {
  const costs = keys.map((one) => ({
    key: one.key,
    cost: steps.slice(from, to).reduce((sum, step) => sum + (step ? costIn(step, one.key, one.blues) : 0), 0),
  }));
  const own = costs.find((one) => sameKey(one.key, key))?.cost ?? 0;
  const [other] = costs.filter((one) => !sameKey(one.key, key)).sort((a, b) => a.cost - b.cost);
  const runnerUp = other && other.cost < own + NEAR ? other.key : null;
  const name = `${noteName(key.tonic)} ${key.minor ? 'minor' : 'major'}`;
  const reason = written ? `The chart says ${name}.` : cadenceReason(steps.slice(from, to), key, name);
  return { key, from, to, source: written ? 'written' : 'found', runnerUp, reason };
}

function cadenceReason(steps: readonly (KeyStep | null)[], key: Key, name: string): string {
  const home = steps.find(
    (step) =>
      step &&
      rootPc(step.chord) === pitchClass(key.tonic) &&
      isDominant(step.before) &&
      (rootPc(step.before) + 5) % 12 === rootPc(step.chord),
  );
  return home
    ? `${home.before.symbol} comes home to ${home.chord.symbol}: ${name}.`
    : `Most of these chords belong to ${name}.`;
}
