export * from './chart';
export { CHART_LIMITS } from './chartLimits';
export { readChart } from './readChart';
export { writeChart } from './writeChart';
export * from './timeline';
export { harmonyOf, homeScaleOf, tellTaleTones, type Harmony, type Reading } from './harmony';
export { findKey } from './findKey';
export { numeral } from './degree';
export type { Character } from './context';
