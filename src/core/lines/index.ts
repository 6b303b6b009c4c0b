export { lineFaults, longestSwing, type LineFault, type LineNoteLike } from './faults';
export { isStrongBeat, pitchesThrough, type PitchSlot } from './pitches';
export type { Level, PhraseWindow, RhythmNote, RhythmRequest } from './request';
export { rhythmOf } from './rhythm';
export { lineWorth } from './worth';
