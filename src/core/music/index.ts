export * from './spelling';
export * from './interval';
export * from './chord';
export { readChord, toneList } from './chordSymbol';
export * from './scale';
export { plainNote, spellerOf } from './noteSpelling';
export * from './key';
export * from './transposeChord';
export { intervalWord, rangeInWords, times, typeset } from './words';
