export { findingsIn, type SaidOfTake } from './assess';
