export {
  climbed,
  fastestPassed,
  inARow,
  isLearnt,
  ladderTo,
  ladderWords,
  lowered,
  sinceArrival,
  SLOWEST,
  type Climb,
  type Ladder,
  type LadderWish,
  type LadderTry,
} from './ladder';
export {
  afterSitting,
  DAY_MS,
  gradeOf,
  scheduledMemory,
  retentionOf,
  type DrillMemory,
  type Timestamp,
  type SittingGrade,
} from './due';
export {
  sessionOf,
  spreadGoal,
  type DueDrill,
  type DueTune,
  type Goal,
  type GoalDay,
  type SessionRequest,
  type SessionStep,
} from './session';
export { practiceDays, type DaysRequest } from './week';
export { APPROACHES, measuresOf, TARGET_TONES, type Measures, type TargetTone } from './measures';
export {
  FEWEST,
  HELD,
  progressOf,
  weekOf,
  weekStart,
  type Course,
  type KindCourse,
  type ProgressPlateau,
  type Played,
  type Progress,
  type ProgressVerdict,
  type WeekRate,
} from './progress';
export { dayOf, diaryOf, type DiaryDay, type DiaryLine, type DiaryEntry } from './diary';
export { progressWords } from './progressWords';
