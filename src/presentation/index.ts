export { followedSummary, followedWords } from './followedWords';
export { substituteReason } from './substituteWords';
export { clashWords, planSentence, settingsWords, whereWords } from './planWords';
