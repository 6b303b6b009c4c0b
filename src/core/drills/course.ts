import { changesOf, timelineOf, type Chart } from '../chart';
import { tonesOf } from './aims';
import { CATALOGUE, type DrillKind } from './catalogue';
import { isAtChanges, PASS } from './drill';
import { mainPart } from './rules';

/**
 * The four ways to play over a form, from the first to the last a player learns: locked to the chords, one scale
 * over all of them, shapes of other chords laid over, and free with the way home.
 */
export type LineLevel = 'locked' | 'one-scale' | 'borrowed-shapes' | 'free';

/** The course through one tune: its levels in order, each with the drills that lead through it. */
export const COURSE: readonly { readonly level: LineLevel; readonly kinds: readonly DrillKind[] }[] = [
  {
    level: 'locked',
    kinds: ['ladder-roots', 'ladder-thirds', 'ladder-sevenths', 'chord-tones', 'nearest-note'],
  },
  {
    level: 'one-scale',
    kinds: ['plan-only', 'home-tell-tale', 'third-from-below', 'end-at-rest', 'call-and-answer'],
  },
  { level: 'borrowed-shapes', kinds: ['arpeggios', 'minor-dominant', 'superimposed', 'height-high'] },
  { level: 'free', kinds: ['enclosures', 'same-motif', 'step-out-come-home', 'height-free'] },
];

/** How far one drill of the course has come. */
export type CourseStanding = 'new' | 'begun' | 'learnt';
export type CourseStep = {
  readonly level: LineLevel;
  readonly kind: DrillKind;
  readonly standing: CourseStanding;
};
export type CourseOfTune = {
  readonly levels: readonly {
    readonly level: LineLevel;
    readonly steps: readonly CourseStep[];
    /** All of its drills are learnt, but one at most of three or more. */
    readonly isDone: boolean;
  }[];
  /** The first drill that is not learnt, in the first level that is not done; null at the end of the course. */
  readonly next: CourseStep | null;
};

/** Any tempo: whether chords change does not depend on it. */
const SOME_TEMPO = 100;

/**
 * Has a tune a place for a drill? What is about changes needs them, and tones are only asked of chords that have them:
 * of so many that the drill could be passed.
 */
export function hasPlaceFor(kind: DrillKind, chart: Chart): boolean {
  const rule = mainPart(CATALOGUE[kind].rule);
  if (!isAtChanges(rule)) return true;
  const changes = changesOf(timelineOf(chart, SOME_TEMPO), 2);
  if (changes.length === 0) return false;
  if (rule.kind !== 'land') return true;
  const met = changes.filter(({ to }) => tonesOf(to, rule.tones).length > 0);
  return met.length >= PASS * changes.length;
}

/**
 * The course through a tune by what was learnt of it, without the drills the tune has no place for.
 * @param standingOf how far a kind of drill has come there
 */
export function courseOf(standingOf: (kind: DrillKind) => CourseStanding, chart: Chart): CourseOfTune {
  const levels = COURSE.map(({ level, kinds }) => {
    const steps = kinds
      .filter((kind) => hasPlaceFor(kind, chart))
      .map((kind): CourseStep => ({ level, kind, standing: standingOf(kind) }));
    const left = steps.filter(({ standing }) => standing !== 'learnt').length;
    return { level, steps, isDone: left <= (steps.length > 2 ? 1 : 0) };
  });
  const open = levels.find(({ isDone }) => !isDone);
  return { levels, next: open?.steps.find(({ standing }) => standing !== 'learnt') ?? null };
}
