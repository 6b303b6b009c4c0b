export { findingsOf, marksOf, type Finding, type FindingKind, type DrillSpec } from './findings';
export { wilsonInterval } from './wilson';
export { times, intervalWord, typeset } from './words';
