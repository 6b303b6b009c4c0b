import { type Beats, defined } from '../../shared';
import { guideTones } from '../../music';
import { spanIndexAt } from '../../chart';
import type { AnalysisScene } from '../harmonicContext/chordAssignment';
import { firstFrom } from '../notes/lineBetween';
import { pitchesIn, type Event, type Line } from '../notes/voice';
import { EPSILON } from '../notes/windows';

/**
 * A stretch over which the line fits the chart better earlier or later: lost from, found again at. Positive
 * lag: the line is behind.
 */
export type LostPlace = { readonly fromBeat: Beats; readonly toBeat: Beats; readonly lagBeats: Beats };

/** Bars that a line may be away from its place. */
const AWAY = [0, 1, -1, 2, -2];
const HERE = AWAY.indexOf(0);
/**
 * What a jump to another place must be worth, in gains of single notes, and how much better each note must fit
 * there.
 */
const JUMP = 2.5;
const DOUBT = 0.04;
/** What each note of a lost stretch must be worth where it fits: below that the line fits nowhere. */
const FITS = 0.26;
const CLEARLY_BETTER = 0.1;
/**
 * And what all its notes together must be worth more than here: chance alone reaches five or six somewhere in
 * a long take.
 */
const WORTH_MORE = 6;
const FEWEST_BARS = 2;

type LagSpan = { readonly start: Beats; readonly end: Beats };

/**
 * Lost and found again.
 * Rule T8.7: the best lag of the line against the chart over sliding two-bar windows; lost and found again
 * where a shift beats zero clearly for two
 * bars or more. Departs from it (docs/decisions/0011): the lag, in whole bars, is
 * followed bar by bar (Viterbi): it stays unless a jump pays, so that single strange bars are no lost
 * place. Chord hits do not speak: who grips the wrong chord is not lost.
 */
export function placesLost(scene: AnalysisScene, events: readonly Event[], choruses: number): LostPlace[] {
  const { timeline } = scene;
  const bars: LagSpan[] = Array.from({ length: choruses }, (_, chorus) =>
    timeline.bars.map((bar) => ({
      start: bar.start + chorus * timeline.formBeats,
      end: bar.end + chorus * timeline.formBeats,
    })),
  ).flat();
  const notes = notesByBar(
    scene.line.filter((note) => pitchesIn(events[note.event]!) < 3),
    bars,
  );
  // how well each bar's notes fit the chart, by place in AWAY
  const fits = bars.map((bar, index) => {
    const inside = defined(notes[index]);
    return AWAY.map((away) => fitOf(scene, inside, away * (bar.end - bar.start)));
  });
  let scores = AWAY.map((away) => (away === 0 ? 0 : -JUMP));
  const from: number[][] = [];
  fits.forEach((fit) => {
    const best = scores.indexOf(Math.max(...scores));
    const arrivals = AWAY.map((_, lag) => (scores[lag]! >= scores[best]! - JUMP ? lag : best));
    from.push(arrivals);
    scores = fit.map((worth, lag) => scores[arrivals[lag]!]! - (arrivals[lag] === lag ? 0 : JUMP) + worth);
  });
  const path: number[] = [];
  let at = scores.indexOf(Math.max(...scores));
  for (let index = bars.length - 1; index >= 0; index--) {
    path.unshift(at);
    at = from[index]![at]!;
  }
  // a line that tells the chords nowhere cannot tell where it is
  const home = path.reduce(
    (sum, lag, bar) =>
      AWAY[lag] === 0 ? { fit: sum.fit + fits[bar]![HERE]!, count: sum.count + notes[bar]!.length } : sum,
    { fit: 0, count: 0 },
  );
  if (home.fit < FITS * home.count) return [];
  return stretchesOf(scene, bars, path, (bar, lag) => ({
    fit: fits[bar]![lag]!,
    count: notes[bar]!.length,
  }));
}

function notesByBar(line: Line, bars: readonly LagSpan[]): (readonly { onset: Beats; pc: number }[])[] {
  let place = 0;
  return bars.map(({ end }) => {
    const inside: { onset: Beats; pc: number }[] = [];
    for (; place < line.length && line[place]!.onset < end - EPSILON; place++) inside.push(line[place]!);
    return inside;
  });
}

/**
 * How well a bar's notes fit the chart so many beats ago; elsewhere than here each must fit a little better.
 */
function fitOf(scene: AnalysisScene, notes: readonly { onset: Beats; pc: number }[], lag: Beats): number {
  let sum = lag === 0 ? 0 : -DOUBT * notes.length;
  for (const { onset, pc } of notes) sum += onset - lag < 0 ? -1 : gainAt(scene, onset - lag, pc);
  return sum;
}

function stretchesOf(
  scene: AnalysisScene,
  bars: readonly LagSpan[],
  path: readonly number[],
  fitIn: (bar: number, lag: number) => { fit: number; count: number },
): LostPlace[] {
  const lost: LostPlace[] = [];
  for (let first = 0; first < bars.length;) {
    let last = first;
    while (last + 1 < bars.length && path[last + 1] === path[first]) last++;
    const away = AWAY[path[first]!]!;
    const sum = (lag: number) =>
      Array.from({ length: last - first + 1 }, (_, index) => fitIn(first + index, lag)).reduce(
        (total, { fit, count }) => ({ fit: total.fit + fit, count: total.count + count }),
        { fit: 0, count: 0 },
      );
    const [there, here] = [sum(path[first]!), sum(HERE)];
    const notes = Math.max(1, there.count);
    if (
      away !== 0 &&
      last - first + 1 >= FEWEST_BARS &&
      there.fit >= FITS * notes &&
      there.fit - here.fit >= Math.max(WORTH_MORE, CLEARLY_BETTER * notes) &&
      landsElsewhere(
        scene,
        away * (bars[first]!.end - bars[first]!.start),
        bars[first]!.start,
        bars[last]!.end,
      )
    )
      lost.push({
        fromBeat: bars[first]!.start,
        toBeat: bars[last]!.end,
        lagBeats: away * (bars[first]!.end - bars[first]!.start),
      });
    first = last + 1;
  }
  return lost;
}

/**
 * Who is lost lands where they think the changes are: more often than where the changes are, and in most of
 * them.
 */
function landsElsewhere(scene: AnalysisScene, lag: Beats, from: Beats, to: Beats): boolean {
  const there = landingsAt(scene, lag, from, to);
  return there.count >= 2 && there.share >= 0.6 && there.share >= landingsAt(scene, 0, from, to).share;
}

const STEADY_LAGS = Array.from({ length: 17 }, (_, index) => (index - 8) / 4);
const CLEARLY = 0.03;
/** A longer lag must fit better by so much a beat: notes that fit both chords must not stretch it. */
const STRETCH = 0.01;

/**
 * Beats the whole line runs behind the chords (negative: ahead of them), in quarters up to two beats either
 * way; 0 where nothing fits clearly better.
 * A steady lag under a bar is no lost place but a habit of turning late or early (T13.1).
 */
export function steadyLag(scene: AnalysisScene): Beats {
  const { line } = scene;
  if (line.length === 0) return 0;
  const fits = STEADY_LAGS.map((lag) => ({
    lag,
    fit: gainsShifted(scene, lag) / line.length - STRETCH * Math.abs(lag),
  }));
  const here = fits.find(({ lag }) => lag === 0)!.fit;
  const best = fits.reduce((most, one) => (one.fit > most.fit + EPSILON ? one : most));
  if (
    best.fit >= here + CLEARLY &&
    [0, 0.25, -0.25].some((nudge) => landingsAt(scene, best.lag + nudge).share >= 0.5)
  )
    return best.lag;
  // where chords last long few notes lie near a change: then the landings alone may tell
  const now = landingsAt(scene, 0);
  const landings = fits
    .filter(({ lag, fit }) => Math.abs(lag) >= 0.5 && fit > here)
    .map(({ lag }) => ({ lag, ...landingsAt(scene, lag) }))
    .filter(
      ({ share, count }) =>
        count >= Math.max(5, scene.changes.length / 3) && share >= 0.65 && share >= now.share + 0.35,
    );
  return (
    landings.reduce<{ lag: number; share: number } | null>(
      (most, one) => (most === null || one.share > most.share + EPSILON ? one : most),
      null,
    )?.lag ?? 0
  );
}

/**
 * What all notes say for the chords that sounded so many beats before them; the form is walked along with the
 * line.
 */
function gainsShifted({ line, timeline, contexts: contexts, windows }: AnalysisScene, lag: Beats): number {
  const { chordSpans: spans, formBeats } = timeline;
  let [sum, index, chorus] = [0, 0, 0];
  for (const note of line) {
    const beat = note.onset - lag;
    if (beat < 0) continue;
    while (beat + windows.tol >= spans[index]!.end + chorus - 1e-9) {
      index = (index + 1) % spans.length;
      if (index === 0) chorus += formBeats;
    }
    sum += contexts[index]!.gains[note.pc]!;
  }
  return sum;
}

/**
 * Of the changes with a note so many beats after them, the share in which it is a guide tone of the new chord.
 * One old tone at the change is no late turn.
 */
function landingsAt(
  scene: AnalysisScene,
  lag: Beats,
  from = -Infinity,
  to = Infinity,
): { readonly share: number; readonly count: number } {
  let [landed, all] = [0, 0];
  for (const change of scene.changes) {
    if (change.at + lag < from - EPSILON || change.at + lag >= to) continue;
    const note = scene.line[firstFrom(scene.line, change.at + lag - 0.15)];
    if (!note || note.onset >= change.at + lag + 0.15) continue;
    all++;
    if (guideTones(change.to).some((tone) => tone.pc === note.pc)) landed++;
  }
  return { share: all > 0 ? landed / all : 0, count: all };
}

function gainAt(scene: AnalysisScene, beat: Beats, pc: number): number {
  const context = defined(scene.contexts[spanIndexAt(scene.timeline, beat + scene.windows.tol)]);
  return defined(context.gains[pc]);
}
