import type { ChangeReport, Phrase, Report } from '../analyse';
import { beatsPerBar, placeOf, type Chart, type Timeline } from '../chart';
import { readChord, toneByRole, type Chord, type ToneRole } from '../music';
import { fitsOneLocation } from '../neck';
import { certain, pitchClassOf, type Beats, type Semitones } from '../vocabulary';

/** A tone of the chord that a drill aims at. */
export type Aim = 'root' | 'third' | 'fifth' | 'seventh' | 'chord';

/** What a drill is passed by: one thing that can be heard, and only that. */
export type Rule =
  /** At each change: land on one of these tones, on time; `led` by a note so many semitones away (−1: from a half step below); `early`: only ahead of it. */
  | { readonly kind: 'land'; readonly tones: readonly Aim[]; readonly led?: readonly Semitones[]; readonly early?: true }
  /** At each change: the landing is the target of an enclosure or of two half steps one way. */
  | { readonly kind: 'figure'; readonly figures: readonly ('enclosure' | 'double-chromatic')[] }
  /** Over each chord: nothing but its tones, or nothing but what the plan would play. */
  | { readonly kind: 'material'; readonly of: 'chord' | 'plan' }
  /** At each change: no rest and no leap: the next note is the same or a step away. */
  | { readonly kind: 'join' }
  /** In each bar that is played in: a shape of this kind. */
  | { readonly kind: 'shape'; readonly shapes: readonly ('arpeggio' | 'scale-run' | 'sequence')[] }
  /** Each phrase begins on this beat of the bar, from 1; `2.5` is the second half of beat 2. */
  | { readonly kind: 'start'; readonly beat: number }
  /** After each phrase so many bars of nothing. */
  | { readonly kind: 'space'; readonly bars: number }
  /** Over each chord: nothing that one place of the neck does not hold, with all that was played before it. */
  | { readonly kind: 'place' }
  /** In each bar: no higher than this, or at least once as high. */
  | { readonly kind: 'height'; readonly most?: number; readonly least?: number }
  /** In each bar that is played in: notes on the upbeats. */
  | { readonly kind: 'upbeats' };

/** How one place of an attempt went. Beats of the take. */
export type Gate = { readonly beat: Beats; readonly met: boolean };
export type Attempt = { readonly gates: readonly Gate[]; readonly met: number; readonly of: number };

const ROLES: Record<Exclude<Aim, 'root' | 'chord'>, readonly ToneRole[]> = { third: ['third', 'sus'], fifth: ['fifth'], seventh: ['seventh', 'sixth'] };
const ON_TIME = ['on', 'early'];

/** The pitch classes an aim names over a chord; none where the chord has no such tone. */
export function tonesOf(chord: Chord, aims: readonly Aim[]): number[] {
  return [...new Set(aims.flatMap((aim) => (aim === 'chord' ? chord.tones.map(({ pc }) => pc) : aim === 'root' ? [chord.tones[0]!.pc] : (toneByRole(chord, ...ROLES[aim])?.pc ?? []))))];
}

/** What was heard, gate by gate, by one rule. Changes at rest are no gates: nobody was playing. */
export function attemptOf(rule: Rule, report: Report, chart: Chart, timeline: Timeline): Attempt {
  const gates = gatesOf(rule, report, chart, timeline);
  return { gates, met: gates.filter(({ met }) => met).length, of: gates.length };
}

function gatesOf(rule: Rule, report: Report, chart: Chart, timeline: Timeline): Gate[] {
  switch (rule.kind) {
    case 'land': return changes(report, (change) => landed(change, rule, report));
    case 'figure': return changes(report, ({ landing }) => report.figures.some(({ kind, targetIndex }) => targetIndex === landing.noteIndex && (rule.figures as readonly string[]).includes(kind)));
    case 'join': return changes(report, ({ landing, connection }) => ON_TIME.concat('held').includes(landing.timing) && (connection.kind === 'common' || connection.kind === 'step'));
    case 'material': return overChords(report, (notes) => notes.every(({ height, inPlan }) => (rule.of === 'chord' ? height === 0 : inPlan)));
    case 'place': return inOnePlace(report);
    case 'shape': return bars(report, timeline, (indices) => report.shapes.some(({ kind, noteIndices }) => (rule.shapes as readonly string[]).includes(kind) && noteIndices.some((index) => indices.includes(index))));
    case 'height': return bars(report, timeline, (indices) => { const heights = indices.map((index) => report.notes[index]!.height); return (rule.most === undefined || heights.every((height) => height <= rule.most!)) && (rule.least === undefined || heights.some((height) => height >= rule.least!)); });
    case 'upbeats': return bars(report, timeline, (indices) => indices.filter((index) => isUpbeat(report.notes[index]!.onsetBeat)).length * 2 >= indices.length);
    case 'start': return report.phrases.filter(({ startBeat }) => startBeat >= -1e-6).map((phrase) => ({ beat: phrase.startBeat, met: startsOn(phrase, rule.beat, timeline) }));
    case 'space': return spaced(report.phrases, rule.bars * beatsPerBar(chart.meter));
  }
}

const changes = (report: Report, met: (change: ChangeReport) => boolean): Gate[] => report.changes.filter(({ landing }) => !landing.rest).map((change) => ({ beat: change.beat, met: met(change) }));

function landed({ landing, to }: ChangeReport, rule: Extract<Rule, { kind: 'land' }>, report: Report): boolean {
  if (landing.noteIndex === null || !(rule.early ? landing.timing === 'early' : ON_TIME.includes(landing.timing))) return false;
  const note = report.notes[landing.noteIndex]!;
  if (!tonesOf(certain(readChord(to)), rule.tones).includes(pitchClassOf(note.midi))) return false;
  if (!rule.led) return true;
  const before = report.notes.findLast((other) => other.top && other.onsetBeat < note.onsetBeat - 1e-6);
  return before !== undefined && rule.led.includes(Math.round(before.midi) - Math.round(note.midi));
}

/** Line notes by the chord they sound over, one run of a chord after the other. */
function overChords(report: Report, met: (notes: readonly Report['notes'][number][]) => boolean): Gate[] {
  const runs: Report['notes'][number][][] = [];
  for (const note of report.notes) {
    if (note.function === 'grace' || note.chord === null) continue;
    const run = runs[runs.length - 1];
    if (run && run[0]!.chord === note.chord && note.onsetBeat - run[run.length - 1]!.onsetBeat < 4) run.push(note);
    else runs.push([note]);
  }
  return runs.map((run) => ({ beat: run[0]!.onsetBeat, met: met(run) }));
}

/** A note that leaves the place fails its chord; the place is the one that holds what came before it. */
function inOnePlace(report: Report): Gate[] {
  const held: number[] = [];
  return overChords(report, (notes) => {
    const pitches = notes.map(({ midi }) => Math.round(midi));
    const fits = fitsOneLocation([...held, ...pitches]);
    if (fits) for (const pitch of pitches) if (!held.includes(pitch)) held.push(pitch);
    return fits;
  });
}

function bars(report: Report, timeline: Timeline, met: (indices: readonly number[]) => boolean): Gate[] {
  const found = new Map<number, number[]>();
  for (const { index, onsetBeat, function: deed } of report.notes) {
    if (onsetBeat < -1e-6 || deed === 'grace') continue;
    const { chorus, bar } = placeOf(timeline, onsetBeat + 1e-6);
    const start = chorus * timeline.formBeats + timeline.bars[bar]!.start;
    const inside = found.get(start);
    if (inside) inside.push(index);
    else found.set(start, [index]);
  }
  return [...found].map(([beat, indices]) => ({ beat, met: met(indices) }));
}

const isUpbeat = (beat: Beats): boolean => Math.abs(beat - Math.floor(beat) - 0.5) <= 0.22;

/** Rule of the drill, common practice, no source: within a fifth of a beat counts as that beat. */
function startsOn({ startBeat }: Phrase, beat: number, timeline: Timeline): boolean {
  const { bar, beatInBar } = placeOf(timeline, startBeat + 0.2);
  const length = timeline.bars[bar]!.end - timeline.bars[bar]!.start;
  const away = Math.abs(beatInBar - 0.2 - (beat - 1));
  return Math.min(away, length - away) <= 0.2 + 1e-6;
}

function spaced(phrases: readonly Phrase[], least: Beats): Gate[] {
  return phrases.slice(0, -1).map((phrase, index) => ({ beat: phrase.startBeat, met: phrases[index + 1]!.startBeat - phrase.endBeat >= least - 0.5 }));
}

/** A rule in a sentence, as it is said to a player. */
export function ruleWords(rule: Rule): string {
  const share = 'at every change';
  switch (rule.kind) {
    case 'land': return `Land on the ${rule.tones.map((tone) => (tone === 'chord' ? 'chord' : tone)).join(' or the ')} ${rule.early ? 'an eighth ahead of the change' : share}${rule.led ? `, from ${rule.led.map(ledWords).join(' or ')}` : ''}.`;
    case 'figure': return `Lead into the landing by ${rule.figures.map((kind) => (kind === 'enclosure' ? 'an enclosure' : 'two half steps one way')).join(' or ')} ${share}.`;
    case 'join': return 'Keep going through every change: the same note or a step, and no rest.';
    case 'material': return rule.of === 'chord' ? 'Nothing but chord tones over every chord.' : 'Nothing but what the plan would play over every chord.';
    case 'place': return 'Everything in one place of the neck.';
    case 'shape': return `In every bar ${rule.shapes.map((shape) => ({ arpeggio: 'an arpeggio', 'scale-run': 'a run of the scale', sequence: 'a pattern that moves' })[shape]).join(' or ')}.`;
    case 'height': return rule.most !== undefined ? ['Only chord tones.', 'Chord tones and colours, no higher.', 'Nothing outside the scale.'][rule.most] ?? 'Anything.' : `In every bar once ${['on the ground', 'a colour', 'off the chord', 'leading in', 'outside'][rule.least ?? 0]}.`;
    case 'upbeats': return 'At least half of every bar’s notes on the upbeats.';
    case 'start': return `Every phrase begins on ${Number.isInteger(rule.beat) ? `beat ${rule.beat}` : `the and of ${Math.floor(rule.beat)}`}.`;
    case 'space': return `${['No bar', 'A bar', 'Two bars', 'Three bars', 'Four bars'][rule.bars] ?? 'Many bars'} of nothing after every phrase.`;
  }
}

const ledWords = (semitones: Semitones): string => `${{ 1: 'a half step', 2: 'a whole step' }[Math.abs(semitones)] ?? `${Math.abs(semitones)} half steps`} ${semitones < 0 ? 'below' : 'above'}`;

