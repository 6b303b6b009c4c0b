import type { ChangeReport } from '../../analyse';
import { intervalOver, noteName, readChord, spellOver, toneByRole, type ToneRole } from '../../music';
import { cellAt } from '../../plan';
import { unwrap, elementAt, present } from '../../shared';
import { marksOf } from '../marks';
import { intervalWord, times, typeset } from '../words';
import { mostCommon } from '../mostCommon';
import { ENOUGH, measure, throughBar, type FindingContext, type Measure, type ToneName } from './finding';

const MISSED_LIMIT = 0.75;

/** Changes where something was playing, by kind. */
const judged = ({ report }: FindingContext): ChangeReport[] =>
  report.changes.filter(({ landing }) => !landing.rest);
const landedOn = (context: FindingContext): (ChangeReport & { landing: { noteIndex: number } })[] =>
  judged(context).filter(
    (change): change is ChangeReport & { landing: { noteIndex: number } } =>
      change.landing.noteIndex !== null,
  );
const pcAt = ({ report }: FindingContext, index: number): number =>
  ((Math.round(elementAt(report.notes, index).midi) % 12) + 12) % 12;

/** Per kind of change: targets met, late ones counted as met. */
export function targetsMissed(context: FindingContext): Measure[] {
  const { report, plan, chart, tempo } = context;
  const marks = marksOf(report, plan, chart, tempo);
  const kinds = new Map<string, number[]>();
  report.changes.forEach((change, index) => {
    if (marks[index] !== 'rest')
      kinds.set(`${change.from}→${change.to}`, [...(kinds.get(`${change.from}→${change.to}`) ?? []), index]);
  });
  return [...kinds].flatMap(([kind, indices]) => {
    const late = indices.filter((index) => marks[index] === 'target-late').length;
    const met = indices.filter((index) => marks[index] === 'target').length + late;
    const missed = indices
      .filter((index) => !['target', 'target-late'].includes(elementAt(marks, index)))
      .map((index) => elementAt(report.changes, index));
    return measureMissed(
      context,
      kind,
      present(report.changes[elementAt(indices, 0)]),
      missed,
      met,
      late,
      indices.length,
    );
  });
}

function measureMissed(
  context: FindingContext,
  kind: string,
  example: ChangeReport,
  missed: readonly ChangeReport[],
  met: number,
  late: number,
  of: number,
): Measure[] {
  const [from, to] = kind.split('→') as [string, string];
  const chord = unwrap(readChord(to));
  const target = targetWords(context, example, to);
  const instead = mostCommon(missed.flatMap((change) => change.landing.interval ?? []))?.value;
  const near = missed.filter((change) => change.fix !== null).length / Math.max(1, missed.length);
  return measure(context, {
    kind: 'target-missed',
    where: { change: kind, bars: missed.map((change) => throughBar(context, change)) },
    met,
    of,
    limit: MISSED_LIMIT,
    title: `${target.names} over ${typeset(to)}`,
    sentence: `Coming from ${typeset(from)} into ${typeset(to)} you met ${target.words} ${times(met)} in ${of}${late > 0 ? `, ${late === met ? 'late' : `${times(late)} late`}` : ''}.`,
    detail: instead ? `Most often you were on its ${intervalWord(instead)}.` : 'Most often no note came.',
    drill: { change: kind, target: target.names, pass: 'meet it in 10 of 12' },
    weight:
      3 *
      (missed.length / Math.max(1, context.report.changes.length)) *
      (1 - met / of) *
      (chord.quality === 'power' ? 0.5 : 1) *
      (0.5 + near),
  });
}

/** `D or A♭, its third or seventh` */
function targetWords(
  { plan, timeline }: FindingContext,
  change: ChangeReport,
  to: string,
): { names: string; words: string } {
  const { chordSpans: stretches, formBeats } = timeline;
  const at = change.beat - Math.floor(change.beat / formBeats + 1e-9) * formBeats;
  const cell = cellAt(
    plan,
    (stretches.findLast((one) => one.start <= at + 1e-6) ?? elementAt(stretches, 0)).index,
    change.chorus - 1,
  );
  const chord = unwrap(readChord(to));
  const names = cell.targets.map((pc) => typeset(noteName(spellOver(chord, pc)))).join(' or ');
  const words = cell.targets.map((pc) => intervalWord(intervalOver(chord, pc))).join(' or ');
  return { names, words: `${names}, its ${words},` };
}

const ROLES: readonly (readonly [ToneName, readonly ToneRole[]])[] = [
  ['root', ['root']],
  ['third', ['third', 'sus']],
  ['fifth', ['fifth']],
  ['seventh', ['seventh', 'sixth']],
];

/** One target tone that hardly ever is the landing, over all changes that ask for it. */
export function toneMissed(context: FindingContext): Measure[] {
  const { plan, timeline } = context;
  return ROLES.flatMap(([name, roles]) => {
    const asked = landedOn(context).filter((change) => {
      const tone = toneByRole(unwrap(readChord(change.to)), ...roles);
      return (
        tone !== undefined &&
        cellAt(
          plan,
          stretchAt(timeline.chordSpans, timeline.formBeats, change.beat),
          change.chorus - 1,
        ).targets.includes(tone.pc)
      );
    });
    const met = asked.filter(
      (change) =>
        pcAt(context, change.landing.noteIndex) ===
        present(toneByRole(unwrap(readChord(change.to)), ...roles)).pc,
    );
    return measure(context, {
      kind: 'tone-missed',
      where: {
        tone: name,
        bars: asked.filter((change) => !met.includes(change)).map((change) => throughBar(context, change)),
      },
      met: met.length,
      of: asked.length,
      limit: 0.2,
      worth: 0.5,
      title: `Landing on the ${name}`,
      sentence: `You ${met.length === 0 ? `never landed on the ${name}` : `landed on the ${name} ${times(met.length)}`} in ${asked.length} changes.`,
      drill: { plan: 'single-target', target: `the ${name}`, pass: `land on the ${name} in 10 of 12` },
    });
  });
}

const stretchAt = (
  stretches: FindingContext['timeline']['chordSpans'],
  formBeats: number,
  beat: number,
): number => {
  const at = beat - Math.floor(beat / formBeats + 1e-9) * formBeats;
  return stretches.findLastIndex((one) => one.start <= at + 1e-6);
};

/** At the change a tone of the old chord that the new one lacks. */
export function stillOnOldChord(
  context: FindingContext,
  counts: (change: ChangeReport) => boolean = () => true,
): Measure[] {
  const all = landedOn(context).filter(
    (change) => counts(change) && (change.landing.timing === 'on' || change.landing.timing === 'held'),
  );
  const still = all.filter((change) => {
    const pc = pcAt(context, change.landing.noteIndex);
    const has = (symbol: string) => unwrap(readChord(symbol)).tones.some((tone) => tone.pc === pc);
    return has(change.from) && !has(change.to);
  });
  return measure(context, {
    kind: 'still-on-old-chord',
    where: { bars: still.map((change) => throughBar(context, change)) },
    met: all.length - still.length,
    of: all.length,
    limit: 0.65,
    worth: 0.8,
    title: 'Still on the old chord',
    praised: 'Leaving the old chord',
    sentence: `At ${still.length} of ${all.length} changes you were still on a tone of the chord before.`,
    drill: { target: 'the nearest target of the new chord', pass: 'leave the old chord in 10 of 12' },
  });
}

export function landingLate(context: FindingContext): Measure[] {
  const all = landedOn(context);
  const late = all.filter(({ landing }) => landing.timing === 'late');
  return measure(context, {
    kind: 'landing-late',
    where: { bars: late.map((change) => throughBar(context, change)) },
    met: all.length - late.length,
    of: all.length,
    limit: 0.6,
    worth: 0.7,
    title: 'On time at the change',
    sentence: `At ${late.length} of ${all.length} changes your first note came after the chord.`,
    drill: { target: 'any target, on the change', pass: 'land on time in 10 of 12' },
  });
}

export function rootOnly(context: FindingContext): Measure[] {
  if (context.plan.cells.every((cell) => cell.targets.length === 1)) return [];
  const all = landedOn(context);
  const roots = all.filter((change) => change.landing.interval === '1');
  return measure(context, {
    kind: 'root-only',
    where: { bars: roots.map((change) => throughBar(context, change)) },
    met: all.length - roots.length,
    of: all.length,
    limit: 0.5,
    worth: 0.9,
    title: 'Beyond the root',
    sentence: `You landed on the root at ${roots.length} of ${all.length} changes; the third or seventh tells the chord better.`,
    drill: { plan: 'single-target', target: 'third', pass: 'land on the third in 10 of 12' },
  });
}

export function leapsIntoChanges(context: FindingContext): Measure[] {
  const all = landedOn(context).filter(
    ({ connection }) => connection.kind !== null && connection.kind !== 'fresh',
  );
  const leaps = all.filter(({ connection }) => connection.kind === 'leap');
  return measure(context, {
    kind: 'leaps-into-changes',
    where: { bars: leaps.map((change) => throughBar(context, change)) },
    met: all.length - leaps.length,
    of: all.length,
    limit: 0.5,
    worth: 0.5,
    title: 'The nearest note',
    sentence: `You leapt into ${leaps.length} of ${all.length} changes; a target lay nearer.`,
    drill: { target: 'the nearest target', pass: 'step or skip into 10 of 12 changes' },
  });
}

const LATE_BY = 0.75;
const EARLY_BY = 1;

/** The median over all changes of where the line turned, against the change. */
export function turns(context: FindingContext): Measure[] {
  const all = context.report.changes.flatMap((change) =>
    change.turnedAtBeat === undefined || change.landing.rest
      ? []
      : [{ change, by: change.turnedAtBeat - change.beat }],
  );
  const sorted = all.map(({ by }) => by).sort((a, b) => a - b);
  // where single changes are hard to read the line as a whole tells: it fits the chart best so much later
  const { lagBeats } = context.report.time;
  const middle =
    Math.abs(lagBeats) >= LATE_BY
      ? lagBeats
      : Math.sign(sorted[sorted.length >> 1] ?? 0) * Math.min(Math.abs(sorted[sorted.length >> 1] ?? 0), 0.5);
  const say = (kind: 'turns-late' | 'turns-early', off: typeof all, word: string) =>
    measure(context, {
      kind,
      where: { bars: off.map(({ change }) => throughBar(context, change)) },
      met: all.length - off.length,
      of: all.length,
      limit: 0.75,
      worth: 1.2,
      raised: all.length >= ENOUGH,
      title: kind === 'turns-late' ? 'Turning with the chord' : 'Waiting for the chord',
      sentence: `Your line turned to the new chord ${word} at ${off.length} of ${all.length} changes, by ${Math.abs(middle).toFixed(1)} beats in the middle.`,
      drill: { target: 'the new chord’s third on the change', pass: 'turn within half a beat in 10 of 12' },
    });
  if (middle >= LATE_BY - 1e-6)
    return say(
      'turns-late',
      all.filter(({ by }) => by >= 0.5),
      'late',
    );
  return middle <= -EARLY_BY + 1e-6
    ? say(
        'turns-early',
        all.filter(({ by }) => by <= -0.5),
        'early',
      )
    : [];
}
