import { readFileSync } from 'node:fs';
import { expect, test } from '@jest/globals';

// The five heights in both themes, as people without one kind of cone see them, and on grey paper.
// Matrices on linear RGB at full severity: Machado, Oliveira and Fernandes, IEEE TVCG 15 (2009), table 1; recorded from memory.
// Luminance and contrast ratio: WCAG 2.1, relative luminance.
const EYES: Record<string, readonly (readonly [number, number, number])[]> = {
  'all cones': [
    [1, 0, 0],
    [0, 1, 0],
    [0, 0, 1],
  ],
  protanopia: [
    [0.152286, 1.052583, -0.204868],
    [0.114503, 0.786281, 0.099216],
    [-0.003882, -0.048116, 1.051998],
  ],
  deuteranopia: [
    [0.367322, 0.860646, -0.227968],
    [0.280085, 0.672501, 0.047413],
    [-0.01182, 0.04294, 0.968881],
  ],
  tritanopia: [
    [1.255528, -0.076749, -0.178779],
    [-0.078411, 0.930809, 0.147602],
    [0.004733, 0.691367, 0.3039],
  ],
  'grey print': [
    [0.2126, 0.7152, 0.0722],
    [0.2126, 0.7152, 0.0722],
    [0.2126, 0.7152, 0.0722],
  ],
};

const linear = (channel: number): number =>
  channel <= 0.04045 ? channel / 12.92 : ((channel + 0.055) / 1.055) ** 2.4;
const luminance = ([r, g, b]: readonly number[]): number => 0.2126 * r! + 0.7152 * g! + 0.0722 * b!;
const contrast = (a: number, b: number): number => (Math.max(a, b) + 0.05) / (Math.min(a, b) + 0.05);

const css = readFileSync('src/app/globals.css', 'utf8');
/** The tokens of each theme, in the order they stand: dusk, then noon. */
const tokens = (name: string): number[][] =>
  [...css.matchAll(new RegExp(`--${name}: #([0-9a-f]{6})`, 'g'))]
    .slice(0, 2)
    .map(([, hex]) => [0, 2, 4].map((at) => linear(parseInt(hex!.slice(at, at + 2), 16) / 255)));
const seen = (rgb: readonly number[], eye: string): number =>
  luminance(
    EYES[eye]!.map((row) =>
      Math.max(
        0,
        Math.min(
          1,
          row.reduce((sum, value, index) => sum + value * rgb[index]!, 0),
        ),
      ),
    ),
  );

test.each(Object.keys(EYES).flatMap((eye) => ['dusk', 'noon'].map((theme) => [eye, theme] as const)))(
  'five heights in even steps for %s in %s',
  (eye, theme) => {
    const at = theme === 'dusk' ? 0 : 1;
    const heights = [0, 1, 2, 3, 4].map((height) => seen(tokens(`h${height}`)[at]!, eye));
    const row = seen(tokens('row')[at]!, eye);
    // the walk goes one way from the ground to the sky, and every step can be seen beside the one before; hollow and dashed bodies double the last two
    for (let height = 1; height < 5; height++) {
      expect(Math.sign(heights[height]! - heights[height - 1]!)).toBe(theme === 'dusk' ? -1 : 1);
      expect([height, contrast(heights[height]!, heights[height - 1]!) >= 1.2]).toEqual([height, true]);
    }
    for (const height of heights) expect(contrast(height, row)).toBeGreaterThanOrEqual(3);
  },
);
