import type { ChangeReport, Phrase, Report } from '../analyse';
import { beatsPerBar, formPositionOf, type Chart, type Timeline } from '../chart';
import { readChord } from '../music';
import { fitsOneLocation, placesOf, reachFrom } from '../neck';
import { unwrap, pitchClassOf, type Beats, type Semitones, elementAt, present } from '../shared';
import { tonesOf, type Attempt, type RuleCheck, type Motif, type Rule } from './rule';

const ON_TIME = ['on', 'early'];

/** What was heard, gate by gate, by one rule. Changes at rest are no gates: nobody was playing. */
export function attemptOf(rule: Rule, report: Report, chart: Chart, timeline: Timeline): Attempt {
  const gates = gatesOf(rule, report, chart, timeline);
  return { gates, met: gates.filter(({ met }) => met).length, of: gates.length };
}

function gatesOf(rule: Rule, report: Report, chart: Chart, timeline: Timeline): RuleCheck[] {
  switch (rule.kind) {
    case 'land':
      return changes(report, (change) => landed(change, rule, report));
    case 'figure':
      return changes(report, ({ landing }) =>
        report.figures.some(
          ({ kind, targetIndex }) =>
            targetIndex === landing.noteIndex && (rule.figures as readonly string[]).includes(kind),
        ),
      );
    case 'join':
      return changes(
        report,
        ({ landing, connection }) =>
          ON_TIME.concat('held').includes(landing.timing) &&
          (connection.kind === 'common' || connection.kind === 'step'),
      );
    case 'material':
      return overChords(report, (notes) =>
        notes.every(({ height, inPlan }) => (rule.of === 'chord' ? height === 0 : inPlan)),
      );
    case 'place':
      return inOnePlace(report, rule.from);
    case 'shape':
      return shapeGates(report, timeline, rule);
    case 'up-and-down':
      return bars(report, timeline, (indices) => turns(report, indices, rule), true);
    case 'end':
      return phrases(report, ({ end }) => end === 'home');
    case 'cross':
      return phrases(report, ({ changesCrossed }) => changesCrossed > 0);
    case 'motif':
      return motifGates(report, rule.like);
    case 'vary':
      return phrases(
        report,
        (phrase, index) =>
          phrase.motif === undefined ||
          report.phrases.findIndex(({ motif }) => motif === phrase.motif) === index,
      );
    case 'answer':
      return phrases(report, ({ answers }) => answers !== undefined).filter((_, index) => index % 2 === 1);
    case 'home':
      return homeGates(report, timeline, rule.every);
    case 'trade':
      return report.bars
        .filter(({ kind }) => kind !== 'rest')
        .map(({ bar, kind }) => ({
          beat: startOfBar(timeline, bar - 1),
          met: kind === (Math.floor((bar - 1) / rule.bars) % 2 === 0 ? 'chords' : 'line'),
        }));
    case 'time':
      return bars(
        report,
        timeline,
        (indices) => (inTime(report, timeline, indices) ?? Infinity) <= rule.withinMs,
      );
    case 'range':
      return rangeGates(report, timeline, rule.semitones);
    case 'height':
      return bars(report, timeline, (indices) => {
        const heights = indices.map((index) => elementAt(report.notes, index).height);
        return (
          (rule.most === undefined || heights.every((height) => height <= present(rule.most))) &&
          (rule.least === undefined || heights.some((height) => height >= present(rule.least)))
        );
      });
    case 'upbeats':
      return bars(
        report,
        timeline,
        (indices) =>
          indices.filter((index) => isUpbeat(elementAt(report.notes, index).onsetBeat)).length * 2 >=
          indices.length,
      );
    case 'start':
      return rule.turn
        ? inTurn(report, rule.beat, timeline)
        : phrases(report, (phrase) => startsOn(phrase, rule.beat, timeline));
    case 'space':
      return spaced(report.phrases, rule.bars * beatsPerBar(chart.meter));
  }
}

const changes = (report: Report, met: (change: ChangeReport) => boolean): RuleCheck[] =>
  report.changes
    .filter(({ landing }) => !landing.rest)
    .map((change) => ({ beat: change.beat, met: met(change) }));

function landed(
  { landing, to }: ChangeReport,
  rule: Extract<Rule, { kind: 'land' }>,
  report: Report,
): boolean {
  if (
    landing.noteIndex === null ||
    !(rule.early ? landing.timing === 'early' : ON_TIME.includes(landing.timing))
  )
    return false;
  const note = elementAt(report.notes, landing.noteIndex);
  if (!tonesOf(unwrap(readChord(to)), rule.tones).includes(pitchClassOf(note.midi))) return false;
  if (
    rule.gliding &&
    (note.from !== undefined || note.flags.includes('slide') || note.flags.includes('bend'))
  )
    return true;
  if (!rule.led) return !rule.gliding;
  const before = report.notes.findLast((other) => other.top && other.onsetBeat < note.onsetBeat - 1e-6);
  return before !== undefined && rule.led.includes(Math.round(before.midi) - Math.round(note.midi));
}

/** Line notes by the chord they sound over, one run of a chord after the other. */
function overChords(
  report: Report,
  met: (notes: readonly Report['notes'][number][]) => boolean,
): RuleCheck[] {
  const runs: Report['notes'][number][][] = [];
  for (const note of report.notes) {
    if (note.function === 'grace' || note.chord === null) continue;
    const run = runs[runs.length - 1];
    if (
      run &&
      elementAt(run, 0).chord === note.chord &&
      note.onsetBeat - elementAt(run, run.length - 1).onsetBeat < 4
    )
      run.push(note);
    else runs.push([note]);
  }
  return runs.map((run) => ({ beat: elementAt(run, 0).onsetBeat, met: met(run) }));
}

/** A note that leaves the place fails its chord; the place is the one that holds what came before it. */
function inOnePlace(report: Report, from?: number): RuleCheck[] {
  const held: number[] = [];
  const there =
    from === undefined
      ? null
      : new Set(placesOf(ALL, from, from + reachFrom(from) - 1).map(({ midi }) => midi));
  return overChords(report, (notes) => {
    const pitches = notes.map(({ midi }) => Math.round(midi));
    const fits = there ? pitches.every((pitch) => there.has(pitch)) : fitsOneLocation([...held, ...pitches]);
    if (fits) for (const pitch of pitches) if (!held.includes(pitch)) held.push(pitch);
    return fits;
  });
}

/** Bars that are played in; `single`: only those of one chord. */
function bars(
  report: Report,
  timeline: Timeline,
  met: (indices: readonly number[]) => boolean,
  single = false,
): RuleCheck[] {
  const found = new Map<number, number[]>();
  for (const { index, onsetBeat, function: deed } of report.notes) {
    if (onsetBeat < -1e-6 || deed === 'grace') continue;
    const { chorus, bar } = formPositionOf(timeline, onsetBeat + NEAR);
    if (
      single &&
      timeline.chordSpans.some(
        (stretch) =>
          stretch.start > elementAt(timeline.bars, bar).start + 1e-6 &&
          stretch.start < elementAt(timeline.bars, bar).end - 1e-6,
      )
    )
      continue;
    const start = chorus * timeline.formBeats + elementAt(timeline.bars, bar).start;
    const inside = found.get(start);
    if (inside) inside.push(index);
    else found.set(start, [index]);
  }
  return [...found].map(([beat, indices]) => ({ beat, met: met(indices) }));
}

/** A note this little before a bar line is meant for it (common practice, no source). */
const NEAR: Beats = 0.2;
const ALL: readonly number[] = Array.from({ length: 12 }, (_, pc) => pc);

const phrases = (report: Report, met: (phrase: Phrase, index: number) => boolean): RuleCheck[] =>
  report.phrases.flatMap((phrase, index) =>
    phrase.startBeat < -1e-6 ? [] : [{ beat: phrase.startBeat, met: met(phrase, index) }],
  );

function startOfBar(timeline: Timeline, bar: number): Beats {
  const chorus = Math.floor(bar / timeline.bars.length);
  return chorus * timeline.formBeats + elementAt(timeline.bars, bar - chorus * timeline.bars.length).start;
}

/** A pattern of one cell size needs bars of one chord: half a bar holds no three statements. */
function shapeGates(
  report: Report,
  timeline: Timeline,
  { shapes, cell }: Extract<Rule, { kind: 'shape' }>,
): RuleCheck[] {
  const fitting = report.shapes.filter(
    ({ kind, noteIndices }) =>
      (shapes as readonly string[]).includes(kind) &&
      (cell === undefined || cellOf(report, noteIndices) === cell),
  );
  const inside = new Set(fitting.flatMap(({ noteIndices }) => noteIndices));
  return bars(report, timeline, (indices) => indices.some((index) => inside.has(index)), cell !== undefined);
}

/** The least number of notes after which a pattern says itself again, a step on. */
function cellOf(report: Report, indices: readonly number[]): number | null {
  const pitches = indices.map((index) => Math.round(elementAt(report.notes, index).midi));
  const way = Math.sign(elementAt(pitches, pitches.length - 1) - elementAt(pitches, 0));
  return (
    [2, 3, 4].find(
      (size) =>
        pitches.length >= 3 * size &&
        pitches
          .slice(size)
          .every(
            (pitch, index) =>
              (pitch - elementAt(pitches, index)) * way >= 1 &&
              (pitch - elementAt(pitches, index)) * way <= 3,
          ),
    ) ?? null
  );
}

/** Up by one shape and down by the other, in this order, both reaching into the bar. */
function turns(
  report: Report,
  indices: readonly number[],
  { up, down }: Extract<Rule, { kind: 'up-and-down' }>,
): boolean {
  // a shape may have begun in the bar before: only what lies in this one has to go the one way
  const moving = (kind: string, way: number) =>
    report.shapes
      .filter((shape) => shape.kind === kind)
      .map(({ noteIndices }) => noteIndices.filter((index) => indices.includes(index)))
      .filter(
        (inside) =>
          inside.length >= 3 &&
          inside
            .slice(1)
            .every(
              (index, at) =>
                (elementAt(report.notes, index).midi - present(report.notes[elementAt(inside, at)]).midi) *
                  way >
                0,
            ),
      );
  return moving(up, 1).some((rise) =>
    moving(down, -1).some(
      (fall) =>
        elementAt(fall, 0) > elementAt(rise, 0) && elementAt(rise, rise.length - 1) <= elementAt(fall, 1),
    ),
  );
}

/**
 * Two rhythms are the same where their gaps agree to a sixteenth; two contours, where every move goes the same
 * way within two semitones.
 */
const SAME_GAP: Beats = 0.15;
const SAME_MOVE: Semitones = 2;

function motifGates(report: Report, like?: Motif): RuleCheck[] {
  const shaped = report.phrases.map((phrase) => ({ phrase, shape: shapeOf(report, phrase) }));
  const model = like ?? shaped[0]?.shape;
  if (!model) return [];
  const isLike = ({ gaps, moves }: Motif) =>
    gaps.length === model.gaps.length &&
    gaps.length > 0 &&
    gaps.every((gap, index) => Math.abs(gap - elementAt(model.gaps, index)) <= SAME_GAP) &&
    moves.every(
      (move, index) =>
        Math.sign(move) === Math.sign(elementAt(model.moves, index)) &&
        Math.abs(move - elementAt(model.moves, index)) <= SAME_MOVE,
    );
  const ends = ({ noteIndices }: Phrase) =>
    present(report.notes[elementAt(noteIndices, noteIndices.length - 1)]).height === 0;
  return shaped
    .slice(like ? 0 : 1)
    .map(({ phrase, shape }) => ({ beat: phrase.startBeat, met: isLike(shape) && ends(phrase) }));
}

/** The line of a phrase as rhythm and contour. */
export function shapeOf(report: Report, { noteIndices }: Phrase): Motif {
  const line = noteIndices
    .map((index) => elementAt(report.notes, index))
    .filter(({ top, function: deed }) => top && deed !== 'grace');
  return {
    gaps: line.slice(1).map(({ onsetBeat }, index) => onsetBeat - elementAt(line, index).onsetBeat),
    moves: line.slice(1).map(({ midi }, index) => Math.round(midi) - Math.round(elementAt(line, index).midi)),
  };
}

/**
 * Bars that were played in before a bar line to come home at: something above the scale in them, and a chord
 * tone on the line.
 */
function homeGates(report: Report, timeline: Timeline, every: number): RuleCheck[] {
  const gates: RuleCheck[] = [];
  const last = report.notes[report.notes.length - 1]?.onsetBeat ?? -1;
  for (let bar = every; startOfBar(timeline, bar) <= last + NEAR; bar += every) {
    const [from, home] = [startOfBar(timeline, bar - 1), startOfBar(timeline, bar)];
    const inBar = report.notes.filter(
      ({ onsetBeat, function: deed }) =>
        deed !== 'grace' && onsetBeat >= from - NEAR && onsetBeat < home - NEAR,
    );
    const arrival = report.notes.find(({ onsetBeat, top }) => top && Math.abs(onsetBeat - home) <= NEAR);
    if (inBar.length > 0)
      gates.push({
        beat: home,
        met: inBar.filter(({ height }) => height >= 3).length >= 3 && arrival?.height === 0,
      });
  }
  return gates;
}

function rangeGates(report: Report, timeline: Timeline, semitones: Semitones): RuleCheck[] {
  const groups = new Map<number, number[]>();
  for (const { onsetBeat, midi } of report.notes) {
    if (onsetBeat < -NEAR) continue;
    const { chorus, bar } = formPositionOf(timeline, Math.max(0, onsetBeat) + 1e-6);
    const group = Math.floor((chorus * timeline.bars.length + bar) / 4);
    groups.set(group, [...(groups.get(group) ?? []), midi]);
  }
  return [...groups].map(([group, pitches]) => ({
    beat: startOfBar(timeline, group * 4),
    met: Math.max(...pitches) - Math.min(...pitches) > semitones,
  }));
}

/**
 * How far the middle onset of some notes lies from the beat or its half, swung as the take is, in
 * milliseconds; null without any near one.
 */
function inTime({ notes, time }: Report, { tempo }: Timeline, indices: readonly number[]): number | null {
  const second = time.swing === null ? 0.5 : time.swing / (1 + time.swing);
  const away = indices
    .flatMap((index) => {
      const inBeat = elementAt(notes, index).onsetBeat - Math.floor(elementAt(notes, index).onsetBeat);
      const nearest = [0, second, 1]
        .map((line) => inBeat - line)
        .reduce((best, one) => (Math.abs(one) < Math.abs(best) ? one : best));
      return Math.abs(nearest) <= NEAR ? [Math.abs((nearest * 60_000) / tempo)] : [];
    })
    .sort((a, b) => a - b);
  return away.length === 0 ? null : elementAt(away, away.length >> 1);
}

const isUpbeat = (beat: Beats): boolean => Math.abs(beat - Math.floor(beat) - 0.5) <= 0.22;

/** Rule of the drill, common practice, no source: within a fifth of a beat counts as that beat. */
function startsOn({ startBeat }: Pick<Phrase, 'startBeat'>, beat: number, timeline: Timeline): boolean {
  const { bar, beatInBar } = formPositionOf(timeline, startBeat + 0.2);
  const length = elementAt(timeline.bars, bar).end - elementAt(timeline.bars, bar).start;
  const away = Math.abs(beatInBar - 0.2 - (beat - 1));
  return Math.min(away, length - away) <= 0.2 + 1e-6;
}

/**
 * Beat after beat round the bar; a phrase that came elsewhere is missed, and the next is held against where it
 * should have gone on.
 */
function inTurn(report: Report, first: number, timeline: Timeline): RuleCheck[] {
  const beats = beatsPerBar(elementAt(timeline.bars, 0).meter);
  return phrases(report, () => false).map(({ beat }, index) => ({
    beat,
    met: startsOn({ startBeat: beat }, ((first - 1 + index) % beats) + 1, timeline),
  }));
}

function spaced(phrases: readonly Phrase[], least: Beats): RuleCheck[] {
  return phrases.slice(0, -1).map((phrase, index) => ({
    beat: phrase.startBeat,
    met: elementAt(phrases, index + 1).startBeat - phrase.endBeat >= least - 0.5,
  }));
}
