import type { Rule } from '../rules';
import { few, type WishReader } from './reader';
import { aimsIn, TONE_LIST } from './tones';

const T = TONE_LIST;

const beatOf = (and: string | undefined, beat: string | undefined): number =>
  Number((beat ?? '1').replace('one', '1')) + (and ? 0.5 : 0);

/** Where phrases begin and end, how long they are, and what comes back. */
export const PHRASES: readonly WishReader[] = [
  [
    `(?:start)(?: (?:each|every|all|phrases?|line|motif|it))*(?: at| on| with| from)* (?:beat )?(and of |upbeats? of |upbeats? after |after )?(?:beat )?(one|\\d)(?: each bar)?`,
    ([and, beat]) => starting(beatOf(and, beat)),
  ],
  [
    `(?:phrases?|every phrase|each phrase|all phrases) (?:start|from|that start|which start)(?: on| at| from)? (?:beat )?(and of |after )?(?:beat )?(one|\\d)`,
    ([and, beat]) => starting(beatOf(and, beat)),
  ],
  [
    `(?:pickups?|pick up|lead in)(?: (?:on|from|at) (?:beat )?(\\d))?(?: each (?:bar|phrase))?`,
    ([beat]) => starting(Number(beat ?? 4)),
  ],
  [
    `(?:never|don't|do not|avoid) start(?: phrases?)?(?: on| at)? (?:beat )?(?:1|one|downbeat)`,
    () => starting(2),
  ],
  [
    `start(?: phrases?)? (?:on|at) (?:every|each|another|different|all) beats?(?: in turn)?(?: (?:each|every) time)?|start each phrase (?:1 )?beat later|move start(?: of phrase)? round bar`,
    () => ({ kind: 'start', beat: 1, turn: true }),
  ],
  [
    `leave (?:(\\d|one) )?bars?(?: of)?(?: space| free| empty| out)*(?: (?:after|between)(?: (?:every|each))? ?phrases?)?`,
    ([bars]) => few(bars?.replace('one', '1'), (count) => ({ kind: 'space', bars: count })),
  ],
  [
    `(?:(\\d|one) )?bars?(?: of)? space (?:after|between)(?: (?:every|each))? ?phrases?|(?:space|stop|wait) (?:for )?(\\d|one) bars?(?: (?:after|between)(?: (?:every|each))? ?phrases?)?`,
    ([one, two]) => few((one ?? two)?.replace('one', '1'), (count) => ({ kind: 'space', bars: count })),
  ],
  [
    `(?:play )?(\\d|one) bars?,? (?:then |and )?(?:space|leave|stop)(?: for)? (\\d|one)(?: bars?)?|(?:leave|more|use|play) (?:more )?space|breathe?(?: (?:between|after) phrases?)?|play less`,
    ([, two]) => few(two?.replace('one', '1'), (count) => ({ kind: 'space', bars: count })),
  ],
  [
    `(?:only |use |develop |repeat |play |keep |stick to |same |with |one |1 )*motif(?: (?:only|throughout|fitted to chords?|each chord|at change|through changes?|at each change))*`,
    () => ({ kind: 'motif' }),
  ],
  [
    `(?:no 2|never repeat|don't repeat|no) (?:phrases? )?(?:alike|same|motif|phrases?|repeats?|yourself|myself)(?: twice)?|every phrase different|different phrase every time`,
    () => ({ kind: 'vary' }),
  ],
  [
    `(?:call|question)s? and (?:answer|response)s?|answer (?:every|each|own)? ?(?:phrases?|motif)|phrases? that answer each other`,
    () => ({ kind: 'answer' }),
  ],
  [
    `end (?:(?:every|each|all) )?(?:phrases? )?(?:at|in|on) (?:space|home|chord tone|long note|held note|strong beat)s?|(?:resolve|come home with) (?:every|each|all)? ?phrases?`,
    () => ({ kind: 'end' }),
  ],
  [
    `end (?:(?:every|each|all) )?(?:phrases? |lines? )?(?:on |with |at )${T}|last note (?:of (?:each|every) phrase )?(?:on |is )?${T}|(?:every|each) phrase end (?:on |with )${T}`,
    ([one, two, three]) => ({ kind: 'end', tones: aimsIn(one ?? two ?? three) }),
  ],
  [
    `(?:every phrase |phrases? |line |play |go |run |carry |keep going )*(?:through|across|over) (?:every |each |bar ?)?(?:changes?|bar ?lines?|lines?)|(?:don't|do not|never) stop at (?:bar ?lines?|change|changes)`,
    () => ({ kind: 'cross' }),
  ],
  [
    `(?:play |use )?(?:long|longer) (?:phrases?|lines?)|phrases? (?:of )?(?:at least )?2 bars(?: (?:long|or (?:more|longer)))?`,
    () => ({ kind: 'length', least: 6 }),
  ],
  [
    `(?:play )?(?:phrases? )?(?:of )?(?:at least )?(\\d) beats?(?: long)?(?: phrases?| or longer)?|every phrase (\\d) beats or longer`,
    ([one, two]) => few(one ?? two, (count) => ({ kind: 'length', least: count })),
  ],
  [
    `(?:step |go |play |get )?(?:out|outside)(?: of (?:key|scale|chords?))? (?:every (\\d)(?: bars?)?|(?:for )?1 bar)(?:,? (?:and |then )?(?:come |back |go |get |return |resolve )*(?:home|in|inside))?`,
    ([bars]) => few(bars ?? '4', (count) => ({ kind: 'home', every: count })),
  ],
  [
    `(?:step|go|play|side ?slip)(?: out(?:side)?)?,? (?:and |then )?(?:come |go |get )?(?:back ?|home ?|in ?)+|side ?slips?`,
    () => ({ kind: 'home', every: 4 }),
  ],
  [
    `(?:(\\d|one) )?(?:bars? )?(?:of )?((?:each )?chords?|lines?)(?: bars?)?,? (?:and |then |with )?(?:(\\d|one) )?(?:bars? )?(?:of )?(?:lines?|(?:each )?chords?)(?:,? in turn| alternately)?`,
    ([bars, first, then]) => trading(bars, first, then?.replace('one', '1')),
  ],
  [
    `(?:alternate|trade|switch between|mix) (chords?|line)s? (?:and|with) (?:line|chords?)s?(?: each bar| every bar| bar by bar)?`,
    ([first]) => trading('1', first),
  ],
];

const starting = (beat: number): Rule | null => (beat >= 1 && beat < 10 ? { kind: 'start', beat } : null);

const trading = (bars: string | undefined, first: string | undefined, then?: string): Rule | null =>
  few(bars?.replace('one', '1'), (count) => ({
    kind: 'trade',
    bars: count,
    ...(then !== undefined && Number(then) !== count && Number(then) > 0 && { then: Number(then) }),
    ...(first?.startsWith('line') && { first: 'line' as const }),
  }));
