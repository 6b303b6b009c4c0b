export { CATALOGUE, DRILL_KINDS, type CatalogueEntry, type DrillKind } from './catalogue';
export { drillFor, drillOf, judgeDrill, type Drill, type DrillRequest } from './drill';
export { exampleOf } from './example';
export { tonesOver, type Aim } from './aims';
export { attemptOf } from './attempt';
export type { Attempt, RuleCheck } from './rule';
export { countedBy, ruleWords, shapeOf, type Motif, type Rule } from './rules';
export { OWN_EXAMPLES, readOwnWords, type OwnWords } from './ownWords';
export { attemptSize, failingOf, type AttemptSize } from './attemptSize';
