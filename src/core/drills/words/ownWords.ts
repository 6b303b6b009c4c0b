import {
  accepted,
  elementAt,
  nearestOf,
  refused,
  type BeatsPerMinute,
  type Outcome,
  type Problem,
} from '../../shared';
import { partsOf, type Rule } from '../rules';
import { inPlainWords } from './plain';
import { READERS } from './readers';

/** A drill in the player's words, read: its rule, and where and how fast if that was said. */
export type OwnWords = {
  readonly rule: Rule;
  readonly span?: readonly [number, number];
  readonly tempo?: BeatsPerMinute;
};

/** What may be said, for help beside the field. */
export const OWN_EXAMPLES = [
  'land on the third or the seventh, bars 9-12, at 72',
  'the fifth from a half step below',
  'land on the root early',
  'slide into chord tones',
  'enclose the third',
  'from ♭3 into 3 over every chord',
  'the ninth in every bar',
  'chord tones only',
  'the home scale and the note it lacks',
  'join by step',
  'arpeggio in every bar',
  'pattern of threes',
  'arpeggio up, scale down',
  'arpeggios of other chords',
  'start on 2',
  'start on the and of 3, leave a bar',
  'start on every beat in turn',
  'leave 2 bars',
  'one motif',
  'call and answer',
  'end every phrase on the third',
  'through every change',
  'phrases of two bars or longer',
  'one place',
  'place from fret 7',
  'on the upbeats',
  'out every 4 bars',
  '1 bar of line, 1 bar of chords',
  'no higher than colours',
  'no leaps wider than a fourth',
  'in time within 25 ms',
  'eighths only',
] as const;

const LONGEST = 200;
const MOST_PARTS = 3;

/**
 * A wish in words: the rule it means, and the bars and the tempo if they were said. Two or three rules may be
 * joined by a comma, `and`, `then` or `with`.
 * @param bars how many bars the form has
 */
export function readOwnWords(text: string, bars: number): Outcome<OwnWords> {
  const given = text
    .trim()
    .toLowerCase()
    .replace(/\s+/g, ' ')
    .replace(/[.!]+$/, '');
  if (given === '') return refused(wrong('Say what to practise.', OWN_EXAMPLES[0]));
  if (given.length > LONGEST) return refused(wrong(`More than ${LONGEST} letters: one sentence is enough.`));
  const tempo = tempoIn(given);
  if (!tempo.ok) return tempo;
  const span = spanIn(given, bars);
  if (!span.ok) return span;
  const rest = [tempo.value?.text, span.value?.text].reduce<string>(
    (left, part) => (part ? left.replace(part, ' ') : left),
    given,
  );
  const rule = ruleIn(inPlainWords(rest), MOST_PARTS);
  if (!rule) {
    const said = rest.replace(/\s+/g, ' ').replace(/^[, ]+|[, ]+$/g, '');
    return refused(wrong(`“${said || text}” is no rule that can be heard.`, nearestExample(said)));
  }
  return accepted({
    rule,
    ...(span.value && { span: span.value.bars }),
    ...(tempo.value && { tempo: tempo.value.tempo }),
  });
}

const SLOWEST = 30;
const FASTEST = 320;

function tempoIn(given: string): Outcome<{ text: string; tempo: number } | null> {
  const found =
    /(?:^|[, ])(?:at|tempo) (\d{2,3})(?: ?bpm)?(?=$|[, ])|(?:^|[, ])(\d{2,3}) ?bpm(?=$|[, ])/.exec(given);
  if (!found) return accepted(null);
  const tempo = Number(found[1] ?? found[2]);
  return tempo < SLOWEST || tempo > FASTEST
    ? refused(wrong(`A tempo from ${SLOWEST} to ${FASTEST} is meant, not ${tempo}.`))
    : accepted({ text: found[0], tempo });
}

function spanIn(
  given: string,
  bars: number,
): Outcome<{ text: string; bars: readonly [number, number] } | null> {
  const found =
    /(?:^|[, ])(?:in |over |on |for )?(?:bars?|measures?) (\d{1,3})(?: ?(?:[-–]|to|and) ?(\d{1,3}))?(?=$|[, ])/.exec(
      given,
    );
  if (!found) return accepted(null);
  const first = Number(found[1]);
  const last = Number(found[2] ?? found[1]);
  return first < 1 || last < first || last > bars
    ? refused(wrong(`Bars from 1 to ${bars} are meant, not ${found[0].replace(/^[, ]+/, '')}.`))
    : accepted({ text: found[0], bars: [first, last] });
}

const JOINERS = /,? and then |,? then |, and |, | and | with | while | but | \+ /g;

/** The rule of a wish; where the whole is none, the rules of its halves, joined. */
function ruleIn(plain: string, most: number): Rule | null {
  for (const { pattern, make } of READERS) {
    const found = pattern.exec(plain);
    const rule = found && make(found.slice(1));
    if (rule) return rule;
  }
  if (most < 2) return null;
  for (const joiner of plain.matchAll(JOINERS)) {
    const left = ruleIn(plain.slice(0, joiner.index), 1);
    const right = left && ruleIn(plain.slice(joiner.index + joiner[0].length), most - 1);
    if (left && right) return { kind: 'all', rules: [...partsOf(left), ...partsOf(right)] };
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
