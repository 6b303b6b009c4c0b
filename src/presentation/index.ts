export { followedSummary, followedWords } from './followedWords';
export { substituteReason } from './substituteWords';
export { clashWords, placeWords, planSentence, settingsWords, whereWords } from './planWords';
