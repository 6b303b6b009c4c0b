import type { Semitones } from '../../shared';
import type { Aim } from '../aims';
import type { Rule } from '../rules';
import { all, HERE, type WishReader } from './reader';
import { aimsIn, TONE_LIST } from './tones';

const AIM = '(?:land|aim|arrive|resolve|come|go|stop|sit|be|hit|target|play|head|settle|start)';
const T = TONE_LIST;

const land = (tones: readonly Aim[], more: Partial<Extract<Rule, { kind: 'land' }>> = {}): Rule => ({
  kind: 'land',
  tones,
  ...more,
});
function away(size: string | undefined, side: string | undefined): readonly Semitones[] {
  const isBelow = /below|up/.test(side ?? '');
  const sizes = size?.startsWith('whole') ? [2] : [1];
  // from above a whole step leads in as well as a half step
  const open = size === undefined && !isBelow ? [1, 2] : sizes;
  return open.map((one) => (isBelow ? -one : one));
}

/** Landing on a tone where the chord changes. */
export const LANDING: readonly WishReader[] = [
  [
    `(?:${AIM} (?:in |with )?(?:up )?(?:on |at |for |in |to |into |with )?)?${T}(?: notes?)?(?: only)? at change`,
    ([list]) => land(aimsIn(list)),
  ],
  [
    `(?:land|aim|arrive|resolve|hit|target|head|settle) (?:in |up )?(?:on |at |for |to |into )?${T}${HERE}`,
    ([list]) => land(aimsIn(list)),
  ],
  [`(?:start|hit|play) each chord (?:on|with|from) ${T}`, ([list]) => land(aimsIn(list))],
  [`each chord(?:'s)? ${T} (?:first|at change)`, ([list]) => land(aimsIn(list))],
  [`(?:target|hit|land on|play)? ?(?:key|changes|changing) tones`, () => land(['third', 'seventh'])],
  [T, ([list]) => land(aimsIn(list))],
  [
    `(?:${AIM} (?:on |at )?)?${T}(?: at change)?,? (?:(?:eighths |half beat )?(?:early|ahead|before)(?: (?:at change|of change|of beat|change|beat|each chord))?)`,
    ([list]) => land(aimsIn(list), { early: true }),
  ],
  [
    `(?:push|anticipate)(?: into)?(?: (?:changes?|each|every|all|chords?|at change|each chord|beat))*(?: by eighths)?`,
    () => land(['third', 'seventh', 'root', 'fifth'], { early: true }),
  ],
  [
    `(?:(?:play|change|arrive|come in) )?(?:eighths? |half beat )?(?:early|ahead)(?: of)?(?: (?:at change|each change|changes?|each chord|beat))+`,
    () => land(['third', 'seventh', 'root', 'fifth'], { early: true }),
  ],
];

/** Leading into a tone, at the change or inside the bar. */
export const LEADING: readonly WishReader[] = [
  [
    `(?:each chord,? )?(?:(?:lead|approach|go|come|resolve|move|${AIM}) (?:in)?(?:to |on )?)?${T}${HERE},? (?:from |by )(half step|whole step)?s? ?(below|above)${HERE}`,
    ([list, size, side]) => ({ kind: 'lead', tones: aimsIn(list), from: away(size, side) }),
  ],
  [
    `(half step|whole step)s? (below|above) (?:in)?(?:to )?${T}${HERE}`,
    ([size, side, list]) => ({ kind: 'lead', tones: aimsIn(list), from: away(size, side) }),
  ],
  [
    `(?:lead|approach|go|come|resolve|move) (?:in)?(?:to )?${T}${HERE} by half steps?(?: (?:from )?(below|above))?${HERE}`,
    ([list, side]) => ({ kind: 'lead', tones: aimsIn(list), from: side ? away('half step', side) : [-1, 1] }),
  ],
  [
    `(?:chromatic|half step) (?:approach(?:es)?|lead ?ins?|approach notes?)(?: (?:in)?to ${T})?${HERE}`,
    ([list]) => ({ kind: 'lead', tones: list ? aimsIn(list) : ['third', 'seventh'], from: [-1, 1] }),
  ],
  [
    `(?:lead|approach)(?: ?ins?)?(?: (?:in)?to)? ${T}${HERE}`,
    ([list]) => ({ kind: 'lead', tones: aimsIn(list), from: [-2, -1, 1, 2] }),
  ],
  [
    `(?:play |go |move |resolve |lead )?(?:from )?b3 (?:in)?to (?:third|3)${HERE}|blue third(?: into third)?${HERE}|rub b3 into third`,
    () => ({ kind: 'lead', tones: ['third'], from: [-1], gliding: true }),
  ],
  [
    `(?:play |go |move |resolve |lead )?(?:from )?b5 (?:in)?to (?:fifth|5)${HERE}`,
    () => ({ kind: 'lead', tones: ['fifth'], from: [-1] }),
  ],
  [
    `(?:slide|bend|gliss|hammer|slur|scoop|grace) (?:up |in)*(?:to |on )?${T}${HERE}(?: from (?:half step )?below)?`,
    ([list]) => ({ kind: 'lead', tones: aimsIn(list), gliding: true }),
  ],
  [
    `each chord lead into ${T} from (half step|whole step) (below|above)(?: or (half step|whole step) (below|above))*`,
    ([list, size, side]) => ({ kind: 'lead', tones: aimsIn(list), from: away(size, side) }),
  ],
  [
    `each chord lead into ${T} (?:from (half step|whole step) (below|above), or )?by slide, bend or grace note`,
    ([list, size, side]) => ({
      kind: 'lead',
      tones: aimsIn(list),
      ...(side ? { from: away(size, side) } : {}),
      gliding: true,
    }),
  ],
  [
    `(?:enclose|surround|circle)(?: ${T})?${HERE}(?: from (?:both|2|either) sides?)?|enclosures?(?: (?:around|of|into) ${T})?${HERE}|(?:approach )?${T} from (?:both|2|either) sides?${HERE}`,
    ([one, two, three]) => enclosing(one ?? two ?? three),
  ],
  [
    `2 half steps(?: 1 way)?(?: (?:in)?to (?:target|landing|${T}))?${HERE}|double chromatics?(?: (?:approach(?:es)?|into ${T}))?${HERE}`,
    () => ({ kind: 'figure', figures: ['double-chromatic'] }),
  ],
];

function enclosing(list: string | undefined): Rule {
  const figure: Rule = { kind: 'figure', figures: ['enclosure'] };
  const tones = list === undefined ? [] : aimsIn(list);
  return tones.length === 0 || tones.includes('chord') || list?.includes('target')
    ? figure
    : all(figure, land(tones));
}
