import type { DrillKind } from './catalogue';

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
    /** All of its drills are learnt but one at most. */
    readonly isDone: boolean;
  }[];
  /** The first drill that is not learnt, in the first level that is not done; null at the end of the course. */
  readonly next: CourseStep | null;
};

/** The course through a tune by what was learnt of it. @param standingOf how far a kind of drill has come there */
export function courseOf(standingOf: (kind: DrillKind) => CourseStanding): CourseOfTune {
  const levels = COURSE.map(({ level, kinds }) => {
    const steps = kinds.map((kind): CourseStep => ({ level, kind, standing: standingOf(kind) }));
    return { level, steps, isDone: steps.filter(({ standing }) => standing !== 'learnt').length <= 1 };
  });
  const open = levels.find(({ isDone }) => !isDone);
  return { levels, next: open?.steps.find(({ standing }) => standing !== 'learnt') ?? null };
}
