export * from './fretboard';
export { readTuning, writeTuning, pitchName, stringName, TUNINGS } from './tuning';
export { reachFrom } from './location';
export { pathOf, bothWays, type NeckNote, type NeckPath, type PathOptions, type Touch } from './path';
export { chordShapes, type ChordShape, type ShapeOptions } from './chordShapes';
export { formsByStringSet, smallShapes, type SmallKind, type StringSet } from './smallShapes';
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
