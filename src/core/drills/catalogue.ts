import type { HeightIntent, PlanWords } from '../plan';
import type { Aim } from './aims';
import type { Recipe } from './recipe';
import type { Rule } from './rules';

export type DrillKind = keyof typeof CATALOGUE;
export type CatalogueEntry = {
  readonly name: string;
  readonly reason: string;
  readonly rule: Rule;
  readonly recipe: Recipe;
  readonly plan?: Partial<PlanWords> & { readonly heights?: readonly HeightIntent[] };
};

const entry = (one: CatalogueEntry): CatalogueEntry => one;
const both = (...rules: readonly Rule[]): Rule => ({ kind: 'all', rules });
const land = (name: string, reason: string, tones: readonly Aim[]): CatalogueEntry =>
  entry({
    name,
    reason,
    rule: { kind: 'land', tones },
    recipe: { land: tones, material: 'plan', rhythm: 'quarters', lands: true },
  });
const led = (
  name: string,
  reason: string,
  tones: readonly Aim[],
  semitones: readonly number[],
): CatalogueEntry =>
  entry({
    name,
    reason,
    rule: { kind: 'lead', tones, from: semitones },
    recipe: {
      land: tones,
      material: 'plan',
      chromatic: true,
      lead: [semitones.map((one) => -one)],
      rhythm: 'eighths',
      lands: true,
      inside: true,
    },
  });

/** Patterns are made of the chord-scale, whatever the player’s plan. */
const SCALES: Partial<PlanWords> = { id: 'scale-per-chord' };

/** Every drill there is, from the first rung of the ladder up. The reasons are those teachers give (T14.2). */
export const CATALOGUE = {
  'ladder-roots': land('Roots at every change', 'First know where each chord is.', ['root']),
  'ladder-thirds': land('Thirds at every change', 'A line of thirds alone already tells the chords.', [
    'third',
  ]),
  'ladder-fifths': land('Fifths at every change', 'The third rung: the tone that most chords share.', [
    'fifth',
  ]),
  'ladder-sevenths': land('Sevenths at every change', 'Third and seventh trade places from chord to chord.', [
    'seventh',
  ]),
  'one-target': land('Third or seventh at every change', 'One of the two tones that make the change heard.', [
    'third',
    'seventh',
  ]),
  'chord-tones': entry({
    name: 'Chord tones only',
    reason: 'Nothing else teaches the sound of the change as fast.',
    rule: { kind: 'material', of: 'chord' },
    recipe: { land: ['chord'], material: 'chord', rhythm: 'eighths' },
  }),
  'third-from-below': led(
    'The third from a half step below',
    'The smallest lead into the strongest tone.',
    ['third'],
    [-1],
  ),
  'third-from-above': led('The third from above', 'Chromatic notes need not all rise.', ['third'], [1, 2]),
  'fifth-from-flat-five': led(
    'The fifth from the flat five',
    'A rub that resolves by one fret.',
    ['fifth'],
    [-1],
  ),
  'root-from-below': led(
    'The root from a half step below',
    'The leading tone of every chord.',
    ['root'],
    [-1],
  ),
  'seventh-from-above': led(
    'The seventh from above',
    'From the root, or from the half step over the seventh.',
    ['seventh'],
    [1, 2],
  ),
  'target-from-below': led(
    'Third or seventh from a half step below',
    'One way in, every change.',
    ['third', 'seventh'],
    [-1],
  ),
  'slides-into-tones': entry({
    name: 'Slide into chord tones',
    reason: 'The slide says where it is going before it is there.',
    rule: { kind: 'lead', tones: ['chord'], gliding: true },
    recipe: { land: ['chord'], material: 'plan', rhythm: 'quarters', lands: true, glide: true },
  }),
  'blue-third': entry({
    name: 'The blue third into the third',
    reason: 'The rub is the point, and so is where it ends.',
    rule: { kind: 'lead', tones: ['third'], from: [-1], gliding: true },
    recipe: { land: ['third'], material: 'plan', rhythm: 'quarters', lands: true, glide: true },
  }),
  'fifth-from-above': led(
    'The fifth from above',
    'From the six or the flat six, down into rest.',
    ['fifth'],
    [1, 2],
  ),
  'root-from-above': led(
    'The root from above',
    'The flat nine and the nine both fall home.',
    ['root'],
    [1, 2],
  ),
  'seventh-from-below': led(
    'The seventh from a half step below',
    'The sixth raised, or one fret under the ♭7.',
    ['seventh'],
    [-1],
  ),
  enclosures: entry({
    name: 'Enclose the target',
    reason: 'From both sides the ear knows which note is meant.',
    rule: { kind: 'figure', figures: ['enclosure'] },
    recipe: {
      land: ['third', 'seventh', 'root', 'fifth'],
      material: 'plan',
      chromatic: 'only',
      lead: [[-2, -3], [1]],
      rhythm: 'eighths',
      lands: true,
    },
  }),
  'double-chromatic': entry({
    name: 'Two half steps into the target',
    reason: 'A longer lead, heard as one gesture.',
    rule: { kind: 'figure', figures: ['double-chromatic', 'enclosure'] },
    recipe: {
      land: ['third', 'fifth', 'root', 'seventh'],
      material: 'plan',
      chromatic: 'only',
      lead: [[1], [1]],
      otherLead: [[-2, -3], [1]],
      rhythm: 'eighths',
      lands: true,
    },
  }),
  'nearest-note': entry({
    name: 'Running eighths to the nearest note',
    reason: 'Never stop at a change: join chord to chord by the nearest note.',
    rule: { kind: 'join' },
    recipe: { land: ['chord'], material: 'plan', lead: [[-2, -1, 1, 2]], rhythm: 'running', lands: true },
  }),
  'plan-only': entry({
    name: 'Only what the plan would play',
    reason: 'The plan’s own colour, bar after bar.',
    rule: { kind: 'material', of: 'plan' },
    recipe: { land: ['third', 'seventh', 'chord'], material: 'plan', rhythm: 'eighths' },
  }),
  'home-tell-tale': entry({
    name: 'Home scale and tell-tale tones',
    reason: 'The smallest change to what the hand knows, the largest change in sound.',
    rule: both({ kind: 'must', of: 'tell-tale' }, { kind: 'material', of: 'plan' }),
    recipe: { land: ['third', 'seventh', 'chord'], material: 'plan', rhythm: 'eighths' },
    plan: { id: 'home-tell-tale' },
  }),
  arpeggios: entry({
    name: 'An arpeggio in every bar',
    reason: 'The chord’s own shape under the line.',
    rule: { kind: 'shape', shapes: ['arpeggio'] },
    recipe: { land: ['root', 'third'], material: 'chord', rhythm: 'eighths', shape: 'arpeggio' },
  }),
  'scale-runs': entry({
    name: 'A run of the scale in every bar',
    reason: 'The chord-scale as one motion.',
    rule: { kind: 'shape', shapes: ['scale-run'] },
    recipe: { land: ['chord'], material: 'plan', rhythm: 'eighths', shape: 'run' },
  }),
  'arpeggio-up-scale-down': entry({
    name: 'Arpeggio up, scale down',
    reason: 'The chord says where, the scale says how back.',
    rule: { kind: 'up-and-down', up: 'arpeggio', down: 'scale-run' },
    recipe: {
      land: ['chord'],
      material: 'plan',
      rhythm: 'eighths',
      written: { kind: 'up-and-down', up: 'arpeggio' },
    },
    plan: SCALES,
  }),
  'scale-up-arpeggio-down': entry({
    name: 'Scale up, arpeggio down',
    reason: 'The same round the other way.',
    rule: { kind: 'up-and-down', up: 'scale-run', down: 'arpeggio' },
    recipe: {
      land: ['chord'],
      material: 'plan',
      rhythm: 'eighths',
      written: { kind: 'up-and-down', up: 'scale-run' },
    },
    plan: SCALES,
  }),
  skips: entry({
    name: 'The scale in skips',
    reason: 'Every second tone: the scale begins to sound like chords.',
    rule: { kind: 'shape', shapes: ['sequence'], cell: 2 },
    recipe: {
      land: ['chord'],
      material: 'plan',
      rhythm: 'eighths',
      written: { kind: 'pattern', cell: 2 },
    },
    plan: SCALES,
  }),
  threes: entry({
    name: 'The scale in threes',
    reason: 'Three notes, then from the next: the beat moves under the hand.',
    rule: { kind: 'shape', shapes: ['sequence'], cell: 3 },
    recipe: {
      land: ['chord'],
      material: 'plan',
      rhythm: 'eighths',
      written: { kind: 'pattern', cell: 3 },
    },
    plan: SCALES,
  }),
  'descending-fours': entry({
    name: 'Descending groups of four',
    reason: 'Down four, back two, down four: a fall that takes its time.',
    rule: { kind: 'shape', shapes: ['sequence'], cell: 4 },
    recipe: {
      land: ['chord'],
      material: 'plan',
      rhythm: 'eighths',
      written: { kind: 'pattern', cell: 4 },
    },
    plan: SCALES,
  }),
  'same-motif': entry({
    name: 'One motif, fitted to every chord',
    reason: 'The ear follows a shape; only its end is told anew.',
    rule: { kind: 'motif' },
    recipe: { land: ['chord'], material: 'plan', rhythm: 'phrases', written: { kind: 'motif' } },
  }),
  'own-phrase': entry({
    name: 'Your phrase on every chord',
    reason: 'What the hand already says, made to fit wherever it is said.',
    rule: { kind: 'motif' },
    recipe: { land: ['chord'], material: 'plan', rhythm: 'phrases', written: { kind: 'motif' } },
  }),
  'no-two-alike': entry({
    name: 'No two phrases alike',
    reason: 'A shape the hand loves is left alone for once.',
    rule: { kind: 'vary' },
    recipe: {
      land: ['chord'],
      material: 'plan',
      rhythm: 'phrases',
      phrase: { beat: 2, bars: 2, rest: 1, varied: true },
      varies: true,
    },
  }),
  'call-and-answer': entry({
    name: 'Call and answer',
    reason: 'A phrase that is answered is a thought; two are a conversation.',
    rule: { kind: 'answer' },
    recipe: {
      land: ['chord'],
      material: 'plan',
      rhythm: 'phrases',
      phrase: { beat: 2, bars: 2, rest: 0, varied: true },
    },
  }),
  'end-at-rest': entry({
    name: 'End every phrase at rest',
    reason: 'A question is heard as one only beside an answer.',
    rule: { kind: 'end' },
    recipe: {
      land: ['chord'],
      material: 'plan',
      rhythm: 'phrases',
      phrase: { beat: 2, bars: 2, rest: 0, varied: true },
      rests: true,
    },
  }),
  'through-the-change': entry({
    name: 'Every phrase through a change',
    reason: 'A line that crosses the bar line carries the chord with it.',
    rule: { kind: 'cross' },
    recipe: {
      land: ['chord'],
      material: 'plan',
      rhythm: 'phrases',
      phrase: { beat: 2, bars: 4, rest: 0, varied: true },
    },
  }),
  'long-phrases': entry({
    name: 'Phrases of two bars and more',
    reason: 'A thought that goes on is heard as one.',
    rule: { kind: 'length', least: 6 },
    recipe: {
      land: ['chord'],
      material: 'plan',
      rhythm: 'phrases',
      phrase: { beat: 2, bars: 3, rest: 0, varied: true },
    },
  }),
  anticipate: entry({
    name: 'An eighth ahead of every change',
    reason: 'The line that leads the band sounds sure of the form.',
    rule: { kind: 'land', tones: ['root', 'third', 'fifth', 'seventh'], early: true },
    recipe: {
      land: ['third', 'seventh', 'root', 'fifth'],
      material: 'plan',
      rhythm: 'anticipate',
      lands: true,
    },
  }),
  upbeats: entry({
    name: 'On the upbeats',
    reason: 'Where the beat is known it need not be played.',
    rule: { kind: 'upbeats' },
    recipe: { land: ['chord'], material: 'plan', rhythm: 'offbeats' },
  }),
  'start-on-two': entry({
    name: 'Begin every phrase on two',
    reason: 'Not every thought begins on one.',
    rule: { kind: 'start', beat: 2 },
    recipe: { land: ['chord'], material: 'plan', rhythm: 'phrases', phrase: { beat: 2, bars: 1, rest: 1 } },
  }),
  'start-on-three': entry({
    name: 'Begin every phrase on three',
    reason: 'Half a bar late, and through the next change.',
    rule: { kind: 'start', beat: 3 },
    recipe: { land: ['chord'], material: 'plan', rhythm: 'phrases', phrase: { beat: 3, bars: 1, rest: 1 } },
  }),
  'start-on-four': entry({
    name: 'Begin every phrase on four',
    reason: 'A pickup into every bar.',
    rule: { kind: 'start', beat: 4 },
    recipe: { land: ['chord'], material: 'plan', rhythm: 'phrases', phrase: { beat: 4, bars: 1, rest: 1 } },
  }),
  'start-in-turn': entry({
    name: 'Begin on every beat in turn',
    reason: 'No place in the bar is the only one to begin.',
    rule: { kind: 'start', beat: 1, turn: true },
    recipe: {
      land: ['chord'],
      material: 'plan',
      rhythm: 'phrases',
      phrase: { beat: 1, bars: 1, rest: 1, turn: true },
    },
  }),
  'leave-space': entry({
    name: 'Leave two bars of space',
    reason: 'What was played is heard in the rest after it.',
    rule: { kind: 'space', bars: 2 },
    recipe: {
      land: ['chord'],
      material: 'plan',
      rhythm: 'phrases',
      phrase: { beat: 2, bars: 1, rest: 3, varied: true },
    },
  }),
  'one-position': entry({
    name: 'One place through the whole form',
    reason: 'Every chord lies under the hand where it is.',
    rule: { kind: 'place' },
    recipe: { land: ['third', 'seventh', 'chord'], material: 'plan', rhythm: 'eighths', place: 5 },
  }),
  'next-position': entry({
    name: 'The next place up',
    reason: 'What one place can say, the next one says again.',
    rule: { kind: 'place', from: 8 },
    recipe: { land: ['third', 'seventh', 'chord'], material: 'plan', rhythm: 'eighths', place: 8 },
  }),
  'low-and-high': entry({
    name: 'Low bars and high bars',
    reason: 'An answer an octave away is another voice.',
    rule: { kind: 'range', semitones: 12 },
    recipe: {
      land: ['chord'],
      material: 'plan',
      rhythm: 'phrases',
      phrase: { beat: 2, bars: 2, rest: 0, varied: true },
      wide: true,
    },
  }),
  'in-time': entry({
    name: 'On the beat',
    reason: 'One line of quarters that the band could be set by.',
    rule: both({ kind: 'time', withinMs: 30 }, { kind: 'steady' }),
    recipe: { land: ['third', 'seventh', 'chord'], material: 'plan', rhythm: 'quarters' },
  }),
  'step-out-come-home': entry({
    name: 'Step out, come home',
    reason: 'Tension needs an arrival, not a theory.',
    rule: { kind: 'home', every: 4 },
    recipe: { land: ['chord'], material: 'plan', rhythm: 'eighths', out: 4 },
  }),
  'chords-and-line': entry({
    name: 'A bar of chords, a bar of line',
    reason: 'Who can leave the line and come back knows where the bar is.',
    rule: { kind: 'trade', bars: 1 },
    recipe: { land: ['chord'], material: 'chord', rhythm: 'eighths', written: { kind: 'trade', bars: 1 } },
  }),
  'height-low': entry({
    name: 'Low over the chords',
    reason: 'Chord tones and the colours a whole step above them.',
    rule: { kind: 'height', most: 1 },
    recipe: { land: ['chord'], material: 'chord', rhythm: 'eighths' },
    plan: { heights: ['low'] },
  }),
  'height-high': entry({
    name: 'High over the chords',
    reason: 'Once in every bar off the chord, and not by accident.',
    rule: { kind: 'height', least: 1 },
    recipe: { land: ['chord'], material: 'plan', rhythm: 'eighths', high: true },
    plan: { heights: ['high'] },
  }),
  'height-free': entry({
    name: 'Free, and home every other bar',
    reason: 'As far as you like, as long as the way home is heard.',
    rule: { kind: 'home', every: 2 },
    recipe: { land: ['chord'], material: 'plan', rhythm: 'eighths', out: 2 },
    plan: { heights: ['free'] },
  }),
  'on-the-ground': entry({
    name: 'On the ground',
    reason: 'The chords and nothing else, before anything above them.',
    rule: { kind: 'height', most: 0 },
    recipe: { land: ['chord'], material: 'chord', rhythm: 'eighths' },
    plan: { heights: ['ground'] },
  }),
  'minor-dominant': entry({
    name: 'Harmonic minor on the dominant only',
    reason: 'One altered tone for one bar.',
    rule: both({ kind: 'must', of: 'tell-tale', over: 'dominant' }, { kind: 'material', of: 'plan' }),
    recipe: { land: ['third', 'seventh', 'chord'], material: 'plan', rhythm: 'eighths' },
    plan: { id: 'minor-dominant' },
  }),
  superimposed: entry({
    name: 'Borrowed shapes',
    reason: 'Richer sound from known shapes.',
    rule: both({ kind: 'borrow' }, { kind: 'material', of: 'plan' }),
    recipe: { land: [], material: 'plan', rhythm: 'eighths', shape: 'arpeggio', borrows: true },
    plan: { id: 'borrowed-shapes' },
  }),
} satisfies Record<string, CatalogueEntry>;

export const DRILL_KINDS = Object.keys(CATALOGUE) as DrillKind[];
