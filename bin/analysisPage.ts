import { intoChordsWords } from '@/presentation/handoverWords';
import type { LandingMark, Report } from '@/core/analyse';
import { homeOf, timelineOf, type Chart } from '@/core/chart';
import { spelledOver, type FirstPage, type OnTheNeck } from '@/core/findings';
import { spelledWords } from '@/presentation';
import { FLAT_NAMES, intervalWord, leansSharp, SHARP_NAMES, typeset, type Scale } from '@/core/music';
import { elementAt, present } from '@/core/shared';
import { findingLines, firstPageLines, wrapped } from './firstPageLines';

/** Every interval as it prints, upwards from the root. */
const INTERVALS = [
  '1',
  'b9',
  '9',
  'b3',
  '#9',
  'n3',
  '3',
  '4',
  '#11',
  'b5',
  'n5',
  '5',
  '#5',
  'b13',
  '6',
  'b7',
  'n7',
  '7',
];
const percent = (share: number | null): string => (share === null ? '–' : `${Math.round(share * 100)} %`);
const signed = (value: number, digits = 0): string => `${value > 0 ? '+' : ''}${value.toFixed(digits)}`;
const count = (number: number, one: string, many = `${one}s`): string =>
  `${number} ${number === 1 ? one : many}`;
const section = (title: string, lines: readonly string[], legend = ''): string[] =>
  lines.length === 0
    ? []
    : ['', `${title.toUpperCase()}${legend && `   ${legend}`}`, ...lines.map((line) => `  ${line}`)];
const beatAt = (beat: number): string => (Math.abs(beat) < 0.05 ? '0.0' : beat.toFixed(1));

/** The whole report for a terminal: what to practise first, then change by change, and what it rests on. */
export function page(
  chart: Chart,
  tempo: number,
  report: Report,
  first: FirstPage,
  marks: readonly LandingMark[],
  neck: OnTheNeck,
): string {
  const { summary } = report;
  return [
    `${chart.title || 'Untitled'}: ${count(summary.notes, 'note')} over ${count(summary.choruses, 'chorus', 'choruses')} at ${tempo}`,
    `Targets met at ${summary.targetsMet} of ${summary.judgedChanges} changes${summary.targetsMetLate ? `, ${summary.targetsMetLate} more late` : ''}; ${summary.notesInPlan} of ${summary.notesJudged} notes fit the plan.`,
    ...section('First', firstPageLines(first)),
    ...section(
      'Also noticed',
      first.also.flatMap((finding) => findingLines(finding)),
    ),
    ...section(
      'Also noticed, not certain',
      first.uncertain.map(({ title, met, of }) => `${title}: ${met} of ${of}`),
    ),
    ...section(
      'Changes',
      form(chart, tempo, report, marks),
      '● target  ◐ target, late  ○ chord tone  ╳ not met  · rest',
    ),
    ...section('Change by change', report.changes.map(changeLine)),
    ...section(
      'Phrases',
      report.phrases.map((phrase, index) => phraseLine(phrase, index)),
    ),
    ...section('What you used over each chord', report.coverage.flatMap(coverageLines)),
    ...section(
      'What you spelled over each chord',
      spelledOver(report, timelineOf(chart, tempo))
        .map(
          ({ chord, bar, shapes }) =>
            `${typeset(chord)}${bar === null ? '' : ` bar ${bar}`}: ${shapes.map(spelledWords).join('; ')}`,
        )
        .flatMap(wrapped),
    ),
    ...section('How you got there', figures(report)),
    ...section(
      'Would the chords be heard with the band muted?',
      mutedBand(report),
      '● heard  ◐ unclear  ○ not heard  · silent',
    ),
    ...section('Time and line', [...timeAndLine(report, homeOf(chart)), ...handOf(neck)]),
    ...section(
      'Chorus by chorus',
      report.arc.map(
        (arc) =>
          `${arc.chorus}: height ${arc.meanHeight === null ? '–' : arc.meanHeight.toFixed(1)}, ${arc.density.toFixed(1)} notes a bar${arc.loudness === null ? '' : `, ${arc.loudness.toFixed(0)} dB`}`,
      ),
    ),
    ...section(
      'Thirds',
      report.thirds.length === 0
        ? []
        : [
            `${report.thirds.length} blue thirds, ${Math.round(report.thirds.reduce((sum, { cents }) => sum + cents, 0) / report.thirds.length)} cents above the minor third in the middle`,
          ],
    ),
    ...section(
      'Where you were',
      report.place.map(
        ({ fromBeat, toBeat, lagBeats }) =>
          `beats ${fromBeat} to ${toBeat}: the line fits the chart ${Math.abs(lagBeats)} beats ${lagBeats > 0 ? 'earlier' : 'later'}`,
      ),
    ),
    ...section(
      'Chords and line',
      report.handovers.map(
        (one) =>
          `bar ${one.bar}: to ${one.to}, ${signed(one.lateBeats, 1)} beats from its bar line, ${one.gapBeats.toFixed(1)} beats of silence${intoChordsWords(report, one)}`,
      ),
    ),
    '',
  ].join('\n');
}

const MARKS: Record<LandingMark, string> = {
  target: '●',
  'target-late': '◐',
  'chord-tone': '○',
  'not-met': '╳',
  rest: '·',
};

/** Four bars to a row, each chord with the mark of the change into it. */
function form(chart: Chart, tempo: number, report: Report, landings: readonly LandingMark[]): string[] {
  const { bars, chordSpans: stretches, formBeats } = timelineOf(chart, tempo);
  const marks = new Map(
    report.changes.map((change, index) => [Math.round(change.beat * 1e4), MARKS[elementAt(landings, index)]]),
  );
  return Array.from({ length: report.summary.choruses }, (_, chorus) => {
    const cells = bars.map((bar) =>
      stretches
        .filter(({ bar: own }) => own === bar.index)
        .map(
          ({ chord, start }) =>
            `${marks.get(Math.round((start + chorus * formBeats) * 1e4)) ?? ' '}${chord ? typeset(chord.symbol) : 'N.C.'}`,
        )
        .join(' ')
        .padEnd(18),
    );
    return cells.flatMap((_cell, index) =>
      index % 4 === 0
        ? [`${index === 0 ? `${chorus + 1}`.padEnd(3) : '   '}│${cells.slice(index, index + 4).join('│')}│`]
        : [],
    );
  }).flat();
}

function changeLine(change: Report['changes'][number]): string {
  const { landing, connection } = change;
  const turned =
    change.turnedAtBeat === undefined || Math.abs(change.turnedAtBeat - change.beat) < 0.5
      ? ''
      : `, turned ${signed(change.turnedAtBeat - change.beat, 1)} beats`;
  let what: string;
  if (landing.rest) what = 'at rest';
  else if (landing.interval)
    what = `${typeset(landing.interval)} ${landing.timing}, ${landing.verdict}${landing.delayed ? ', home later' : ''}${connection.kind ? `, by ${connection.kind}` : ''}`;
  else what = 'no landing';
  return `${String(change.chorus).padStart(2)}:${String(change.bar).padStart(2, '0')}  ${typeset(`${change.from} → ${change.to}`).padEnd(18)} ${what}${turned}`;
}

function phraseLine(phrase: Report['phrases'][number], index: number): string {
  const also = [
    phrase.motif === undefined ? '' : `motif ${phrase.motif + 1}`,
    phrase.theme === undefined ? '' : `theme ${phrase.theme + 1}`,
    phrase.answers === undefined ? '' : `answers ${phrase.answers + 1}`,
  ].filter(Boolean);
  return `${String(index + 1).padStart(2)}  beats ${beatAt(phrase.startBeat)} to ${beatAt(phrase.endBeat)}, ${count(phrase.changesCrossed, 'change')} crossed, ends on ${phrase.endInterval ? typeset(phrase.endInterval) : 'no chord'}: ${phrase.end}${also.length ? `; ${also.join(', ')}` : ''}`;
}

function coverageLines({
  chord,
  function: degree,
  count: notes,
  judged,
  byInterval,
  missing,
}: Report['coverage'][number]): string[] {
  const used = INTERVALS.filter((name) => byInterval[name])
    .map((name) => `${typeset(name)} ${present(byInterval[name]).count}`)
    .join('  ');
  return [
    `${typeset(chord).padEnd(9)} ${degree.padEnd(8)} ${judged ? '' : '(few) '}${notes === 0 ? 'never sounded' : used}`,
    ...(missing.length > 0 && notes > 0 ? [`${' '.repeat(19)}never ${missing.map(typeset).join(' ')}`] : []),
  ];
}

function figures(report: Report): string[] {
  const kinds = new Map<string, number>();
  for (const { kind } of report.figures) kinds.set(kind, (kinds.get(kind) ?? 0) + 1);
  for (const { kind, name } of report.shapes)
    kinds.set(
      kind === 'arpeggio' ? `arpeggio (${name})` : kind,
      (kinds.get(kind === 'arpeggio' ? `arpeggio (${name})` : kind) ?? 0) + 1,
    );
  const lines = [...kinds].sort((a, b) => b[1] - a[1]).map(([kind, number]) => `${kind}: ${number}`);
  const home = report.stepOuts.filter(({ homeIndex }) => homeIndex !== null).length;
  const passedBy = report.missedDoors.slice(0, 6).map(({ changeIndex, fromInterval, toInterval }) => {
    const change = elementAt(report.changes, changeIndex);
    return `${change.chorus}:${String(change.bar).padStart(2, '0')} ${intervalWord(fromInterval)} to ${intervalWord(toInterval)}`;
  });
  return [
    ...wrapped(lines.join(', ')),
    ...(report.stepOuts.length ? [`stepped out ${report.stepOuts.length} times, home ${home} times`] : []),
    ...(passedBy.length
      ? wrapped(`half steps passed by (${report.missedDoors.length}): ${passedBy.join('; ')}`)
      : []),
  ].filter(Boolean);
}

function mutedBand({ mutedBand: { share, chance, segments }, heardBy: { byChange } }: Report): string[] {
  const strip = segments
    .map(({ verdict }) => ({ heard: '●', unclear: '◐', 'not-heard': '○', silent: '·' })[verdict])
    .join('');
  const missed = segments
    .filter(({ verdict }) => verdict === 'not-heard')
    .slice(0, 5)
    .map(
      ({ beat, chord, said, best }) =>
        `beat ${beat}: ${typeset(chord)}, the line said ${typeset(said ?? best)}`,
    );
  const kinds = byChange
    .filter(({ of }) => of >= 3)
    .sort((a, b) => a.heard / a.of - b.heard / b.of)
    .slice(0, 4)
    .map(({ change, heard, of }) => `${typeset(change)} ${heard} of ${of}`);
  return [
    `heard ${percent(share)}, by chance ${percent(chance)}${kinds.length ? `; least after ${kinds.join(', ')}` : ''}`,
    ...(strip.match(/.{1,64}/gu) ?? []),
    ...missed,
  ];
}

/** Where the hand was most, by the likeliest fingering. */
function handOf({ positions, shifts }: OnTheNeck): string[] {
  const most = Object.entries(positions)
    .sort((a, b) => b[1] - a[1])
    .slice(0, 3)
    .map(([position, notes]) => `${position === '0' ? 'open strings' : `position ${position}`} ${notes}`);
  return most.length === 0
    ? []
    : [`the likeliest hand: ${most.join(', ')} notes; ${count(shifts, 'shift')} inside phrases`];
}

function timeAndLine({ time, line, coverageOverall, bars }: Report, home: Scale): string[] {
  const names = leansSharp(home) ? SHARP_NAMES : FLAT_NAMES;
  const range = coverageOverall.range;
  const played = bars.filter(({ kind }) => kind !== 'rest').length;
  return [
    `${time.offsetMs === null ? 'no notes' : `${signed(time.offsetMs)} ms against the beat, spread ${Math.round(time.spreadMs ?? 0)} ms`}${time.swing === null ? '' : `, swing ${time.swing.toFixed(2)}`}${time.upbeats === null ? '' : `, ${percent(time.upbeats)} off the beat`}`,
    `${count(line.steps, 'step')}, ${count(line.skips, 'skip')}, ${count(line.leaps, 'leap')}, ${count(line.repeats, 'repeat')}; ${count(line.directionChanges, 'turn')}, longest way ${line.longestRun}`,
    `${played} of ${bars.length} bars played${range ? `; range ${range.highest - range.lowest} semitones` : ''}${coverageOverall.homeUnused.length ? `; never: ${coverageOverall.homeUnused.map((pc) => typeset(elementAt(names, pc))).join(' ')} of the home scale` : ''}`,
  ];
}
