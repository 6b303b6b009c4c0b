export { findingsIn, framed, judgeTake, reportOf, type Case, type Judgement } from './judge';
