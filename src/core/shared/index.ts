export * from './units';
export * from './outcome';
export * from './random';
export { nearestOf } from './nearest';
export { latest, lazily, once } from './lazy';
export { createStore, type Store } from './store';
export { defined, elementAt, present } from './invariant';
