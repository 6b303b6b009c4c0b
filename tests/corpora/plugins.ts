import { existsSync } from 'node:fs';
import { pick, seededRandom, type Random } from '@/core/shared';
import { rms, type Effect } from './effects';
import { sox } from './soundfontSet';

// Amplifiers, cabinets and pedals of another maker: CAPS, the C* Audio Plugin Suite (Debian package caps), through sox.

const PLUGINS = '/usr/lib/ladspa/caps.so';
const CABINETS = 17;
const TONE_STACKS = 9;
const CLIPPERS = 12;

/** What is missing for these, in words; null where everything is there. */
export const pluginsMissing = (): string | null =>
  existsSync(PLUGINS) ? null : `${PLUGINS} is not installed (Debian package caps)`;

/** A plugin's arguments, in the order of its controls. */
type Setting = (random: Random) => readonly string[];
const plugin = (label: string, ...controls: readonly number[]): string[] => [
  'ladspa',
  PLUGINS,
  label,
  ...controls.map((value) => value.toFixed(4)),
];
const whole = (random: Random, count: number): number => Math.floor(random() * count);
const cabinet: Setting = (random) => plugin('CabinetIII', whole(random, CABINETS), whole(random, 2), 0);

const through =
  (setting: Setting): Effect =>
  (samples, rate, seed) => {
    const out = sox(samples, rate, ['norm', '-6', ...setting(seededRandom(seed + 733))]);
    const scale = 0.12 / (rms(out) || 1);
    return Float32Array.from(samples, (_, n) => (out[n] ?? 0) * scale);
  };

/** A valve amplifier at any of its settings, most often with a cabinet behind it. */
export const valves = through((random) => [
  ...plugin(
    'AmpVTS',
    whole(random, 3),
    random(),
    random(),
    random(),
    whole(random, TONE_STACKS),
    random(),
    random(),
    random(),
    random(),
    random(),
    random(),
  ),
  ...(random() < 0.8 ? cabinet(random) : []),
]);

/** One of twelve clipping curves, 6 to 36 dB into it, and a cabinet. */
export const clipper = through((random) => [
  ...plugin('Saturate', 1 + whole(random, CLIPPERS - 1), 6 + 30 * random(), 0.5 * random()),
  ...cabinet(random),
]);

/** Lows and highs driven apart. */
export const spice = through((random) =>
  plugin(
    'Spice',
    80 + 500 * random(),
    random(),
    random(),
    0,
    500 + 2_500 * random(),
    random(),
    -12 * random(),
  ),
);

/** A chorus, a phaser or a filter that opens with the playing. */
export const swirl = through((random) => {
  const other = 0.3 + 0.5 * random();
  return pick(random, [
    plugin(
      'ChorusI',
      5 + 25 * random(),
      0.5 + 6 * random(),
      0.1 + 2.5 * random(),
      0.5,
      other,
      0.3 * random(),
    ),
    plugin('PhaserII', random(), whole(random, 2), random(), random(), 0.6 * random()),
    plugin(
      'AutoFilter',
      whole(random, 2),
      whole(random, 2),
      200 + 1_500 * random(),
      0.6 * random(),
      random(),
      random(),
      random(),
      random(),
    ),
  ]);
});

/** A plate: its left side. */
export const plate = through((random) => [
  'remix',
  '1',
  '1',
  ...plugin('PlateX2', 0.4 + 0.6 * random(), 0.6 * random(), random(), 0.05 + 0.3 * random()),
  'remix',
  '1',
]);

/** A speaker alone. */
export const speaker = through(cabinet);
