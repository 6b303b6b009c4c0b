export { clashWords, planSentence, settingsWords, whereWords } from './planWords';
