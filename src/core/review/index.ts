export { followedBars, type FollowedBar } from './followed';
export {
  findingsIn,
  readCase,
  judgeTake,
  reportOf,
  type SaidOfTake,
  type TakeCase,
  type Judgement,
} from './judge';
