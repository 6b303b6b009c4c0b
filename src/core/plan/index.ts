export * from './schools';
export * from './settings';
export * from './plan';
export * from './words';
export type { BorrowedShape } from './material';
export { overlayOf } from './overlay';
export { presetsFor, type Preset } from './presets';
export * from './landOn';
