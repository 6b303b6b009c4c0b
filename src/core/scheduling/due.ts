import { createEmptyCard, fsrs, Rating, type Card, type Grade } from 'ts-fsrs';
import type { Ladder, LadderTry } from './ladder';
import { elementAt } from '../shared';

/** A moment, in milliseconds since 1970. */
export type Timestamp = number;
export const DAY_MS = 86_400_000;

/** What the scheduler knows of a drill, as it is kept: plain numbers. */
export type DrillMemory = {
  readonly due: Timestamp;
  readonly stability: number;
  readonly difficulty: number;
  readonly elapsedDays: number;
  readonly scheduledDays: number;
  readonly learningSteps: number;
  readonly reps: number;
  readonly lapses: number;
  readonly state: 0 | 1 | 2 | 3;
  readonly lastReview: Timestamp | null;
};

/**
 * Free spaced repetition (ts-fsrs, FSRS-6 with its default weights): nine in ten shall still pass when they
 * come back. No chance in it, so
 * that the same practice gives the same days; nothing comes back within minutes, as attempts of one sitting
 * are one review.
 */
const scheduler = fsrs({
  request_retention: 0.9,
  enable_fuzz: false,
  enable_short_term: false,
  maximum_interval: 120,
});

/** How a sitting went, for the scheduler. */
export type SittingGrade = 'again' | 'hard' | 'good' | 'easy';
const RATING: Record<SittingGrade, Grade> = {
  again: Rating.Again,
  hard: Rating.Hard,
  good: Rating.Good,
  easy: Rating.Easy,
};

/**
 * The grade of a sitting from its tries: nothing passed, again; passed only below where it began, or less
 * than half of the tries, hard;
 * all passed and a rung higher, easy; else good.
 */
export function gradeOf(tries: readonly LadderTry[]): SittingGrade {
  const passes = tries.filter(({ passed }) => passed);
  const [first] = tries;
  if (!first || passes.length === 0) return 'again';
  if (passes.every(({ tempo }) => tempo < first.tempo) || passes.length * 2 < tries.length) return 'hard';
  return passes.length === tries.length && elementAt(tries, tries.length - 1).tempo > first.tempo
    ? 'easy'
    : 'good';
}

/**
 * When a drill comes back after a sitting, and what is remembered of it. A drill that was put off is reviewed
 * when it is played.
 */
export function scheduledMemory(
  memory: DrillMemory | null,
  grade: SittingGrade,
  now: Timestamp,
): DrillMemory {
  const before = memory ? cardOf(memory) : createEmptyCard(new Date(now));
  return memoryOf(scheduler.next(before, new Date(now), RATING[grade]).card);
}

/**
 * The chance that a drill would still be passed now; 0 before it was ever practised. Source of the curve:
 * FSRS-6, as ts-fsrs computes it.
 */
export const retentionOf = (memory: DrillMemory | null, now: Timestamp): number =>
  memory ? scheduler.get_retrievability(cardOf(memory), new Date(now), false) : 0;

/**
 * While a drill is still climbing it comes back within so many days, however well it went: there is more to
 * learn than to keep.
 */
const CLIMBING_DAYS = 3;

/**
 * What is remembered after a sitting, and when the drill comes back: by the scheduler once it is at the top,
 * sooner before.
 */
export function afterSitting(
  { rungs, at }: Ladder,
  memory: DrillMemory | null,
  tries: readonly LadderTry[],
  now: Timestamp,
): { readonly memory: DrillMemory; readonly dueAt: Timestamp } {
  const next = scheduledMemory(memory, gradeOf(tries), now);
  const top = at === rungs.length - 1 && tries.some(({ tempo, passed }) => passed && tempo === rungs[at]);
  return { memory: next, dueAt: top ? next.due : Math.min(next.due, now + CLIMBING_DAYS * DAY_MS) };
}

const memoryOf = (card: Card): DrillMemory => ({
  due: card.due.getTime(),
  stability: card.stability,
  difficulty: card.difficulty,
  elapsedDays: card.elapsed_days,
  scheduledDays: card.scheduled_days,
  learningSteps: card.learning_steps,
  reps: card.reps,
  lapses: card.lapses,
  state: card.state as DrillMemory['state'],
  lastReview: card.last_review ? card.last_review.getTime() : null,
});

const cardOf = (memory: DrillMemory): Card => ({
  due: new Date(memory.due),
  stability: memory.stability,
  difficulty: memory.difficulty,
  elapsed_days: memory.elapsedDays,
  scheduled_days: memory.scheduledDays,
  learning_steps: memory.learningSteps,
  reps: memory.reps,
  lapses: memory.lapses,
  state: memory.state,
  ...(memory.lastReview === null ? {} : { last_review: new Date(memory.lastReview) }),
});
