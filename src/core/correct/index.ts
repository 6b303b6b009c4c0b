export * from './edits';
export { doubtsOf, type Doubt, type Reading } from './doubts';
export { playedFrom, reportPlaces } from './judged';
