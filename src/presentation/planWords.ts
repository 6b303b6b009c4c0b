import type { HandCheck } from '@/core/findings';
import { typeset } from '@/core/music';
import { PLANS, readHand, type Clash, type PlanWords, type SettingsWords, type Where } from '@/core/plan';

/** Where a part of a plan holds: `every I`, `section B`, `bars 5 to 8`, `chorus 3`. */
export function whereWords({ chord, degree, section, chorus, bars }: Where): string {
  const places = [
    ...(degree ? [`every ${typeset(degree)}`] : []),
    ...(chord ? [`every ${typeset(chord)}`] : []),
    ...(section ? [`section ${section}`] : []),
    ...(bars ? [bars[0] === bars[1] ? `bar ${bars[0]}` : `bars ${bars[0]} to ${bars[1]}`] : []),
    ...(chorus === undefined ? [] : [`chorus ${chorus}`]),
  ];
  return places.join(', ');
}

/** The same within a sentence: `on every I`, `in chorus 3`. */
export const placeWords = (where: Where): string =>
  `${where.degree || where.chord ? 'on' : 'in'} ${whereWords(where)}`;

const AIMS: Readonly<Partial<Record<string, string>>> = {
  '1': 'the root',
  '3': 'the third',
  '5': 'the fifth',
  '6': 'the sixth',
  '7': 'the seventh',
  '9': 'the ninth',
};

/** One school with what was set in it: `home scale (A minor pentatonic), landing on the third`. */
export function settingsWords(settings: SettingsWords): string {
  const set = [settings.home, settings.mode, settings.degrees].flatMap((one) => (one ? [typeset(one)] : []));
  const named = settings.id === 'single-target' ? [`the ${settings.target ?? 'third'}`] : [];
  const own = [...named, ...set].join(', ');
  const aims = settings.aims?.map((aim) => AIMS[aim] ?? `the ${typeset(aim)}`).join(' or ');
  const hand = settings.hand === undefined ? '' : `, ${handWords(settings.hand)}`;
  return `${PLANS[settings.id].short}${own ? ` (${own})` : ''}${aims ? `, landing on ${aims}` : ''}${hand}`;
}

/** `hand at fret 5`, `in shape 1`, `in the nearest shape`. */
export function handWords(hand: string): string {
  const read = readHand(hand);
  if (!read.ok) return hand;
  if (read.value.kind === 'fret') return `hand at fret ${read.value.fret}`;
  return read.value.kind === 'shape' ? `in shape ${read.value.number}` : 'in the nearest shape';
}

/** A whole plan read back as one sentence. */
export function planSentence(words: PlanWords): string {
  const parts = (words.parts ?? []).map(({ where, plan }) => `${settingsWords(plan)} ${placeWords(where)}`);
  const text = [settingsWords(words), ...parts].join('; ');
  return `${text.charAt(0).toUpperCase()}${text.slice(1)}.`;
}

/** A clash told ahead: `E over Cm rubs against its E♭: bars 5, 6, 10.` */
export const clashWords = ({ chord, note, against, bars }: Clash): string =>
  `${typeset(note)} over ${typeset(chord)} rubs against its ${typeset(against)}: ${bars.length === 1 ? 'bar' : 'bars'} ${bars.join(', ')}.`;

/** How places on the neck were found, by how much of them the player has said. */
export const placesWords = (said: 'all' | 'some' | 'none'): string =>
  ({
    all: 'places as you set them',
    some: 'places as you set them, otherwise likeliest',
    none: 'likeliest fingering',
  })[said];

/** What pitches, and the player, tell of the places of the hand that the plan names. */
export function handCheckWords({ notes, said, outside, bars }: HandCheck): string {
  if (said === notes && outside.length === 0)
    return `All ${notes} notes were played where your plan has the hand, as you set it.`;
  if (outside.length === 0)
    return `All ${notes} notes can be played where your plan has the hand. Pitches cannot tell whether they were.`;
  const some = outside.length === 1 ? '1 note' : `${outside.length} notes`;
  const where = `${bars.length === 1 ? 'bar' : 'bars'} ${bars.join(', ')}`;
  const setting = said > 0 ? `, ${said === notes ? 'all' : `${said} notes`} as you set them` : '';
  return said > 0
    ? `${some} of ${notes} lie elsewhere than your plan has the hand${setting}: ${where}.`
    : `${some} of ${notes} cannot be played where your plan has the hand: ${where}.`;
}
