import { beatInForm } from '../chart';
import type { LandingMark, Report } from '../analyse';
import { newcombeInterval, type Rate } from './wilson';
import { typeset } from '../music';
import { elementAt, present } from '../shared';

/** A take as it is held against others of the same form. */
export type Compared = { readonly report: Report; readonly marks: readonly LandingMark[] };

/** Targets met on time at one change of the form, take by take; rests are not counted. */
export type ChangeRates = {
  readonly bar: number;
  readonly beat: number;
  readonly from: string;
  readonly to: string;
  readonly rates: readonly Rate[];
};
/** The same by kind of change, with the difference of the last take to the first. */
export type KindRates = {
  readonly from: string;
  readonly to: string;
  readonly rates: readonly Rate[];
  readonly difference: number | null;
  readonly interval: readonly [number, number];
  readonly word: 'better' | 'worse' | 'unclear';
};

export type Comparison = {
  readonly kinds: readonly KindRates[];
  readonly byChange: readonly ChangeRates[];
  readonly numbers: readonly { readonly name: string; readonly values: readonly string[] }[];
  /** What changed, soft and bold; a difference counts as one where its interval leaves zero. */
  readonly soft: string;
  readonly bold: string;
};

/** z of a two-sided 90 % interval: what moves by it is worth saying of practice. */
const NINE_IN_TEN = 1.644854;

/**
 * Two takes or more of one form, by kind of change, by change and by number; the last against the first.
 * @param formBeats beats of one chorus
 */
export function compareTakes(takes: readonly Compared[], formBeats: number): Comparison {
  const kinds = kindsOf(takes).sort((a, b) => rank(a) - rank(b) || (b.difference ?? 0) - (a.difference ?? 0));
  return {
    kinds,
    byChange: ratesByChange(takes, formBeats),
    numbers: numbersOf(takes),
    ...sentenceOf(kinds),
  };
}

const rank = ({ word }: KindRates): number => {
  if (word === 'better') return 0;
  if (word === 'worse') return 1;
  return 2;
};

function rateOf({ report, marks }: Compared, isHere: (change: Report['changes'][number]) => boolean): Rate {
  let [met, of] = [0, 0];
  report.changes.forEach((change, index) => {
    if (!isHere(change) || marks[index] === 'rest') return;
    of++;
    if (marks[index] === 'target') met++;
  });
  return { met, of };
}

function kindsOf(takes: readonly Compared[]): KindRates[] {
  const found = new Map<string, { from: string; to: string }>();
  for (const { report } of takes)
    for (const { from, to } of report.changes) found.set(`${from} ${to}`, { from, to });
  return [...found.values()].map(({ from, to }) => {
    const rates = takes.map((take) => rateOf(take, (change) => change.from === from && change.to === to));
    const [before, after] = [elementAt(rates, 0), elementAt(rates, rates.length - 1)];
    const interval = newcombeInterval(before, after, NINE_IN_TEN);
    const difference =
      before.of === 0 || after.of === 0 ? null : after.met / after.of - before.met / before.of;
    return {
      from,
      to,
      rates,
      difference,
      interval,
      word: intervalVerdict(interval),
    };
  });
}

function ratesByChange(takes: readonly Compared[], formBeats: number): ChangeRates[] {
  const inForm = (beat: number) => Math.round(beatInForm({ formBeats }, beat) * 1000) / 1000;
  const found = new Map<number, { bar: number; beat: number; from: string; to: string }>();
  for (const { report } of takes)
    for (const { bar, beat, from, to } of report.changes)
      found.set(inForm(beat), { bar, beat: inForm(beat), from, to });
  return [...found.values()]
    .sort((a, b) => a.beat - b.beat)
    .map((change) => ({
      ...change,
      rates: takes.map((take) => rateOf(take, ({ beat }) => inForm(beat) === change.beat)),
    }));
}

function numbersOf(takes: readonly Compared[]): Comparison['numbers'] {
  const row = (name: string, value: (take: Compared) => string) => ({ name, values: takes.map(value) });
  const share = (part: number, whole: number) => (whole > 0 ? `${Math.round((100 * part) / whole)} %` : '–');
  return [
    row(
      'heard, band muted',
      ({ report }) =>
        `${report.mutedBand.segments.filter(({ verdict }) => verdict === 'heard').length} of ${report.mutedBand.segments.filter(({ verdict }) => verdict !== 'silent').length}`,
    ),
    row(
      'met on time',
      ({ marks }) =>
        `${marks.filter((mark) => mark === 'target').length} of ${marks.filter((mark) => mark !== 'rest').length}`,
    ),
    row('met late', ({ marks }) => `${marks.filter((mark) => mark === 'target-late').length}`),
    row('in the plan', ({ report }) => share(report.summary.notesInPlan, report.summary.notesJudged)),
    row('notes', ({ report }) => `${report.summary.notes}`),
    row('phrases', ({ report }) => `${report.phrases.length}`),
    row('spread of time', ({ report }) =>
      report.time.spreadMs === null ? '–' : `${Math.round(report.time.spreadMs)} ms`,
    ),
  ];
}

/** The kind that changed most surely, then what changed the other way. */
function sentenceOf(kinds: readonly KindRates[]): { soft: string; bold: string } {
  const counted = kinds.filter(({ difference }) => difference !== null);
  if (counted.length === 0)
    return {
      soft: 'No change was played in both takes.',
      bold: 'There is nothing to compare yet.',
    };
  const moved =
    counted.find(({ word }) => word !== 'unclear') ??
    counted.reduce((most, one) =>
      Math.abs(present(one.difference)) > Math.abs(present(most.difference)) ? one : most,
    );
  const [before, after] = [elementAt(moved.rates, 0), elementAt(moved.rates, moved.rates.length - 1)];
  const soft = typeset(
    `Into ${moved.to} you met a target in ${before.met} of ${before.of}, then in ${after.met} of ${after.of}.`,
  );
  const points = (value: number) => `${value >= 0 ? '+' : '−'}${Math.abs(Math.round(100 * value))}`;
  const range = `between ${points(moved.interval[0])} and ${points(moved.interval[1])}`;
  let verdict: string;
  if (moved.difference === 0) verdict = 'No difference';
  else if (moved.word === 'unclear')
    verdict = `${points(present(moved.difference))} points, ${range}: too few to call it a change`;
  else verdict = `${points(present(moved.difference))} points, ${range}: ${moved.word}`;
  const other = counted.find(
    (one) =>
      one !== moved &&
      Math.sign(present(one.difference)) === -Math.sign(present(moved.difference)) &&
      one.difference !== 0,
  );
  const left = other && { [-1]: 'more open', 1: 'fewer open' }[Math.sign(present(other.difference))];
  const by = other
    ? Math.abs(elementAt(other.rates, 0).met - elementAt(other.rates, other.rates.length - 1).met)
    : 0;
  return {
    soft,
    bold: `${verdict}.${other && by > 0 ? typeset(` Into ${other.to} you left ${by === 1 ? 'one' : by} ${left}.`) : ''}`,
  };
}

function intervalVerdict(interval: readonly [number, number]) {
  if (interval[0] > 0) return 'better';
  if (interval[1] < 0) return 'worse';
  return 'unclear';
}
