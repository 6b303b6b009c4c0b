export { backUp, type BackupPhase } from './backUp';
export { restore } from './restore';
export * from './kept';
export {
  deleteAllAtNextStart,
  DELETE_WORDS,
  doWhatWasAsked,
  restartServer,
  restoreAtNextStart,
} from './atNextStart';
