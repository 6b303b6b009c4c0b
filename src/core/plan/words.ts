import { accepted, refused, type Outcome } from '../shared';
import { PLAN_IDS, PLANS, type HeightIntent, type Rung } from './schools';
import { readHand } from './handWords';
import { readPlanWords, type PlanChoice, type PlanSettings, type Where } from './settings';

/** One school as it is stored and sent: scales by name. */
export type SettingsWords = Omit<PlanSettings, 'home' | 'hand'> & {
  readonly home?: string;
  /** `5`, `shape 1`, `nearest`. */
  readonly hand?: string;
};

/** A part of a plan as it is stored and sent. */
export type PlanPartWords = { readonly where: Where; readonly plan: SettingsWords };

/** A plan as it is stored and sent. */
export type PlanWords = SettingsWords & {
  readonly parts?: readonly PlanPartWords[];
  readonly heights?: readonly HeightIntent[];
  readonly ladder?: readonly Rung[];
};

const MOST_PARTS = 24;

/**
 * The plan its words say, or the first word that says nothing.
 * @example
 * unwrap(planFromWords({ id: 'home-scale', home: 'A minor pentatonic' })).home.name // 'A minor pentatonic'
 * planFromWords({ id: 'home-scale', home: 'A sideways' }).ok // false
 */
export function planFromWords(words: PlanWords): Outcome<PlanChoice> {
  const own = settingsFrom(words);
  if (!own.ok) return own;
  if ((words.parts?.length ?? 0) > MOST_PARTS)
    return refused({ code: 'plan.parts', message: `A plan has at most ${MOST_PARTS} parts.` });
  const parts: { where: Where; plan: PlanSettings }[] = [];
  for (const [index, { where, plan }] of (words.parts ?? []).entries()) {
    const read = settingsFrom(plan);
    const bars = where.bars && where.bars[0] > where.bars[1];
    if (bars)
      return refused({
        code: 'plan.bars',
        message: `Bars ${where.bars[0]} to ${where.bars[1]} run backwards.`,
        path: `parts.${index}`,
        suggestion: `${where.bars[1]} to ${where.bars[0]}`,
      });
    if (!read.ok) return refused({ ...read.problems[0], path: `parts.${index}` });
    parts.push({ where, plan: read.value });
  }
  const { heights, ladder } = words;
  return accepted({
    ...own.value,
    ...(parts.length > 0 ? { parts } : {}),
    ...(heights ? { heights } : {}),
    ...(ladder ? { ladder } : {}),
  });
}

/** Whether something kept elsewhere is a plan whose words can all be read. */
export const isPlanWords = (value: unknown): value is PlanWords =>
  typeof value === 'object' &&
  value !== null &&
  (PLAN_IDS as readonly unknown[]).includes((value as PlanWords).id) &&
  planFromWords(value as PlanWords).ok;

function settingsFrom(words: SettingsWords): Outcome<PlanSettings> {
  const { id, target, aims, tonicSix, height, overlay, hand } = words;
  const read = readPlanWords(words);
  if (!read.ok) return read;
  const place = hand === undefined ? null : readHand(hand);
  if (place && !place.ok) return place;
  return accepted({
    id,
    ...read.value,
    ...(target ? { target } : {}),
    ...(aims ? { aims } : {}),
    ...(tonicSix === undefined ? {} : { tonicSix }),
    ...(height ? { height } : {}),
    ...(overlay ? { overlay } : {}),
    ...(place ? { hand: place.value } : {}),
  });
}

/** A plan by another home scale, or by the chart's own. */
export function withHome({ home: _old, ...rest }: PlanWords, home: string | undefined): PlanWords {
  return home === undefined ? rest : { ...rest, home };
}

/** The same plan always writes the same: to tell plans apart. */
export const planKey = (words: PlanWords): string =>
  JSON.stringify(words, (_, value: unknown) =>
    value && typeof value === 'object' && !Array.isArray(value)
      ? Object.fromEntries(Object.entries(value).sort(([a], [b]) => (a < b ? -1 : 1)))
      : value,
  );

/** A plan in a few words for lists: `outline`, `scale per chord, 2 parts`. */
export function planShort(words: PlanWords): string {
  const parts = words.parts?.length ?? 0;
  return PLANS[words.id].short + (parts > 0 ? `, ${parts} ${parts === 1 ? 'part' : 'parts'}` : '');
}
