import { toneByRole, type Chord, type ChordTone, type ToneRole } from '../music';
import { elementAt, type Beats, type Semitones } from '../shared';

/** A tone of the chord that a drill aims at. */
export type Aim = 'root' | 'third' | 'fifth' | 'seventh' | 'chord';

/** What a drill is passed by: one thing that can be heard, and only that. */
export type Rule =
  /**
   * At each change: land on one of these tones, on time; `led` by a note so many semitones away (−1: from a
   * half step below); `early`: only ahead of it.
   */
  | {
      readonly kind: 'land';
      readonly tones: readonly Aim[];
      readonly led?: readonly Semitones[];
      readonly early?: true;
      /** Slid, bent or graced into; what leads in by `led` counts too. */ readonly gliding?: true;
    }
  /** At each change: the landing is the target of an enclosure or of two half steps one way. */
  | { readonly kind: 'figure'; readonly figures: readonly ('enclosure' | 'double-chromatic')[] }
  /** Over each chord: nothing but its tones, or nothing but what the plan would play. */
  | { readonly kind: 'material'; readonly of: 'chord' | 'plan' }
  /** At each change: no rest and no leap: the next note is the same or a step away. */
  | { readonly kind: 'join' }
  /** In each bar that is played in: a shape of this kind; `cell`: a pattern of so many notes. */
  | {
      readonly kind: 'shape';
      readonly shapes: readonly ('arpeggio' | 'scale-run' | 'sequence')[];
      readonly cell?: 2 | 3 | 4;
    }
  /** In each bar of one chord: up by the one, down by the other. */
  | {
      readonly kind: 'up-and-down';
      readonly up: 'arpeggio' | 'scale-run';
      readonly down: 'arpeggio' | 'scale-run';
    }
  /** Each phrase comes to rest: on a tone that is at home, held or on a strong beat. */
  | { readonly kind: 'end' }
  /** Each phrase goes through a change. */
  | { readonly kind: 'cross' }
  /**
   * Each phrase has the rhythm and the contour of one before it, or of a phrase of the player's own, and ends
   * on a chord tone.
   */
  | { readonly kind: 'motif'; readonly like?: Motif }
  /** No phrase has the shape of one before it. */
  | { readonly kind: 'vary' }
  /** Every second phrase answers the one before it. */
  | { readonly kind: 'answer' }
  /** In every fourth bar out of the chords, and home on a chord tone at the bar line after it. */
  | { readonly kind: 'home'; readonly every: number }
  /** Bars of chord hits and bars of line in turn, chords first. */
  | { readonly kind: 'trade'; readonly bars: number }
  /** In each bar: onsets no more than so many milliseconds from the grid, in the middle. */
  | { readonly kind: 'time'; readonly withinMs: number }
  /** In every four bars more than so many semitones from the lowest note to the highest. */
  | { readonly kind: 'range'; readonly semitones: Semitones }
  /**
   * Each phrase begins on this beat of the bar, from 1; `2.5` is the second half of beat 2. `turn`: the next
   * one a beat later, round the bar.
   */
  | { readonly kind: 'start'; readonly beat: number; readonly turn?: true }
  /** After each phrase so many bars of nothing. */
  | { readonly kind: 'space'; readonly bars: number }
  /** Over each chord: nothing that one place of the neck does not hold, with all that was played before it. */
  | {
      readonly kind: 'place';
      /** The lowest fret of the place; any one where it is not said. */ readonly from?: number;
    }
  /** In each bar: no higher than this, or at least once as high. */
  | { readonly kind: 'height'; readonly most?: number; readonly least?: number }
  /** In each bar that is played in: notes on the upbeats. */
  | { readonly kind: 'upbeats' };

/** A phrase as its rhythm and contour: beats and semitones from note to note. */
export type Motif = { readonly gaps: readonly Beats[]; readonly moves: readonly Semitones[] };

/** How one place of an attempt went. Beats of the take. */
export type RuleCheck = { readonly beat: Beats; readonly met: boolean };
export type Attempt = { readonly gates: readonly RuleCheck[]; readonly met: number; readonly of: number };

const ROLES: Record<Exclude<Aim, 'root' | 'chord'>, readonly ToneRole[]> = {
  third: ['third', 'sus'],
  fifth: ['fifth'],
  seventh: ['seventh', 'sixth'],
};

/** The tones an aim names over a chord; none where the chord has no such tone. */
export function tonesOver(chord: Chord, aims: readonly Aim[]): ChordTone[] {
  return [
    ...new Set(
      aims.flatMap((aim) => {
        if (aim === 'chord') return chord.tones;
        if (aim === 'root') return elementAt(chord.tones, 0);
        return toneByRole(chord, ...ROLES[aim]) ?? [];
      }),
    ),
  ];
}
export const tonesOf = (chord: Chord, aims: readonly Aim[]): number[] =>
  tonesOver(chord, aims).map(({ pc }) => pc);

/** A rule in a sentence, as it is said to a player. */
export function ruleWords(rule: Rule): string {
  const share = 'at every change';
  switch (rule.kind) {
    case 'land':
      return `Land on the ${rule.tones.map((tone) => (tone === 'chord' ? 'chord' : tone)).join(' or the ')} ${rule.early ? 'an eighth ahead of the change' : share}${rule.led ? `, from ${rule.led.map(ledWords).join(' or ')}` : ''}${rule.gliding ? `${rule.led ? ', or' : ','} slid, bent or graced into` : ''}.`;
    case 'figure':
      return `Lead into the landing by ${rule.figures.map((kind) => (kind === 'enclosure' ? 'an enclosure' : 'two half steps one way')).join(' or ')} ${share}.`;
    case 'join':
      return 'Keep going through every change: the same note or a step, and no rest.';
    case 'material':
      return rule.of === 'chord'
        ? 'Nothing but chord tones over every chord.'
        : 'Nothing but what the plan would play over every chord.';
    case 'place':
      return rule.from === undefined
        ? 'Everything in one place of the neck.'
        : `Everything in the place from fret ${rule.from}.`;
    case 'shape':
      return `In every bar ${rule.shapes
        .map((shape) => {
          if (shape === 'sequence') {
            if (rule.cell === undefined) return 'a pattern that moves';
            return { 2: 'a pattern of skips', 3: 'a pattern of threes', 4: 'a pattern of fours' }[rule.cell];
          }
          return SHAPES[shape];
        })
        .join(' or ')}.`;
    case 'up-and-down':
      return `In every bar of one chord up by ${SHAPES[rule.up]}, down by ${SHAPES[rule.down]}.`;
    case 'end':
      return 'Every phrase comes to rest on a chord tone, held or on a strong beat.';
    case 'cross':
      return 'Every phrase goes through a change.';
    case 'motif':
      return rule.like
        ? 'Every phrase is your phrase: its rhythm, its contour, its end on a chord tone.'
        : 'Every phrase is the first one again, fitted: its rhythm, its contour, its end on a chord tone.';
    case 'vary':
      return 'No phrase in the shape of one before it.';
    case 'answer':
      return 'Every second phrase answers the one before it: as long, from the same beat, a breath between.';
    case 'home':
      return `Every ${ORDINAL[rule.every] ?? `${rule.every}th`} bar out of the chords, and home on a chord tone at the bar line.`;
    case 'trade':
      return rule.bars === 1
        ? 'A bar of chords, a bar of line, in turn.'
        : `${rule.bars} bars of chords, ${rule.bars} bars of line, in turn.`;
    case 'time':
      return `In every bar the middle of your onsets within ${rule.withinMs} ms of the beat.`;
    case 'range':
      return `In every four bars more than ${rule.semitones === 12 ? 'an octave' : `${rule.semitones} half steps`} from lowest to highest.`;
    case 'height':
      return rule.most !== undefined
        ? (['Only chord tones.', 'Chord tones and colours, no higher.', 'Nothing outside the scale.'][
            rule.most
          ] ?? 'Anything.')
        : `In every bar once ${['on the ground', 'a colour or higher', 'off the chord', 'leading in', 'outside'][rule.least ?? 0]}.`;
    case 'upbeats':
      return 'At least half of every bar’s notes on the upbeats.';
    case 'start':
      return rule.turn
        ? 'The first phrase begins on beat 1, the next on 2, and so on round the bar.'
        : `Every phrase begins on ${Number.isInteger(rule.beat) ? `beat ${rule.beat}` : `the and of ${Math.floor(rule.beat)}`}.`;
    case 'space':
      return `${['No bar', 'A bar', 'Two bars', 'Three bars', 'Four bars'][rule.bars] ?? 'Many bars'} of nothing after every phrase.`;
  }
}

const SHAPES = { arpeggio: 'an arpeggio', 'scale-run': 'a run of the scale' } as const;
const ORDINAL: Record<number, string> = { 1: '', 2: 'second', 3: 'third', 4: 'fourth', 8: 'eighth' };
const ledWords = (semitones: Semitones): string =>
  `${{ 1: 'a half step', 2: 'a whole step' }[Math.abs(semitones)] ?? `${Math.abs(semitones)} half steps`} ${semitones < 0 ? 'below' : 'above'}`;
