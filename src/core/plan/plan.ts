import { accepted, nearestOf, refused, type Outcome, type PitchClass } from '../vocabulary';
import { guideTones, noteAtDegree, pitchClass, toneByRole, type Scale } from '../music';
import { tellTaleTones, type Harmony } from '../chart';

/** The schools this version judges by; names as in the plan chooser. */
export const PLANS = {
  outline: { name: 'Outline', short: 'outline', why: 'Chord tones only: nothing else teaches the sound of the change as fast.' },
  'single-target': { name: 'Single target', short: 'single target', why: 'One chosen chord tone per chord: a line of thirds alone already tells the chords.' },
  'home-scale': { name: 'Home scale', short: 'home scale', why: 'One scale for the whole form: freedom to phrase, melody over harmony.' },
  'home-tell-tale': { name: 'Home scale and tell-tale tones', short: 'home + tell-tale', why: 'The smallest change to what the hand knows, the largest change in sound.' },
  'scale-per-chord': { name: 'Scale per chord', short: 'scale per chord', why: 'The full colour of every chord.' },
} as const;

export type PlanId = keyof typeof PLANS;
export const PLAN_IDS = Object.keys(PLANS) as PlanId[];

/** What a plan asks for over one chord. */
export type PlanCell = {
  /** Pitch classes the plan would play here. */
  readonly material: readonly PitchClass[];
  /** Pitch classes to land on here. */
  readonly targets: readonly PitchClass[];
};

/** A plan laid on a form: one cell per stretch of the timeline. */
export type Plan = { readonly id: PlanId; readonly homeScales: readonly Scale[]; readonly cells: readonly PlanCell[] };

export type PlanChoice = {
  readonly id: PlanId;
  /** The player's home scale for the whole form in place of the default. */
  readonly home?: Scale | undefined;
  /** The chord tone that `single-target` aims at. */
  readonly target?: 'root' | 'third' | 'fifth' | 'seventh';
};

export function readPlanId(text: string): Outcome<PlanId> {
  if (text in PLANS) return accepted(text as PlanId);
  return refused({
    code: 'plan.unknown', message: `No plan is called “${text}”. Plans: ${PLAN_IDS.join(', ')}.`,
    suggestion: nearestOf(text, PLAN_IDS) ?? 'outline',
  });
}

/**
 * Material and targets for every stretch of the form.
 * Rule: 1-product, "The schools"; 2-theory, "Plans": targets are the guide tones unless the school names others; where a plan
 * names tell-tale tones and the chord has none, the guide tones.
 */
export function planOf(choice: PlanChoice, harmony: Harmony): Plan {
  const homeScales = harmony.homeScales.map((home) => choice.home ?? home);
  const cells = harmony.readings.map((reading, index) => cellOf(choice, homeScales[index]!, reading));
  return { id: choice.id, homeScales, cells };
}

function cellOf(choice: PlanChoice, home: Scale, reading: Harmony['readings'][number]): PlanCell {
  if (!reading) return { material: home.pcs, targets: [] };
  const { chord, key, scale } = reading;
  const tones = chord.tones.map((tone) => tone.pc);
  const guides = guideTones(chord).map((tone) => tone.pc);
  switch (choice.id) {
    case 'outline':
      return { material: tones, targets: guides };
    case 'single-target': {
      const one = singleTarget(reading, choice.target ?? 'third');
      return { material: [one], targets: [one] };
    }
    case 'home-scale': {
      const triad = [1, 3, 5].map((number) => noteAtDegree(key.tonic, { number, alter: number === 3 && key.minor ? -1 : 0 }));
      return { material: home.pcs, targets: triad.map(pitchClass) };
    }
    case 'home-tell-tale': {
      const telling = tellTaleTones(chord, home).map((tone) => tone.pc);
      return { material: [...home.pcs, ...telling], targets: telling.length > 0 ? telling : guides };
    }
    case 'scale-per-chord':
      return { material: scale.pcs, targets: guides };
  }
}

/** The chosen tone, or the root where the chord has none of it (a power chord has no third). */
function singleTarget({ chord }: NonNullable<Harmony['readings'][number]>, target: 'root' | 'third' | 'fifth' | 'seventh'): PitchClass {
  const tone = { root: toneByRole(chord, 'root'), third: toneByRole(chord, 'third', 'sus'), fifth: toneByRole(chord, 'fifth'), seventh: toneByRole(chord, 'seventh', 'sixth') }[target];
  return (tone ?? chord.tones[0]!).pc;
}
