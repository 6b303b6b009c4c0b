export {
  findingsOf,
  findingsOver,
  praiseOf,
  type DrillSpec,
  type Finding,
  type FindingKind,
  type ToneName,
  type Findings,
  type FindingsRequest,
} from './kinds';
export { oneLanding, type LandingChip, type LandingGroup, type OneLanding } from './oneLanding';
export { marksOf } from './marks';
export { fingeredTake, onTheNeck, type OnTheNeck } from './onTheNeck';
export { newcombeInterval, wilsonInterval, type Rate } from './wilson';
export { compareTakes, type Compared, type Comparison, type ChangeRates, type KindRates } from './compare';
export { approachTable, type ApproachRow } from './approaches';
export { times, intervalWord, typeset } from './words';
