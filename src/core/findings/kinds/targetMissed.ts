import type { ChangeReport } from '../../analyse';
import { intervalOver, noteName, readChord, spellOver } from '../../music';
import { elementAt, unwrap } from '../../shared';
import type { Counted, FindingContext } from '../finding';
import { marksOf } from '../marks';
import { restingOnLandings, type RestsOn } from '../evidence';
import { throughBar } from '../bars';
import { defineKind } from '../measure';
import { mostCommon } from '../mostCommon';
import { listed } from '../words';
import { intervalWord, times, typeset } from '../../music';
import { targetsAt } from './landed';

type Facts = {
  readonly from: string;
  readonly to: string;
  /** Target tones by name, and by their part of the chord. */
  readonly names: readonly string[];
  readonly tones: readonly string[];
  readonly late: number;
  /** What the line was most often on instead. */
  readonly instead: string | null;
};

const MISSED_LIMIT = 0.75;
/** More targets than this are no list a player could aim at. */
const MOST_NAMED = 2;

/** Per kind of change: targets met, late ones counted as met. */
function detect(context: FindingContext): Counted<Facts>[] {
  const { report, plan, chart, tempo } = context;
  const marks = marksOf(report, plan, chart, tempo);
  const kinds = new Map<string, number[]>();
  report.changes.forEach(({ from, to }, index) => {
    if (marks[index] !== 'rest') kinds.set(`${from}→${to}`, [...(kinds.get(`${from}→${to}`) ?? []), index]);
  });
  return [...kinds].map(([kind, indices]) => {
    const late = indices.filter((index) => marks[index] === 'target-late').length;
    const met = indices.filter((index) => marks[index] === 'target').length + late;
    const missed = indices
      .filter((index) => !['target', 'target-late'].includes(elementAt(marks, index)))
      .map((index) => elementAt(report.changes, index));
    const example = elementAt(report.changes, elementAt(indices, 0));
    const rests = restingOnLandings(
      indices.map((index) => elementAt(report.changes, index)),
      missed,
    );
    return countedAt(context, { kind, example, missed, met, late, of: indices.length, rests });
  });
}

function countedAt(
  context: FindingContext,
  {
    kind,
    example,
    missed,
    met,
    late,
    of,
    rests,
  }: {
    readonly kind: string;
    readonly example: ChangeReport;
    readonly missed: readonly ChangeReport[];
    readonly met: number;
    readonly late: number;
    readonly of: number;
    readonly rests: RestsOn;
  },
): Counted<Facts> {
  const { from, to } = example;
  const chord = unwrap(readChord(to));
  const targets = targetsAt(context, example);
  const near = missed.filter(({ fix }) => fix !== null).length / Math.max(1, missed.length);
  return {
    where: { change: kind, bars: missed.map((change) => throughBar(context, change)) },
    met,
    of,
    rests,
    limit: MISSED_LIMIT,
    weight:
      3 *
      (missed.length / Math.max(1, context.report.changes.length)) *
      (1 - met / of) *
      (chord.quality === 'power' ? 0.5 : 1) *
      (0.5 + near),
    facts: {
      from,
      to,
      names: targets.map((pc) => noteName(spellOver(chord, pc))),
      tones: targets.map((pc) => intervalWord(intervalOver(chord, pc))),
      late,
      instead: mostCommon(missed.flatMap(({ landing }) => landing.interval ?? []))?.value ?? null,
    },
  };
}

/** A target of the plan is missed at one kind of change. */
export const targetMissed = defineKind<Facts>({
  id: 'target-missed',
  name: 'targets missed',
  hides: ['targets-missed'],
  drill: 'one-target',
  detect,
  say: ({ met, of, inBars, facts: { from, to, names, tones, late, instead } }) => {
    const asked = names.length <= MOST_NAMED ? `its ${listed(tones, 'or')}` : 'a target';
    const afterwards = late === met ? ', late' : `, ${times(late)} late`;
    return {
      title: `${names.length <= MOST_NAMED ? listed(names.map(typeset), 'or') : 'A target'} over ${typeset(to)}`,
      sentence: `From ${typeset(from)} into ${typeset(to)} you ${met === 0 ? `never landed on ${asked}` : `landed on ${asked} ${times(met)}`} in ${of}${late > 0 ? afterwards : ''}.`,
      detail: instead ? `Most often you were on its ${intervalWord(instead)}.` : 'Most often no note came.',
      advice: `Start with ${typeset(names[0] ?? to)}${inBars}.`,
    };
  },
  example: {
    from: 'F7',
    to: 'Bb7',
    names: ['D', 'Ab'],
    tones: ['third', 'seventh'],
    late: 0,
    instead: '1',
  },
});
