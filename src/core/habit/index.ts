export {
  climbed,
  fastestPassed,
  inARow,
  ladderTo,
  ladderWords,
  lowered,
  sinceArrival,
  SLOWEST,
  type Climb,
  type Ladder,
  type LadderWish,
  type Try,
} from './ladder';
export {
  afterSitting,
  DAY_MS,
  gradeOf,
  remembered,
  stillThere,
  type Memory,
  type Moment,
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
  type Step,
} from './session';
export { APPROACHES, measuresOf, TARGET_TONES, type Measures, type TargetTone } from './measures';
export {
  FEWEST,
  progressOf,
  progressWords,
  weekOf,
  weekStart,
  type Course,
  type KindCourse,
  type Plateau,
  type Played,
  type Progress,
  type Verdict,
  type WeekRate,
} from './progress';
export { dayOf, diaryOf, type DiaryDay, type DiaryLine, type Done } from './diary';
