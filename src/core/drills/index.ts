export { CATALOGUE, DRILL_KINDS, type CatalogueEntry, type DrillKind } from './catalogue';
export {
  COURSE,
  courseOf,
  type CourseOfTune,
  type CourseStanding,
  type CourseStep,
  type LineLevel,
} from './course';
export { drillFor, drillOf, isAtChanges, judgeDrill, type Drill, type DrillRequest } from './drill';
export { exampleFor, exampleOf } from './example';
export { byWorth, differentExamples, examplesOf, LINES_OFFERED, type RankedExample } from './examples';
export { tonesOver, type Aim } from './aims';
export { attemptOf } from './attempt';
export type { Attempt, RuleCheck } from './rule';
export { countedBy, mainPart, partsOf, ruleWords, shapeOf, type Motif, type Rule } from './rules';
export { OWN_EXAMPLES, readOwnWords, type OwnWords } from './words/ownWords';
export { attemptSize, type AttemptSize } from './attemptSize';
export { failingOf } from './failing';
