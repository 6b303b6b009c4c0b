export * from './edits';
export { doubtsOf, type Doubt, type PitchReading } from './doubts';
export { barAgain, playedAgain, type BarAgain } from './playAgain';
export { playedFrom, reportPlaces } from './judged';
export { NO_WORDS, wordsText, type Remark, type TakeWords } from './words';
