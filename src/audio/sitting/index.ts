export { Sitting, type SittingWorld } from './sitting';
export {
  endedIn,
  isRolling,
  runningIn,
  type CountedTake,
  type EndedTake,
  type SittingPolicy,
  type SittingState,
} from './state';
