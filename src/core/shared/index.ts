export * from './units';
export { isSlurred, type Attack, type Slur } from './attack';
export * from './outcome';
export * from './random';
export { nearestOf } from './nearest';
export { latest, lazily, once } from './lazy';
export { createStore, type Store } from './store';
export { defined, elementAt, present } from './invariant';
