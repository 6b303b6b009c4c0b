export { datesIn, languageOf, USUAL_LANGUAGE, type Dates } from './dates';
export { momentIn, takeMoment } from './moment';
export { MUSICAL_TERMS, termsIn, type MusicalTerm } from './terms';
export { followedSummary, followedWords } from './followedWords';
export { leadWords, levelWords, lineLevelName, togetherWords, shapeWords, spelledWords } from './shapeWords';
export { substituteReason } from './substituteWords';
export {
  clashWords,
  handCheckWords,
  placesWords,
  handWords,
  placeWords,
  planSentence,
  settingsWords,
  whereWords,
} from './planWords';
export { busyWords, calibrationWords, playTroubleWords, takeTroubleWords } from './soundWords';
export {
  cellWords,
  endWords,
  foundWords,
  homeWords,
  playedAgainWords,
  stepWords,
  transferWords,
  variationWords,
} from './phraseWords';
