export { findingsOf, type DrillSpec, type Finding, type FindingKind } from './findings';
export { marksOf } from './marks';
export { wilsonInterval } from './wilson';
export { times, intervalWord, typeset } from './words';
