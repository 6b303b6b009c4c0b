import { modulo, type PitchClass, defined, present } from '../shared';
import type { HandAsked } from './handWords';
import { overlayOf } from './overlay';
import { PLANS, type HeightIntent, type PlanId } from './schools';
import type { PlanChoice, PlanSettings, Where } from './settings';
import {
  degreeSemitones,
  noteAtDegree,
  pitchClass,
  readDegree,
  rootPc,
  toneByRole,
  type Chord,
  type Degree,
  type Scale,
  type ToneRole,
} from '../music';
import {
  harmonyOf,
  timelineOf,
  type Chart,
  type ChordReading,
  type ChordSpan,
  type Harmony,
  type Timeline,
} from '../chart';
import { type BorrowedShape } from './material';
import { guidesOf, over, SCHOOLS, tonesOf, tonesShared, union, type Answer } from './schoolAnswers';

/** What a plan asks for over one chord. */
export type PlanCell = {
  /** The school that speaks here. */
  readonly id: PlanId;
  /** Pitch classes the plan would play here. */
  readonly material: readonly PitchClass[];
  /** Pitch classes to land on here. */
  readonly targets: readonly PitchClass[];
  /** What the hand would call it: a scale, a pentatonic, shapes laid over the chord. */
  readonly shapes: readonly BorrowedShape[];
  /** How far above the chord it is meant to float. */
  readonly height: HeightIntent;
  /** Where the hand is meant to be; the player's own choice where nothing is said. */
  readonly hand?: HandAsked;
  /** The chord's tones where the plan hears others than are written: tonic = 6. */
  readonly tones?: readonly PitchClass[];
};

/** A plan laid on a form: one cell per stretch of the timeline, and others for choruses that differ. */
export type Plan = {
  readonly id: PlanId;
  readonly homeScales: readonly Scale[];
  /** Home scales of choruses (from 0) that have their own. */
  readonly homesByChorus: ReadonlyMap<number, readonly Scale[]>;
  readonly cells: readonly PlanCell[];
  /** Cells of choruses that have their own, counted from 0. */
  readonly byChorus: ReadonlyMap<number, readonly PlanCell[]>;
  readonly heights: readonly HeightIntent[];
};

/** The cell of a stretch in a chorus (from 0). */
export const cellAt = (plan: Plan, stretch: number, chorus = 0): PlanCell =>
  defined((plan.byChorus.get(chorus) ?? plan.cells)[stretch]);

/** The home scales of a chorus (from 0), one for each stretch. */
export const homesIn = (plan: Plan, chorus: number): readonly Scale[] =>
  plan.homesByChorus.get(chorus) ?? plan.homeScales;

/** The height a chorus (from 0) is meant to float at. */
export const heightIntent = (plan: Plan, chorus: number): HeightIntent =>
  plan.heights[Math.min(chorus, plan.heights.length - 1)] ?? 'free';

/**
 * Material and targets for every stretch of the form.
 * Rules T14.1 and T14.2: targets are the guide tones unless the school names others; where a plan
 * names tell-tale tones and the chord has none, the guide tones.
 * @param timeline needed where a part of a mixed plan names a section or bars
 */
export function planOf(
  choice: PlanChoice,
  harmony: Harmony,
  timeline?: Timeline,
  overlays: ReadonlyMap<string, Superimposed> = new Map(),
): Plan {
  const homesAsked = (chorus: number | null): Scale[] =>
    harmony.readings.map((reading, index) => {
      const part = choice.parts?.findLast(
        ({ where, plan }) => plan.home && isHere(where, reading, index, chorus, timeline),
      );
      return part?.plan.home ?? choice.home ?? defined(harmony.homeScales[index]);
    });
  const homeScales = homesAsked(null);
  const cellsIn = (chorus: number | null): PlanCell[] =>
    harmony.readings.map((reading, index) => {
      const part = choice.parts?.findLast(({ where }) => isHere(where, reading, index, chorus, timeline));
      const settings = part?.plan ?? choice;
      const home = part?.plan.home ?? defined(homeScales[index]);
      const laid = overlays.get(settings.overlay ?? choice.overlay ?? '');
      const span = timeline?.chordSpans[index];
      if (settings.id === 'superimposed' && laid && span && reading)
        return superimposedCell(settings, readingsWithin(laid, span));
      return cellOf(settings, home, harmony, index);
    });
  const ofChoruses = (choice.parts ?? []).filter(({ where }) => where.chorus !== undefined);
  const chorusesOf = (parts: typeof ofChoruses) => new Set(parts.map(({ where }) => (where.chorus ?? 1) - 1));
  const own = chorusesOf(ofChoruses);
  const ownHomes = chorusesOf(ofChoruses.filter(({ plan }) => plan.home));
  return {
    id: choice.id,
    homeScales,
    homesByChorus: new Map([...ownHomes].map((chorus) => [chorus, homesAsked(chorus)])),
    cells: cellsIn(null),
    byChorus: new Map([...own].map((chorus) => [chorus, cellsIn(chorus)])),
    heights: choice.heights ?? [PLANS[choice.id].height],
  };
}

/** A plan laid on a chart, and the harmony as the player means it. */
export type PlanOnChart = { readonly plan: Plan; readonly harmony: Harmony };

type Laid = { readonly choice: string; readonly tempo: number; readonly on: PlanOnChart };
const laidBefore = new WeakMap<Chart, Laid>();

/**
 * A plan laid on a chart, and the harmony as the player means it: by the plan's home scales, and with a Lydian
 * tonic where the plan says so. The last answer for a chart is kept: a take that is corrected, or a line that is
 * tried for a drill, is judged over the same chart by the same plan again and again.
 */
export function planOn(chart: Chart, timeline: Timeline, choice: PlanChoice): PlanOnChart {
  const before = laidBefore.get(chart);
  // a choice is plain data: two that say the same are one
  const said = JSON.stringify(choice);
  if (before?.choice === said && before.tempo === timeline.tempo) return before.on;
  const on = layOn(chart, timeline, choice);
  laidBefore.set(chart, { choice: said, tempo: timeline.tempo, on });
  return on;
}

function layOn(chart: Chart, timeline: Timeline, choice: PlanChoice): PlanOnChart {
  const isLydian = choice.id === 'parallel-mode' && choice.mode === 'lydian';
  const harmony = harmonyOf(chart, timeline, { home: choice.home, isLydian });
  const texts = [choice, ...(choice.parts ?? []).map(({ plan }) => plan)].flatMap(
    ({ overlay }) => overlay ?? [],
  );
  const overlays = new Map<string, Superimposed>();
  for (const text of new Set(texts)) {
    const laid = overlayOf(chart, text);
    if (!laid.ok) continue;
    const own = timelineOf(laid.value, timeline.tempo);
    overlays.set(text, { timeline: own, harmony: harmonyOf(laid.value, own, { home: choice.home }) });
  }
  const plan = planOf(choice, harmony, timeline, overlays);
  return { plan, harmony: { ...harmony, homeScales: plan.homeScales } };
}

/** Other changes laid over the form, read as harmony. */
type Superimposed = { readonly timeline: Timeline; readonly harmony: Harmony };

const readingsWithin = ({ timeline, harmony }: Superimposed, span: ChordSpan): ChordReading[] =>
  timeline.chordSpans.flatMap(({ index, start, end }) =>
    start < span.end - 1e-9 && end > span.start + 1e-9 ? (harmony.readings[index] ?? []) : [],
  );

/** What the superimposed chords over one written chord ask for: their scales, and their guide tones. */
function superimposedCell(settings: PlanSettings, readings: readonly ChordReading[]): PlanCell {
  const shapes = readings.map(({ chord, scale }) => ({
    name: `${chord.symbol}: ${scale.name}`,
    pcs: scale.pcs,
  }));
  return {
    id: settings.id,
    height: settings.height ?? PLANS[settings.id].height,
    ...over(shapes, union(...readings.map(({ chord }) => guidesOf(chord)))),
  };
}

function isHere(
  where: Where,
  reading: ChordReading | null,
  index: number,
  chorus: number | null,
  timeline: Timeline | undefined,
): boolean {
  const span = timeline?.chordSpans[index];
  const is = (wanted: unknown, here: unknown) => wanted === undefined || wanted === here;
  const isInBars = ([first, last]: readonly [number, number]) =>
    span !== undefined && span.bar + 1 >= first && span.bar + 1 <= last;
  return (
    is(where.chorus, chorus === null ? null : chorus + 1) &&
    is(where.chord, reading?.chord.symbol) &&
    is(where.degree, reading?.degree) &&
    is(where.section, span && timeline?.bars[span.bar]?.section) &&
    (where.bars === undefined || isInBars(where.bars))
  );
}

function cellOf(settings: PlanSettings, home: Scale, harmony: Harmony, index: number): PlanCell {
  const reading = harmony.readings[index];
  if (!reading)
    return {
      id: settings.id,
      height: settings.height ?? PLANS[settings.id].height,
      material: home.pcs,
      targets: [],
      shapes: [{ name: home.name, pcs: home.pcs }],
    };
  const six = settings.tonicSix ?? settings.id === 'sixth-diminished';
  const sung = six ? asSixth(reading) : reading;
  const answer = SCHOOLS[settings.id]({ settings, home, reading: sung, next: nextReading(harmony, index) });
  return {
    id: settings.id,
    height: settings.height ?? PLANS[settings.id].height,
    ...(settings.hand ? { hand: settings.hand } : {}),
    ...aimed(answer, settings, sung.chord),
    ...(sung === reading ? {} : { tones: tonesOf(sung.chord) }),
  };
}

/**
 * Targets that the player named belong to the material; the school's own are those that lie in it, else the
 * chord tones that do (T3.14).
 */
function aimed(answer: Answer, settings: PlanSettings, chord: Chord): Answer {
  const named = (settings.aims ?? [])
    .flatMap((aim) => readDegree(aim) ?? [])
    .map((degree) => aimOver(chord, degree));
  if (named.length > 0)
    return { ...answer, material: union(answer.material, named), targets: [...new Set(named)] };
  const inside = answer.targets.filter((pc) => answer.material.includes(pc));
  return { ...answer, targets: inside.length > 0 ? inside : tonesShared(answer.material, chord) };
}

/** A degree of the chord: `3` is its own third, whichever that is; one with an accidental is meant as written. */
function aimOver(chord: Chord, degree: Degree): PitchClass {
  const own = degree.alter === 0 ? OWN_TONES[degree.number] : undefined;
  const tone = own && toneByRole(chord, ...own);
  return tone?.pc ?? modulo(rootPc(chord) + degreeSemitones(degree), 12);
}

const OWN_TONES: Readonly<Partial<Record<number, readonly ToneRole[]>>> = {
  3: ['third', 'sus'],
  5: ['fifth'],
  7: ['seventh'],
  6: ['sixth'],
};

/** The next chord with another root, with its reading; the form is a loop. */
function nextReading(harmony: Harmony, index: number): ChordReading {
  const own = present(harmony.readings[index]);
  for (let step = 1; step < harmony.readings.length; step++) {
    const next = harmony.readings[(index + step) % harmony.readings.length];
    if (next && rootPc(next.chord) !== rootPc(own.chord)) return next;
  }
  return own;
}

/** Tonic = 6: on a tonic major the sixth stands where the seventh stood. */
function asSixth(reading: ChordReading): ChordReading {
  const { chord, degree } = reading;
  if (degree !== 'I' || chord.quality !== 'major' || toneByRole(chord, 'sixth')) return reading;
  const note = noteAtDegree(chord.root, { number: 6, alter: 0 });
  const sixth = { role: 'sixth' as const, semitones: 9, interval: '6', pc: pitchClass(note), note };
  const tones: Chord['tones'] = [...chord.tones.filter((tone) => tone.role !== 'seventh'), sixth];
  return { ...reading, chord: { ...chord, tones } };
}
