import {
  avoidNotes,
  changesOf,
  guideToneLineOf,
  harmonyOf,
  tellTaleTones,
  timelineOf,
  type Chart,
  type ChordReading,
  type GuideToneStop,
  type Harmony,
  type Timeline,
} from '@/core/chart';
import { typeset } from '@/core/music';
import {
  guideTones,
  intervalOver,
  keyName,
  noteName,
  plainNote,
  scaleNotes,
  spellerOf,
  spellOver,
  toneByRole,
  type Chord,
  type Scale,
} from '@/core/music';
import {
  cellAt,
  clashesOf,
  homeGridOf,
  planOn,
  readPlan,
  type Clash,
  type GridColumn,
  type Plan,
  type PlanCell,
  type PlanChoice,
} from '@/core/plan';
import { elementAt, present } from '@/core/shared';
import { intervalLabel } from '@/ui/intervalLabel';

/** Everything Study shows of a chart under a plan: derived once, drawn many times. */
export type Study = {
  readonly chart: Chart;
  readonly timeline: Timeline;
  readonly harmony: Harmony;
  readonly plan: Plan;
  readonly thread: readonly GuideToneStop[];
  readonly meta: readonly string[];
  readonly say: readonly [string, string];
  readonly cells: readonly StudyCell[];
  /** The home scale of each chord without the player's choice. */
  readonly homesWithout: readonly string[];
  readonly clashes: readonly Clash[];
  readonly grid: readonly GridColumn[];
};

/** One written chord as the form shows it. */
export type StudyCell = {
  readonly index: number;
  readonly bar: number;
  readonly start: number;
  readonly end: number;
  readonly chord: Chord | null;
  readonly reading: ChordReading | null;
  readonly degree: string;
  readonly lacks: readonly string[];
  readonly rubs: readonly string[];
  /** Superimposed changes over this chord. */ readonly over: string;
  /** Goes on from the chord before it. */ readonly same: boolean;
  readonly plan: PlanCell;
};

/** What stands under a note on the page: its interval over the chord; strong where it is the root, then the chord's. */
export function degreeOver(chord: Chord, root: number, pc: number): { label: string; tier: number } {
  const isTone = chord.tones.some((tone) => tone.pc === pc);
  return { label: intervalLabel(intervalOver(chord, pc)), tier: pc === root || isTone ? 0 : 2 };
}

export const nameOver = (chord: Chord, pc: number): string => typeset(noteName(spellOver(chord, pc)));

export function studyOf(chart: Chart, choice: PlanChoice, overlay: Chart | null = null): Study {
  const timeline = timelineOf(chart, chart.tempo ?? 120);
  const { plan, harmony } = planOn(chart, timeline, choice);
  const planned = readPlan(chart, timeline, choice);
  const laid = overlay ? timelineOf(overlay, 120).chordSpans : [];
  const cells = timeline.chordSpans.map((stretch, index): StudyCell => {
    const reading = elementAt(harmony.readings, index);
    const home = elementAt(plan.homeScales, index);
    const before = timeline.chordSpans[index - 1]?.chord ?? null;
    return {
      index,
      bar: stretch.bar + 1,
      start: stretch.start,
      end: stretch.end,
      chord: stretch.chord,
      reading,
      plan: cellAt(plan, index),
      over: laid
        .filter(
          (one) =>
            one.chord &&
            one.start < stretch.end - 1e-6 &&
            one.end > stretch.start + 1e-6 &&
            one.chord.symbol !== stretch.chord?.symbol,
        )
        .map((one) => typeset(present(one.chord).symbol))
        .join(' '),
      same: before !== null && stretch.chord !== null && before.symbol === stretch.chord.symbol,
      degree: reading ? intervalLabel(reading.degree) : '',
      lacks: stretch.chord
        ? tellTaleTones(stretch.chord, home).map(({ pc }) => nameBeside(stretch.chord, home, pc))
        : [],
      rubs: stretch.chord
        ? avoidNotes(stretch.chord, home).map((pc) => nameBeside(stretch.chord, home, pc))
        : [],
    };
  });
  return {
    chart,
    timeline,
    harmony,
    plan,
    thread: guideToneLineOf(timeline.chordSpans.map(({ chord }) => chord)),
    meta: metaOf(chart, harmony, plan),
    say: sentences(cells, plan),
    cells,
    homesWithout: harmonyOf(chart, timeline).homeScales.map(({ name }) => name),
    clashes: clashesOf(planned),
    grid: homeGridOf(planned),
  };
}

const nameBeside = (chord: Chord | null, home: Scale, pc: number): string =>
  typeset(noteName(spellerOf(chord, home)(pc)));

function metaOf(chart: Chart, harmony: Harmony, plan: Plan): string[] {
  const home = plan.homeScales[0];
  const keys = [...new Set(harmony.regions.map(({ key }) => keyName(key).replace(' major', '')))].map(
    typeset,
  );
  return [
    chart.title || 'Untitled',
    `${chart.bars.length} bars in ${keys.slice(0, 4).join(', ')}${keys.length > 4 ? ' and more' : ''}`,
    ...(home
      ? [
          `home scale ${typeset(home.name)}: ${scaleNotes(home)
            .map((note) => typeset(noteName(plainNote(note))))
            .join(' ')}`,
        ]
      : []),
  ];
}

const NUMBERS = [
  'none',
  'one',
  'two',
  'three',
  'four',
  'five',
  'six',
  'seven',
  'eight',
  'nine',
  'ten',
  'eleven',
  'twelve',
];
export const counted = (count: number): string => NUMBERS[count] ?? String(count);

/** What the home scale leaves out, in two sentences: the thirds it lacks, and over which chords. */
function sentences(cells: readonly StudyCell[], plan: Plan): [string, string] {
  const thirds = new Map<string, { name: string; symbol: string; lacking: boolean }>();
  for (const { chord, index } of cells) {
    const third = chord ? toneByRole(chord, 'third') : undefined;
    if (chord && third)
      thirds.set(chord.symbol, {
        name: typeset(noteName(third.note)),
        symbol: typeset(chord.symbol),
        lacking: !elementAt(plan.homeScales, index).pcs.includes(third.pc),
      });
  }
  const all = [...thirds.values()];
  const lacking = all.filter((one) => one.lacking);
  if (all.length === 0)
    return ['No chord here has a third.', 'The roots and what stands between them carry the form.'];
  if (lacking.length === 0)
    return [
      `Your home scale holds ${heldThirds(all)} of this form.`,
      'What tells the chords apart is where each third and seventh goes: follow the thread.',
    ];
  const named = lacking
    .slice(0, 4)
    .map(({ name, symbol }) => `${name} over ${symbol}`)
    .join(', ');
  const more = lacking.length > 4 ? ` and ${counted(lacking.length - 4)} more` : '';
  return [
    `Your home scale lacks ${lackedThirds(lacking, all)}.`,
    lacking.length === 1
      ? `${named}: that one tells the chords apart.`
      : `${named}${more}: those ${counted(lacking.length)} tell the chords apart.`,
  ];
}

/** The next chord after one that changes: where the selected chord leads. The form is a loop. */
export function nextChange({ cells }: Study, index: number): StudyCell {
  for (let step = 1; step <= cells.length; step++) {
    const cell = elementAt(cells, (index + step) % cells.length);
    if (cell.chord && cell.chord.symbol !== elementAt(cells, index).chord?.symbol) return cell;
  }
  return elementAt(cells, index);
}

/** Changes of one chorus, the loop's own included, for the sentence about staying in one place. */
export const changesInForm = ({ timeline }: Study): number =>
  changesOf(timeline, 2).filter((change) => change.chorus === 1).length;

export const guidePcs = (chord: Chord): number[] => guideTones(chord).map((tone) => tone.pc);
export function heldThirds(all: { name: string; symbol: string; lacking: boolean }[]) {
  if (all.length === 1) return 'the third';
  if (all.length === 2) return 'both thirds';
  return `all ${counted(all.length)} thirds`;
}

export function lackedThirds(
  lacking: { name: string; symbol: string; lacking: boolean }[],
  all: { name: string; symbol: string; lacking: boolean }[],
) {
  if (lacking.length === all.length) {
    if (all.length === 1) return 'the third';
    return `all ${counted(all.length)} thirds`;
  }
  return `${counted(lacking.length)} of the ${counted(all.length)} thirds`;
}
