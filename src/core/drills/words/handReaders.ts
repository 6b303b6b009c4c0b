import type { Semitones } from '../../shared';
import type { Rule } from '../rules';
import { HIGH_FROM, LOW_TO } from '../rules/register';
import { HERE, type WishReader } from './reader';

/** The place on the neck, the register and the size of moves. */
export const HAND: readonly WishReader[] = [
  [
    `(?:stay |play |keep |all |everything )*(?:in |within )?(?:1|one|same) (?:place|spot|box|area)(?: (?:of|on) neck)?(?: throughout)?|(?:don't|do not) (?:move|shift)(?: hand)?|no (?:shifts?|position changes?)`,
    () => ({ kind: 'place' }),
  ],
  [
    `(?:stay |play |keep |only )*(?:in |at |within )?(?:place )?(?:from |at |around )?(?:fret )(\\d{1,2})(?: (?:and )?(?:up|place))?|(?:stay |play )*(?:in |at )?(\\d{1,2})(?:st|nd|rd|th) (?:place|fret)|(?:stay |play )*between frets? (\\d{1,2}) and \\d{1,2}|(?:stay |play )*(?:in )?(third|fifth|seventh|ninth) place`,
    ([one, two, three, four]) => placed(one ?? two ?? three ?? FRETS[four ?? '']),
  ],
  [
    `(?:stay |play |only |keep )*(?:up |in |on )*(?:high|top)(?: register| strings?| notes?| up(?: neck)?)?(?: only)?`,
    () => ({ kind: 'register', from: HIGH_FROM }),
  ],
  [
    `(?:stay |play |only |keep )*(?:down |in |on )*(?:low|bottom|bass)(?: register| strings?| notes?| down)?(?: only)?`,
    () => ({ kind: 'register', to: LOW_TO }),
  ],
  [
    `(?:use |play |cover )*(?:whole|full|wide|wider|more) range|more than 1? ?octave|low and high(?: bars| phrases)?`,
    () => ({ kind: 'range', semitones: 12 }),
  ],
  [
    `(?:keep going,? )?(?:join|connect|link|voice lead)(?: (?:by step|each chord|chords|at change|every change|changes|through changes|smoothly|lines?|each change))*|nearest note(?: (?:each chord|at change))?|(?:smallest|closest) (?:move|note|step)(?: (?:at change|each chord))?|through changes by (?:step|nearest note)`,
    () => ({ kind: 'join' }),
  ],
  [
    `(?:move |play |only |just )*(?:by )?steps?(?: only| wise)?|no (?:leaps?|jumps?|skips?)|no (?:leap|jump|move)s? (?:bigger|wider|larger|more) than (?:a )?(third|fourth|fifth|octave)|stepwise(?: only)?`,
    ([most]) => ({ kind: 'moves', most: WIDEST[most ?? ''] ?? 2 }),
  ],
];

const FRETS: Readonly<Record<string, string>> = { third: '3', fifth: '5', seventh: '7', ninth: '9' };
const WIDEST: Readonly<Record<string, Semitones>> = { third: 4, fourth: 5, fifth: 7, octave: 12 };

function placed(fret: string | undefined): Rule | null {
  const from = Number(fret);
  return from >= 1 && from <= 17 ? { kind: 'place', from } : null;
}

/** The beat, the tempo and note values. */
export const TIMES: readonly WishReader[] = [
  [
    `(?:play |stay |be |only |mostly )*(?:on |off )?(?:the )?upbeats?(?: only)?(?: (?:each bar|line))?|(?:play )?off beat`,
    () => ({ kind: 'upbeats' }),
  ],
  [
    `(?:play |stay |be )*(?:in time|on (?:the )?(?:beat|grid)|tight)(?: within (\\d{1,3}) ?ms)?|within (\\d{1,3}) ?ms(?: of beat)?`,
    ([one, two]) => timed(one ?? two),
  ],
  [
    `(?:don't|do not|never|stop) (?:rush|drag|speed up|slow down)\\w*|(?:keep|hold)(?: (?:steady )?(?:tempo|time)| steady)|steady (?:tempo|time)`,
    () => ({ kind: 'steady' }),
  ],
  [
    `(?:play |only |use |run |running |just |straight |continuous |nonstop |steady |mostly )*(quarters|eighths|triplets)(?: only| non ?stop| all way| throughout| line)?${HERE}`,
    ([value]) => ({ kind: 'rhythm', value: value as 'eighths' }),
  ],
];

function timed(ms: string | undefined): Rule | null {
  const withinMs = Number(ms ?? 30);
  return withinMs >= 5 && withinMs <= 200 ? { kind: 'time', withinMs } : null;
}
