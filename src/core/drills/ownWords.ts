import {
  accepted,
  nearestOf,
  refused,
  type BeatsPerMinute,
  type Outcome,
  type Problem,
  type Semitones,
  present,
  elementAt,
} from '../shared';
import type { Aim } from './aims';
import type { Rule } from './rules';

/** A drill in the player's words, read: its rule, and where and how fast if that was said. */
export type OwnWords = {
  readonly rule: Rule;
  readonly span?: readonly [number, number];
  readonly tempo?: BeatsPerMinute;
};

/** What may be said, for help beside the field. */
export const OWN_EXAMPLES = [
  'land on the third or the seventh, bars 9-12, at 72',
  'land on the fifth from a half step below',
  'land on the root early',
  'slide into chord tones',
  'enclose the target',
  'chord tones only',
  'only the plan',
  'join by step',
  'arpeggio in every bar',
  'pattern of threes',
  'arpeggio up, scale down',
  'start on 2',
  'start on the and of 3',
  'start on every beat in turn',
  'leave 2 bars',
  'one motif',
  'call and answer',
  'end at rest',
  'through every change',
  'one place',
  'place from fret 7',
  'on the upbeats',
  'out every 4 bars',
  '1 bar of chords, 1 bar of line',
  'no higher than colours',
  'in time within 25 ms',
] as const;

const TONES: Record<string, Aim> = {
  root: 'root',
  roots: 'root',
  third: 'third',
  thirds: 'third',
  fifth: 'fifth',
  fifths: 'fifth',
  seventh: 'seventh',
  sevenths: 'seventh',
  chord: 'chord',
};
const NUMBERS: Record<string, number> = { one: 1, two: 2, three: 3, four: 4, a: 1, half: 1, whole: 2 };
const HEIGHTS: Record<string, number> = { 'chord tones': 0, colours: 1, scale: 2, 'the scale': 2 };
const LONGEST = 200;

const count = (word: string): number => NUMBERS[word] ?? Number(word);
type Reader = readonly [RegExp, (match: RegExpExecArray) => Rule | null];

/**
 * One way of saying each rule; the words are those the catalogue itself says its rules with, and shorter ones.
 */
const READERS: readonly Reader[] = [
  [
    /^(?:land on |aim at |play )?(?:the )?((?:roots?|thirds?|fifths?|sevenths?|chord(?: tones?)?)(?:(?:,| or| and)+ (?:the )?(?:roots?|thirds?|fifths?|sevenths?))*)(?: at every change)?(?:,? (early|an eighth ahead(?: of the change)?|slid into|from (?:a |the )?(half step|whole step|semitone)? ?(below|above)))$/,
    landing,
  ],
  [
    /^(?:land on |aim at )(?:the |a )?((?:roots?|thirds?|fifths?|sevenths?|chord(?: tones?)?)(?:(?:,| or| and)+ (?:the )?(?:roots?|thirds?|fifths?|sevenths?))*)(?: at every change)?$/,
    landing,
  ],
  [
    /^((?:roots?|thirds?|fifths?|sevenths?)(?:(?:,| or| and)+ (?:the )?(?:roots?|thirds?|fifths?|sevenths?))*)(?: at every change)?$/,
    landing,
  ],
  [
    /^slide into (?:the )?(chord tones?|roots?|thirds?|fifths?|sevenths?)$/,
    ([, tone]) => ({ kind: 'land', tones: [aimOf(present(tone))], gliding: true }),
  ],
  [
    /^enclose (?:the )?(?:target|landing|third|seventh)s?$|^enclosures?$/,
    () => ({ kind: 'figure', figures: ['enclosure'] }),
  ],
  [
    /^two half steps(?: one way)?(?: into the (?:target|landing))?$|^double chromatic$/,
    () => ({ kind: 'figure', figures: ['double-chromatic'] }),
  ],
  [/^(?:nothing but )?chord tones(?: only)?$/, () => ({ kind: 'material', of: 'chord' })],
  [/^only (?:what )?the plan(?: would play)?$/, () => ({ kind: 'material', of: 'plan' })],
  [/^join (?:by step|every change)$|^nearest note$/, () => ({ kind: 'join' })],
  [
    /^(?:an )?arpeggio up,? (?:and )?(?:a )?scale down$/,
    () => ({ kind: 'up-and-down', up: 'arpeggio', down: 'scale-run' }),
  ],
  [
    /^(?:a )?scale up,? (?:and )?(?:an )?arpeggio down$/,
    () => ({ kind: 'up-and-down', up: 'scale-run', down: 'arpeggio' }),
  ],
  [/^(?:an )?arpeggios?(?: in every bar)?$/, () => ({ kind: 'shape', shapes: ['arpeggio'] })],
  [
    /^(?:a )?(?:scale run|run of the scale|scale)s?(?: in every bar)?$/,
    () => ({ kind: 'shape', shapes: ['scale-run'] }),
  ],
  [
    /^(?:a )?pattern(?: of (skips|threes|fours))?(?: in every bar)?$/,
    ([, cell]) => ({
      kind: 'shape',
      shapes: ['sequence'],
      ...(cell ? { cell: { skips: 2, threes: 3, fours: 4 }[cell] as 2 | 3 | 4 } : {}),
    }),
  ],
  [
    /^(?:start|begin)(?: every phrase)? on (?:beat )?(the and of )?(one|two|three|four|\d)$/,
    ([, and, beat]) => ({ kind: 'start', beat: count(present(beat)) + (and ? 0.5 : 0) }),
  ],
  [/^(?:start|begin) on every beat in turn$/, () => ({ kind: 'start', beat: 1, turn: true })],
  [
    /^leave (a|one|two|three|four|\d) bars?(?: of space| of nothing)?$/,
    ([, bars]) =>
      count(present(bars)) >= 1 && count(present(bars)) <= 8
        ? { kind: 'space', bars: count(present(bars)) }
        : null,
  ],
  [/^one motif$|^same motif$/, () => ({ kind: 'motif' })],
  [/^no two (?:phrases )?alike$/, () => ({ kind: 'vary' })],
  [/^call and answer$/, () => ({ kind: 'answer' })],
  [/^end (?:every phrase )?at rest$/, () => ({ kind: 'end' })],
  [/^(?:every phrase )?through (?:every|a|the) change$/, () => ({ kind: 'cross' })],
  [/^one (?:place|position)$/, () => ({ kind: 'place' })],
  [
    /^(?:place|position) from fret (\d{1,2})$/,
    ([, fret]) => (Number(fret) >= 1 && Number(fret) <= 17 ? { kind: 'place', from: Number(fret) } : null),
  ],
  [/^(?:on the )?upbeats$/, () => ({ kind: 'upbeats' })],
  [
    /^(?:step )?out every (two|three|four|\d) bars(?:,? and home)?$/,
    ([, bars]) =>
      count(present(bars)) >= 1 && count(present(bars)) <= 8
        ? { kind: 'home', every: count(present(bars)) }
        : null,
  ],
  [
    /^(a|one|two|three|four|\d) bars? of chords,? (?:a|one|two|three|four|\d) bars? of line$/,
    ([, bars]) => ({ kind: 'trade', bars: count(present(bars)) }),
  ],
  [
    /^no higher than (chord tones|colours|(?:the )?scale)$/,
    ([, height]) => ({ kind: 'height', most: present(HEIGHTS[present(height)]) }),
  ],
  [/^on the ground$/, () => ({ kind: 'height', most: 0 })],
  [
    /^in time(?: within (\d{1,3}) ms)?$/,
    ([, ms]) =>
      ms === undefined || (Number(ms) >= 5 && Number(ms) <= 100)
        ? { kind: 'time', withinMs: Number(ms ?? 30) }
        : null,
  ],
  [/^more than an octave$/, () => ({ kind: 'range', semitones: 12 })],
];

const aimOf = (word: string): Aim => present(TONES[elementAt(word.split(' '), 0)]);

function landing([, tones, how, size, side]: RegExpExecArray): Rule {
  const aims = [
    ...new Set(
      present(tones)
        .split(/,| or | and |\s+the\s+/)
        .map((word) => word.replace(/^the /, '').trim())
        .filter(Boolean)
        .map(aimOf),
    ),
  ];
  const semitones: Semitones = (size === 'whole step' ? 2 : 1) * (side === 'below' ? -1 : 1);
  return {
    kind: 'land',
    tones: aims,
    ...approachedBy(how, side, semitones),
  };
}

/**
 * Reads a drill in words: a rule, and anywhere after commas `bars 9-12` and `at 72`.
 * @param bars how many bars the chart has
 * @returns the first part that cannot be read, with the nearest words that can
 */
export function readOwnWords(text: string, bars: number): Outcome<OwnWords> {
  const plain = text
    .toLowerCase()
    .replace(/[.\s]+/g, ' ')
    .trim();
  if (plain === '') return refused(wrong('Say what to practise.', OWN_EXAMPLES[0]));
  if (plain.length > LONGEST) return refused(wrong(`A drill is said in ${LONGEST} letters or fewer.`));
  const tempo = tempoIn(plain);
  if (!tempo.ok) return tempo;
  const span = spanIn(plain, bars);
  if (!span.ok) return span;
  const rest = [tempo.value?.text, span.value?.text]
    .reduce<string>((left, part) => (part ? left.replace(part, ' ') : left), plain)
    .replace(/\s*,\s*(?=,|$)/g, '')
    .replace(/\s+/g, ' ')
    .replace(/^[, ]+|[, ]+$/g, '');
  const rule = ruleIn(rest);
  if (!rule) return refused(wrong(`“${rest || text}” is no rule that can be heard.`, nearestExample(rest)));
  return accepted({
    rule,
    ...(span.value && { span: span.value.bars }),
    ...(tempo.value && { tempo: tempo.value.tempo }),
  });
}

const SLOWEST = 30;
const FASTEST = 320;

function tempoIn(plain: string): Outcome<{ text: string; tempo: number } | null> {
  const found = /(?:^|[, ])at (\d{2,3})(?: bpm)?(?=$|[, ])/.exec(plain);
  if (!found) return accepted(null);
  const tempo = Number(found[1]);
  return tempo < SLOWEST || tempo > FASTEST
    ? refused(wrong(`A tempo from ${SLOWEST} to ${FASTEST} is meant, not ${tempo}.`))
    : accepted({ text: found[0], tempo });
}

function spanIn(
  plain: string,
  bars: number,
): Outcome<{ text: string; bars: readonly [number, number] } | null> {
  const found = /(?:^|[, ])(?:in |over )?bars? (\d{1,3})(?: ?[-–] ?(\d{1,3}))?(?=$|[, ])/.exec(plain);
  if (!found) return accepted(null);
  const first = Number(found[1]);
  const last = Number(found[2] ?? found[1]);
  return first < 1 || last < first || last > bars
    ? refused(wrong(`Bars from 1 to ${bars} are meant, not ${found[0].replace(/^[, ]+/, '')}.`))
    : accepted({ text: found[0], bars: [first, last] });
}

function ruleIn(rest: string): Rule | null {
  for (const [pattern, make] of READERS) {
    const match = pattern.exec(rest);
    const rule = match && make(match);
    if (rule) return rule;
  }
  return null;
}

const nearestExample = (rest: string): string =>
  nearestOf(
    rest,
    OWN_EXAMPLES.map((example) => elementAt(example.split(', bars'), 0)),
  ) ?? OWN_EXAMPLES[0];

const wrong = (message: string, suggestion?: string): Problem => ({
  code: 'drill.words',
  message,
  ...(suggestion ? { suggestion } : {}),
});

function approachedBy(how: string | undefined, side: string | undefined, semitones: number) {
  if (how === undefined) return {};
  if (side) return { led: [semitones] };
  if (how === 'slid into') return { gliding: true as const };
  return { early: true as const };
}
