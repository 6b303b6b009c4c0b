export { CATALOGUE, DRILL_KINDS, type CatalogueEntry, type DrillKind } from './catalogue';
export { drillFor, drillOf, drillOfFinding, judgeDrill, type Drill, type DrillRequest } from './drill';
export { exampleOf } from './example';
export { attemptOf, shapeOf } from './attempt';
export { ruleWords, tonesOver, type Aim, type Attempt, type RuleCheck, type Motif, type Rule } from './rule';
export { OWN_EXAMPLES, readOwnWords, type OwnWords } from './ownWords';
export { attemptSize, failingOf, type AttemptSize } from './attemptSize';
