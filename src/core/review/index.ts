export { followedBars, type FollowedBar } from './followed';
export { readCase, judgePiece, judgeTake, reportOf, type TakeCase, type Judgement } from './judge';
