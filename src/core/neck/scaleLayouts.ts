/**
 * How a scale or an arpeggio is laid out: under one hand, so many notes on each string, one octave from a
 * root, or along one string.
 */
export const SCALE_LAYOUTS = ['position', 'one', 'two', 'three', 'octave', 'string'] as const;
export type ScaleLayout = (typeof SCALE_LAYOUTS)[number];
