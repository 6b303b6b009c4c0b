export { lineFaults, longestSwing, type LineFault, type LineNoteLike } from './faults';
export { isStrongBeat, pitchesThrough, type PitchSlot } from './pitches';
export { rhythmOf, type Level, type PhraseWindow, type RhythmNote, type RhythmRequest } from './rhythm';
