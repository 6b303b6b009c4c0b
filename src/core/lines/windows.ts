import { elementAt, type Beats, type Random } from '../shared';
import { EPS, weighted, type PhraseWindow, type RhythmRequest } from './request';

/** Windows of whole bars, one for each phrase, and where in or before them the phrase begins. */
export function freeWindows(request: RhythmRequest, random: Random): PhraseWindow[] {
  const { bar, end } = request;
  const bars = Math.max(1, Math.round(end / bar));
  const windows: PhraseWindow[] = [];
  for (let at = 0; at < bars;) {
    const left = bars - at;
    const length = closable(request, at, lengthOf(left, request, random), left);
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

/** How often a phrase has one, two, three, four bars. */
const USUAL_LENGTHS = [0.08, 0.62, 0.15, 0.15] as const;
const RUNNING_LENGTHS = [0, 0.5, 0.2, 0.3] as const;

/** Bars of a phrase: mostly two; never so many that a single bar is left over. */
function lengthOf(left: number, { base, lengths }: RhythmRequest, random: Random): number {
  if (left <= 3 && !lengths) return left;
  const weights = lengths ?? (base === 'running' ? RUNNING_LENGTHS : USUAL_LENGTHS);
  const wanted = 1 + weighted([...weights.keys()], weights, random());
  const fits = Math.min(wanted, left);
  return left - fits === 1 ? fits - (fits > 2 ? 1 : -1) : fits;
}

/** The first phrase has no bar before it to lead in from. */
function firstStart({ leadIn, base, changes }: RhythmRequest, random: Random): Beats {
  if (base === 'offbeats') return 0.5;
  const late = leadIn !== null && changes.some((change) => change > EPS && change < 1.5);
  return late ? 0 : weighted([0, 0.5, 1], [0.6, 0.2, 0.2], random());
}

function startOffset(request: RhythmRequest, from: Beats, random: Random): Beats {
  const { bar, base, changes, ahead, leadIn } = request;
  if (base === 'offbeats') return weighted([0.5, -0.5], [0.7, 0.3], random());
  const onChange = changes.some((change) => Math.abs(change - from) < EPS);
  if (ahead > 0 && onChange) return -ahead;
  if (leadIn !== null && onChange) {
    const least = 0.5 * leadIn;
    if (leadIn === 0 && hasInnerChange(request, from)) return 0;
    if (request.pickups) return -0.5 * weighted([...request.pickups.keys()], request.pickups, random());
    return -weighted([least, least + 0.5], [0.65, 0.35], random());
  }
  if (base === 'quarters') return weighted([0, 1, -1], [0.5, 0.25, 0.25], random());
  return weighted(
    [0, 0.5, 1, -0.5, -1],
    bar >= 4 ? [0.3, 0.2, 0.15, 0.2, 0.15] : [0.5, 0.2, 0, 0.2, 0.1],
    random(),
  );
}

/** By so much the beginning of a phrase is moved, where it may be. */
const SHIFTS: readonly Beats[] = [0, 0.5, 1, 1.5, -0.5, -1];

export function fixedWindows(
  { bar, end }: RhythmRequest,
  { start, bars, rest, turn, varied }: NonNullable<RhythmRequest['phrase']>,
  random: Random,
): PhraseWindow[] {
  const windows: PhraseWindow[] = [];
  let shift = 0;
  const each = Math.ceil(bars + rest) * bar;
  for (let number = 0; number * each + start < end - 1 + EPS; number++) {
    const from = number * each;
    if (varied && number % 2 === 0) shift = elementAt(SHIFTS, Math.floor(random() * SHIFTS.length));
    const own = Math.max(0, from + start + (turn ? number % bar : 0) + shift);
    if (own > end - 1 + EPS) break;
    windows.push({
      from,
      to: Math.min(end, own + Math.max(bar / 2, bars * bar - (own - from) * (rest >= 1 ? 0 : 1))),
      start: own,
    });
  }
  return windows;
}
