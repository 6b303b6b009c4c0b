export * from './schools';
export * from './settings';
export * from './plan';
export * from './words';
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
export { overlayOf } from './overlay';
export { presetsFor, type Preset } from './presets';
export * from './landOn';
