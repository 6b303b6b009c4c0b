export * from './fretboard';
export { readTuning, writeTuning, pitchName, stringName, TUNINGS } from './tuning';
export { HAND_SIZES, NECK_AREAS, OPEN_STRINGS, USUAL_HABITS, type HandHabits } from './handHabits';
export { reachFrom } from './location';
export { pathOf, bothWays, type NeckNote, type NeckPath, type PathOptions, type Touch } from './path';
export { chordShapes, type ChordShape, type ShapeOptions } from './chordShapes';
export { countMoves, movesBetween, nearestShape, type StringMove } from './connect';
export { formsByStringSet, smallShapes, type SmallKind, type StringSet } from './smallShapes';
export { SCALE_LAYOUTS, type ScaleLayout } from './scaleLayouts';
export { fretsOf, layRun, moved, type Run, type RunOptions, type RunTouch } from './run';
export {
  PAIR_KINDS,
  scalePairs,
  scaleShapes,
  scaleUnderHand,
  shapeNear,
  shapesNear,
  type PairKind,
  type ScalePair,
  type ScaleShape,
  type ScaleShapeOptions,
} from './scaleShapes';
export {
  fitsForm,
  fitsOneLocation,
  handovers,
  neighboursOf,
  stayThrough,
  underHand,
  type HandPositionChange,
  type HandStop,
} from './underHand';
