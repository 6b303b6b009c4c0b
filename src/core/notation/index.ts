export { DIVISIONS, HEADS, headsFor, type Counting, type Head, type HeadType } from './heads';
export { scoreOf, type ScoreBar, type ScoreEntry, type ScorePitch, type ScoreSheet } from './score';
export { slurInto, slursOver, type SlurSpan } from './slurs';
export { tripletsOf } from './triplets';
export { spellPitch, type SpelledPitch } from './spelling';
export {
  barsOf,
  frettedMidi,
  quartersOf,
  TICKS,
  writtenLine,
  type GridAt,
  type GridChoice,
  type WrittenLine,
  type WrittenNote,
} from './written';
