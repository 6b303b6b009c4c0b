export * from './units';
export * from './outcome';
export * from './random';
export { nearestOf } from './nearest';
