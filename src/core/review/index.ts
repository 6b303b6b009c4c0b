export { followedBars, type FollowedBar } from './followed';
export { readCase, judgeTake, reportOf, type TakeCase, type Judgement } from './judge';
