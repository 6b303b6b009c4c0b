export { blockChords, type Block } from './blockChords';
export { movedCell, type CellMove } from './cells';
export { endingsOf, withEnding, type EndingOver } from './endings';
export { commonPhrases, foundIn, type CommonPhrase, type Found, type SearchedLine } from './find';
export {
  formulaOf,
  formulaOfNotes,
  formulaWords,
  isSameDegree,
  NEAR,
  pitchOf,
  rootNear,
  type FormScene,
  type FormulaNote,
} from './formula';
export { phraseOfTake, phraseUnder, sceneOf, sizeOf, type KeptPhrase, type PhraseNote } from './phrase';
export { PHRASE_EXAMPLE, readPhrase, writePhrase } from './text';
export {
  cellOver,
  transferred,
  TRANSFERS,
  type Statement,
  type Transfer,
  type Transferred,
} from './transfer';
export { joinedPhrases, rangeOf, VARIATIONS, varied, type Variation } from './variations';
