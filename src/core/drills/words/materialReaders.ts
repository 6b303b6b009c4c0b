import type { Rule } from '../rules';
import { all, HERE, type WishReader } from './reader';
import { aimsIn, TONE_LIST } from './tones';

const T = TONE_LIST;

/** What is played over a chord: only this, or at least that. */
export const MATERIAL: readonly WishReader[] = [
  [
    `(?:(?:play |use |stay (?:on|with|in) |stick to |only |just |space but |no notes? but |no(?:thing)? except )*)?chord tones?(?: only| and space else)?${HERE}`,
    () => ({ kind: 'material', of: 'chord' }),
  ],
  [
    `(?:only|just) (?:arpeggios?|chords?)|(?:arpeggios?|outline) (?:only|changes?|chords?|each chord)`,
    () => ({ kind: 'material', of: 'chord' }),
  ],
  [
    `(?:only |stick to |stay (?:in|with) |play |space but )*(?:what )?plan(?: would play| only)?${HERE}`,
    () => ({ kind: 'material', of: 'plan' }),
  ],
  [
    `(?:stay (?:inside|in|within)|only|stick to|no notes outside|space outside) (?:scale|key|chord scale|changes?|scale each chord)(?: only)?|(?:play |stay )?inside`,
    () => ({ kind: 'height', most: 2 }),
  ],
  [
    `(?:home scale|pentatonic|blues scale|1 scale|scale)(?: plus| and| with| \\+)? (?:tell tale tones?|(?:note|tone)s? it (?:lacks|misses)|missing (?:note|tone|third)s?|note (?:it |that |scale )?lacks)${HERE}`,
    () => all({ kind: 'must', of: 'tell-tale' }, { kind: 'material', of: 'plan' }),
  ],
  [
    `(?:play |use |hit |touch |find )?(?:tell tale (?:tones?|notes?)|note that tells chord|(?:note|tone)s? (?:that )?home scale lacks|notes? outside home scale)${HERE}`,
    () => ({ kind: 'must', of: 'tell-tale' }),
  ],
  [
    `(?:play |use |hit |touch |include |say |have |get |at least )+(?:(once|1|2|3|twice)(?: times)? )?${T}(?: (?:at least )?(once|twice|2 times|3 times))? (?:each bar|each chord|somewhere)(?: somewhere)?`,
    ([, list]) => ({ kind: 'must', of: aimsIn(list) }),
  ],
  [`(?:1 )?${T} (?:each bar|each chord)(?: somewhere)?`, ([list]) => ({ kind: 'must', of: aimsIn(list) })],
  [`each chord ${T}`, ([list]) => ({ kind: 'must', of: aimsIn(list) })],
  [
    `harmonic minor (?:at|on|over|each chord)? ?(?:dominant|v|v7|five|5)s?(?: chords?)?(?: only)?|raised (?:third|seventh) (?:over|on) dominants?`,
    () => all({ kind: 'must', of: 'tell-tale', over: 'dominant' }, { kind: 'material', of: 'plan' }),
  ],
  [
    `(?:play |use )?(?:borrowed|superimposed|other|upper(?: structure)?|laid over|substitute) (?:arpeggios?|triads?|shapes?|structures?|chords?)${HERE}|arpeggios? (?:of|from) (?:other|another) (?:chord|1)s?${HERE}|arpeggios? from (?:third|fifth|seventh)${HERE}`,
    () => ({ kind: 'borrow' }),
  ],
  [
    `no higher than (chord tones?|colours?|colors?|scale)|(?:only )?chord tones? and (colours?|colors?|ninths?)`,
    ([height]) => ({ kind: 'height', most: heightOf(height ?? 'colours') }),
  ],
  [`on ground|(?:stay )?on chord`, () => ({ kind: 'height', most: 0 })],
  [
    `(?:1 )?(?:colou?r|tension|extension)s? each (?:bar|chord)|(?:use|play) (?:colou?r|tension|extension)s?(?: (?:tones?|notes?))?${HERE}`,
    () => ({ kind: 'height', least: 1 }),
  ],
];

const heightOf = (word: string): number => {
  if (word.startsWith('chord')) return 0;
  return word.startsWith('colo') ? 1 : 2;
};

/** Arpeggios, runs and patterns. */
export const SHAPES: readonly WishReader[] = [
  [
    `(?:up |play )?arpeggios? up,? (?:and )?(?:(?:come )?down )?scales?(?: down)?`,
    () => ({ kind: 'up-and-down', up: 'arpeggio', down: 'scale-run' }),
  ],
  [
    `up arpeggio,? (?:and )?(?:then )?down scale`,
    () => ({ kind: 'up-and-down', up: 'arpeggio', down: 'scale-run' }),
  ],
  [
    `scales? up,? (?:and )?(?:then )?arpeggios? down|up scale,? (?:and )?(?:then )?down arpeggio`,
    () => ({ kind: 'up-and-down', up: 'scale-run', down: 'arpeggio' }),
  ],
  [
    `(?:play |use |1 )*arpeggios?${HERE}|arpeggiate(?: each chord)?(?: chords?)?`,
    () => ({ kind: 'shape', shapes: ['arpeggio'] }),
  ],
  [
    `(?:play |use |1 )*(?:scales?|scale runs?|runs? of scale|runs?)${HERE}`,
    () => ({ kind: 'shape', shapes: ['scale-run'] }),
  ],
  [
    `(?:play |use )*(?:pattern|patterns|sequence|sequences)(?: of (skips|third|threes|fours|3|4|3s|4s))?${HERE}`,
    ([cell]) => pattern(cell),
  ],
  [
    `(?:play )?(?:scale|scales|it|up and down)? ?in (skips|third|threes|fours|groups of 3|groups of 4|3|4)${HERE}`,
    ([cell]) => pattern(cell),
  ],
  [`(?:descend groups? of|groups? of|down in) (4|fours|3|threes)${HERE}`, ([cell]) => pattern(cell)],
];

function pattern(cell: string | undefined): Rule {
  if (cell === undefined) return { kind: 'shape', shapes: ['sequence'] };
  return { kind: 'shape', shapes: ['sequence'], cell: cellIn(cell) };
}

function cellIn(word: string): 2 | 3 | 4 {
  if (/skips|third/.test(word)) return 2;
  return /4|four/.test(word) ? 4 : 3;
}
