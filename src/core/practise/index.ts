export { findingsOf, findingsOver, praiseOf, type DrillSpec, type Finding, type FindingKind, type Findings, type FindingsRequest } from './findings';
export { oneGate, type GateChip, type GateGroup, type OneGate } from './oneGate';
export { marksOf } from './marks';
export { onTheNeck, type OnTheNeck } from './onTheNeck';
export { wilsonInterval } from './wilson';
export { times, intervalWord, typeset } from './words';
