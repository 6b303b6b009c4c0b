export { handCheck, type HandCheck } from './handCheck';
export type {
  FindingCertainty,
  DrillSpec,
  Finding,
  FindingKind,
  FindingPlace,
  FindingsRequest,
  ToneName,
} from './finding';
export { findingsOf, findingsOver, heldAgainst, praiseOf, type Findings } from './over';
export { firstPageOf, isPraise, type FirstPage } from './firstPage';
export type { NextStep, StepKind } from './nextStep';
export type { Strength, StrengthKind } from './strength';
export { findingName } from './kinds';
export { levelsOf, type ChorusLevel } from './levels';
export { spelledOver, type SpelledOver, type SpelledShape } from './spelled';
export { leadsInto, type LeadInto } from './leadIns';
export { drillOfFinding } from './drillOfFinding';
export { oneLanding, type LandingChip, type LandingGroup, type OneLanding } from './oneLanding';
export { marksOf } from './marks';
export { fingeredTake, fingeringOf, onTheNeck, placesSaid, type OnTheNeck } from './onTheNeck';
export { newcombeInterval, wilsonInterval, type Rate } from './wilson';
export { compareTakes, type Compared, type Comparison, type ChangeRates, type KindRates } from './compare';
export { approachTable, type ApproachRow } from './approaches';
