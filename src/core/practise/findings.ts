import type { ChangeReport, Report } from '../analyse';
import { gateMark } from '../analyse';
import type { GateMark } from '../analyse';
import { certain } from '../vocabulary';
import { intervalOver, noteName, readChord, spellOver } from '../music';
import { harmonyOf, timelineOf, type Chart } from '../chart';
import { cellAt, planOf, type Plan, type PlanChoice } from '../plan';
import { times, typeset, intervalWord } from './words';
import { wilsonInterval } from './wilson';

export type FindingKind = 'target-missed' | 'change-ignored' | 'tone-never-played' | 'ends-asking' | 'no-space';

/** What to practise: which chords, aimed at what, when it counts as done, and how fast. */
export type DrillSpec = { readonly change?: string; readonly chord?: string; readonly plan: string; readonly target: string; readonly pass: string; readonly tempo: number };

/** A plain fact with its counts and place (2-theory, "Findings"). `bars` count from 1 through all choruses. */
export type Finding = {
  readonly kind: FindingKind;
  readonly where: { readonly change?: string; readonly chord?: string; readonly bars: readonly number[] };
  readonly met: number;
  readonly of: number;
  readonly interval: readonly [number, number];
  readonly title: string;
  /** The fact with its counts; `detail` says what happened instead. */
  readonly sentence: string;
  readonly detail?: string;
  readonly drill: DrillSpec;
  /** How often × how much it hides the harmony × how near the fix. */
  readonly weight: number;
};

export type FindingsRequest = { readonly chart: Chart; readonly tempo: number; readonly plan: PlanChoice; readonly report: Report };

/** A finding needs five places to be judged by and an upper end below its limit. */
const ENOUGH = 5;
const MISSED_LIMIT = 0.75;
/** A tell-tale tone is missed in ten notes, another chord tone in fifteen. */
const IGNORED_IN = 10;
const NEVER_IN = 15;

/** Ranked findings of one report; the first is the one to say. Kinds beyond these follow with the judgement work. */
export function findingsOf(request: FindingsRequest): Finding[] {
  const timeline = timelineOf(request.chart, request.tempo);
  const plan = planOf(request.plan, harmonyOf(request.chart, timeline), timeline);
  const context = { ...request, plan, barsPerChorus: timeline.bars.length };
  const missed = targetsMissed(context);
  const ignored = tonesNeverPlayed(context, missed);
  return [...missed, ...ignored, ...endsAsking(context), ...noSpace(context)].sort((a, b) => b.weight - a.weight);
}

type Context = Omit<FindingsRequest, 'plan'> & { readonly plan: Plan; readonly barsPerChorus: number };

/** The five marks of a report's changes, by change. */
export function marksOf(report: Report, plan: Plan, chart: Chart, tempo: number): GateMark[] {
  const { stretches, formBeats } = timelineOf(chart, tempo);
  return report.changes.map((change) => {
    const at = change.beat - Math.floor(change.beat / formBeats + 1e-9) * formBeats;
    const stretch = stretches.findLast((one) => one.start <= at + 1e-6) ?? stretches[0]!;
    return gateMark(change.landing, (index) => cellAt(plan, stretch.index, change.chorus - 1).targets.includes(((Math.round(report.notes[index]!.midi) % 12) + 12) % 12));
  });
}

const throughBar = ({ barsPerChorus }: Context, change: ChangeReport): number => (change.chorus - 1) * barsPerChorus + change.bar;

/** Per kind of change: targets met, late ones counted as met. */
function targetsMissed(context: Context): Finding[] {
  const { report, plan, chart, tempo } = context;
  const marks = marksOf(report, plan, chart, tempo);
  const kinds = new Map<string, number[]>();
  report.changes.forEach((change, index) => {
    if (marks[index] !== 'rest') kinds.set(`${change.from}→${change.to}`, [...(kinds.get(`${change.from}→${change.to}`) ?? []), index]);
  });
  return [...kinds].flatMap(([kind, indices]) => {
    const late = indices.filter((index) => marks[index] === 'target-late').length;
    const met = indices.filter((index) => marks[index] === 'target').length + late;
    const interval = wilsonInterval(met, indices.length);
    if (indices.length < ENOUGH || interval[1] >= MISSED_LIMIT) return [];
    const missed = indices.filter((index) => !['target', 'target-late'].includes(marks[index]!)).map((index) => report.changes[index]!);
    return [describeMissed(context, kind, missed, met, late, indices.length, interval)];
  });
}

function describeMissed(context: Context, kind: string, missed: readonly ChangeReport[], met: number, late: number, of: number, interval: readonly [number, number]): Finding {
  const [from, to] = kind.split('→') as [string, string];
  const chord = certain(readChord(to));
  const target = targetWords(context, missed[0]!, to);
  const instead = mostCommon(missed.map((change) => change.landing.interval).filter((one) => one !== null));
  const detail = instead ? `Most often you were on its ${intervalWord(instead)}.` : 'Most often no note came.';
  const near = missed.filter((change) => change.fix !== null).length / missed.length;
  return {
    kind: 'target-missed', where: { change: kind, bars: missed.map((change) => throughBar(context, change)) }, met, of, interval,
    title: `${target.names} over ${typeset(to)}`,
    sentence: `Coming from ${typeset(from)} into ${typeset(to)} you met ${target.words} ${times(met)} in ${of}${late > 0 ? `, ${late === met ? 'late' : `${times(late)} late`}` : ''}.`, detail,
    drill: { change: kind, plan: context.plan.id, target: target.names, pass: `meet it in 10 of 12`, tempo: Math.max(40, Math.round((context.tempo * 0.75) / 4) * 4) },
    weight: (missed.length / Math.max(1, context.report.changes.length)) * (1 - met / of) * (chord.quality === 'power' ? 0.5 : 1) * (0.5 + near),
  };
}

/** `D or A♭, its third or seventh` */
function targetWords({ plan, chart, tempo }: Context, change: ChangeReport, to: string): { names: string; words: string } {
  const { stretches, formBeats } = timelineOf(chart, tempo);
  const at = change.beat - Math.floor(change.beat / formBeats + 1e-9) * formBeats;
  const cell = cellAt(plan, (stretches.findLast((one) => one.start <= at + 1e-6) ?? stretches[0]!).index, change.chorus - 1);
  const chord = certain(readChord(to));
  const names = cell.targets.map((pc) => typeset(noteName(spellOver(chord, pc)))).join(' or ');
  const words = cell.targets.map((pc) => intervalWord(intervalOver(chord, pc))).join(' or ');
  return { names, words: `${names}, its ${words},` };
}

function mostCommon(values: readonly string[]): string | null {
  const counts = new Map<string, number>();
  for (const value of values) counts.set(value, (counts.get(value) ?? 0) + 1);
  return [...counts].sort((a, b) => b[1] - a[1])[0]?.[0] ?? null;
}

/** Chord tones that never sounded: the ones the home scale lacks in ten notes, the others in fifteen. One cause, one finding. */
function tonesNeverPlayed(context: Context, missed: readonly Finding[]): Finding[] {
  const { report, chart, tempo } = context;
  const harmony = harmonyOf(chart, timelineOf(chart, tempo));
  const seen = new Set(missed.map((finding) => finding.where.change?.split('→')[1]));
  return report.coverage.flatMap((cover) => {
    const chord = certain(readChord(cover.chord));
    const reading = harmony.readings.findIndex((one) => one?.chord.symbol === cover.chord);
    const home = harmony.homeScales[reading]!.pcs;
    return chord.tones.flatMap((tone): Finding[] => {
      const telling = !home.includes(tone.pc);
      const name = intervalOver(chord, tone.pc);
      if (cover.byInterval[name] || cover.count < (telling ? IGNORED_IN : NEVER_IN) || seen.has(cover.chord)) return [];
      const note = typeset(noteName(tone.note));
      return [{
        kind: telling ? 'change-ignored' : 'tone-never-played', where: { chord: cover.chord, bars: [] }, met: 0, of: cover.count, interval: wilsonInterval(0, cover.count),
        title: `${note} over ${typeset(cover.chord)}`,
        sentence: `Over ${typeset(cover.chord)} you never played ${note}, its ${intervalWord(name)}, in ${cover.count} notes.`,
        ...(telling ? { detail: 'It is the note your home scale lacks there.' } : {}),
        drill: { chord: cover.chord, plan: 'single-target', target: note, pass: 'land on it in 10 of 12', tempo: Math.max(40, Math.round((tempo * 0.75) / 4) * 4) },
        weight: (cover.count / Math.max(1, report.notes.length)) * (telling ? 0.8 : 0.35),
      }];
    });
  });
}

function endsAsking(context: Context): Finding[] {
  const { phrases } = context.report;
  const asking = phrases.filter((phrase) => phrase.end === 'asks').length;
  const interval = wilsonInterval(phrases.length - asking, phrases.length);
  if (phrases.length < ENOUGH || asking / phrases.length < 0.6 || interval[1] >= MISSED_LIMIT) return [];
  return [{
    kind: 'ends-asking', where: { bars: [] }, met: phrases.length - asking, of: phrases.length, interval, title: 'Phrases that ask',
    sentence: `${asking} of ${phrases.length} phrases ended on a note that wants to go on.`,
    drill: { plan: context.plan.id, target: 'root or third', pass: 'end 8 of 10 phrases at home', tempo: context.tempo }, weight: 0.05,
  }];
}

/** Less than 8 % of the time in rests, counted in beats. */
function noSpace(context: Context): Finding[] {
  const { phrases, summary } = context.report;
  const total = Math.round(summary.choruses * timelineOf(context.chart, context.tempo).formBeats);
  const played = phrases.reduce((sum, phrase) => sum + phrase.endBeat - phrase.startBeat, 0);
  const rest = Math.max(0, Math.round(total - played));
  const interval = wilsonInterval(rest, total);
  if (context.report.notes.length < 40 || interval[1] >= 0.08) return [];
  return [{
    kind: 'no-space', where: { bars: [] }, met: rest, of: total, interval, title: 'Room to breathe',
    sentence: `${rest} of ${total} beats were silence; a listener needs a breath between phrases.`,
    drill: { plan: context.plan.id, target: 'two bars on, one bar off', pass: 'rest in every third bar', tempo: context.tempo }, weight: 0.06,
  }];
}
