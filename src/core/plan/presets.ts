import type { Harmony } from '../chart';
import { PLANS } from './schools';
import type { PlanChoice } from './settings';

/** A plan that suits a form, with the reason. */
export type Preset = { readonly name: string; readonly reason: string; readonly choice: PlanChoice };

const preset = (name: string, reason: string, choice: PlanChoice): Preset => ({ name, reason, choice });

/** Plans that suit a form, the gentlest first: what a teacher would try with it. Common practice, no source. */
export function presetsFor(harmony: Harmony): readonly Preset[] {
  const { blues, minorBlues, vamp } = harmony.character;
  const readings = harmony.readings.flatMap((reading) => reading ?? []);
  const minor = readings[0]?.key.minor ?? false;
  const any: Preset[] = [
    preset('Thirds alone', PLANS['single-target'].why, { id: 'single-target', target: 'third' }),
    preset('Outline', PLANS.outline.why, { id: 'outline' }),
  ];
  if (minorBlues)
    return [
      ...any,
      preset('One mode, moved', PLANS['parallel-mode'].why, { id: 'parallel-mode' }),
      preset('Made for i, iv and V', 'A pentatonic for each chord of a minor key.', { id: 'by-degrees' }),
    ];
  if (blues)
    return [
      ...any,
      preset('Home scale and what it lacks', PLANS['home-tell-tale'].why, { id: 'home-tell-tale' }),
      preset('Blend at home, chord tones elsewhere', 'Free on the tonic, exact where it leaves.', {
        id: 'outline',
        parts: [{ where: { degree: 'I' }, plan: { id: 'major-minor-blend' } }],
      }),
      preset('Low, then high', 'One chorus on the ground, the next above it.', {
        id: 'scale-per-chord',
        heights: ['ground', 'high'],
      }),
    ];
  if (vamp)
    return [
      preset('Scale of the chord', PLANS['scale-per-chord'].why, { id: 'scale-per-chord' }),
      preset('Step out and return', PLANS['step-out'].why, { id: 'step-out' }),
    ];
  if (minor)
    return [
      ...any,
      preset('Harmonic minor on the dominant', PLANS['minor-dominant'].why, { id: 'minor-dominant' }),
      preset('Scale per chord', PLANS['scale-per-chord'].why, { id: 'scale-per-chord' }),
    ];
  return [
    ...any,
    preset('Tonic as a sixth', PLANS['sixth-diminished'].why, { id: 'sixth-diminished' }),
    preset('Scale per chord', PLANS['scale-per-chord'].why, { id: 'scale-per-chord' }),
    preset('Chord tones in the bridge', 'Scales in the A, chord tones where the harmony moves fastest.', {
      id: 'scale-per-chord',
      parts: [{ where: { section: 'B' }, plan: { id: 'outline' } }],
    }),
  ];
}
