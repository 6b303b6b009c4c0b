export { CATALOGUE, DRILL_KINDS, type CatalogueEntry, type DrillKind } from './catalogue';
export { drillFor, drillOfFinding, exampleOf, judgeDrill, type Drill, type DrillRequest } from './drill';
export { attemptOf, ruleWords, type Aim, type Attempt, type Gate, type Rule } from './rule';
