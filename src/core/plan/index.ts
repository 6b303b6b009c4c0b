export * from './schools';
export * from './settings';
export * from './plan';
export * from './words';
export { substitutesFor, type Substitute, type SubstituteKind } from './substitutes';
export { transposePlan } from './transpose';
export { misplacedParts, readPlanPart } from './parts';
export {
  clashesOf,
  homeGridOf,
  readPlan,
  type Clash,
  type GridCell,
  type GridColumn,
  type PlannedChord,
  type PlanNote,
} from './reading';
export type { BorrowedShape } from './material';
export { layOver, overlayOf } from './overlay';
export { presetsFor, type Preset } from './presets';
export * from './landOn';
export { handsOf } from './hands';
export { HAND_LIMITS, readHand, type HandAsked } from './handWords';
