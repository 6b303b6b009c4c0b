import type { LandingMark, Report } from '../analyse';
import { intervalWord, times, typeset } from '../music';
import { elementAt, present } from '../shared';

/** A landing as it is shown at a change: its interval, and what it became. */
export type LandingChip = {
  readonly interval: string | null;
  readonly height: number;
  readonly then?: { readonly interval: string; readonly height: number };
};
export type LandingGroup = {
  readonly mark: LandingMark;
  readonly count: number;
  readonly chips: readonly LandingChip[];
};

/** One kind of change over a whole take: what a player can take in between two takes. */
export type OneLanding = {
  readonly from: string;
  readonly to: string;
  /** Groups from the sky to the ground. */ readonly groups: readonly LandingGroup[];
  readonly soft: string;
  readonly bold: string;
  /** First bar of the form where it is, from 1. */ readonly bar: number;
};

const ORDER: readonly LandingMark[] = ['rest', 'not-met', 'chord-tone', 'target-late', 'target'];
const MOST_CHIPS = 3;

/**
 * The change a take says most about: the kind that passed the player by most often; where every one was
 * met, the one met most.
 * Changes at rest are left out of the count.
 * @returns null where the take has no judged change
 */
export function oneLanding(report: Report, marks: readonly LandingMark[]): OneLanding | null {
  const kinds = new Map<string, number[]>();
  report.changes.forEach(({ from, to }, index) => {
    if (marks[index] !== 'rest') kinds.set(`${from} ${to}`, [...(kinds.get(`${from} ${to}`) ?? []), index]);
  });
  const missed = (indices: readonly number[]) =>
    indices.filter((index) => marks[index] === 'not-met' || marks[index] === 'chord-tone').length;
  // of two kinds missed equally often the one that was played more often had more chances to be met
  const [worst] = [...kinds.values()].sort(
    (a, b) => missed(b) - missed(a) || (missed(a) > 0 ? a.length - b.length : b.length - a.length),
  );
  if (!worst) return null;
  const { from, to, bar } = present(report.changes[elementAt(worst, 0)]);
  const groups = ORDER.map((mark) => ({ mark, of: worst.filter((index) => marks[index] === mark) }))
    .filter(({ of }) => of.length > 0)
    .map(({ mark, of }) => ({ mark, count: of.length, chips: chipsOf(report, of) }));
  const met = worst.filter((index) => marks[index] === 'target' || marks[index] === 'target-late').length;
  const tones = [
    ...new Set(
      worst
        .filter((index) => marks[index] === 'target')
        .map((index) => present(elementAt(report.changes, index).landing.interval)),
    ),
  ];
  const what = tones.length === 1 ? `its ${intervalWord(elementAt(tones, 0))}` : 'a target';
  return {
    from,
    to,
    groups,
    bar,
    soft: `Into ${typeset(to)} you met ${what}`,
    bold: timesMet(met, worst),
  };
}

function chipsOf(report: Report, indices: readonly number[]): LandingChip[] {
  return indices.slice(0, MOST_CHIPS).map((index) => {
    const { landing } = elementAt(report.changes, index);
    if (landing.noteIndex === null) return { interval: null, height: 4 };
    const { height } = present(report.notes[landing.noteIndex]);
    const later =
      landing.resolutionIndex === undefined ? null : present(report.notes[landing.resolutionIndex]);
    return {
      interval: landing.interval,
      height,
      ...(later?.interval ? { then: { interval: later.interval, height: later.height } } : {}),
    };
  });
}

function timesMet(met: number, worst: readonly number[]) {
  if (met === worst.length) return `every time, ${met} of ${met}.`;
  if (met === 0) return `not once in ${worst.length}.`;
  return `${times(met)} in ${worst.length}.`;
}
