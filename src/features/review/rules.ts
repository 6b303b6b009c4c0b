import type { Report } from '@/core/analyse';
import { intervalWord, typeset } from '@/core/music';
import { elementAt } from '@/core/shared';

const DEEDS: Record<string, string> = {
  'chord-tone': 'A tone of the chord that sounds.',
  target: 'A tone of the chord, and one the plan aims at here.',
  anticipation: 'A tone of the next chord, struck ahead of it.',
  grace: 'Shorter than a fifth of a beat and led at once into a longer note near by.',
  enclosure:
    'Two linked notes on either side of a target, each at most a whole step from it, then the target.',
  'double-chromatic': 'Two or more half steps one way into a target.',
  'approach-below': 'A step below the target that follows it.',
  'approach-above': 'A step above the target that follows it.',
  suspension: 'A tone of the old chord held into one that lacks it, then down a step.',
  retardation: 'A tone of the old chord held into one that lacks it, then up a step.',
  'minor-to-major-third': 'The minor third into the major third of its chord, within a beat.',
  passing: 'Between two neighbours, a step from each.',
  neighbour: 'A step away from a note and back to it.',
  colour: 'A ninth, thirteenth or other colour of the chord.',
  scale: 'In the chord’s scale, but no tone or colour of the chord.',
  approach: 'Outside the scale, a half step from what follows.',
  outside: 'In neither the chord’s scale nor the home scale, and it leads to nothing by a half step.',
};

/** The rule by which a note got its name. */
export const ruleOf = ({ function: deed }: { readonly function: string }): string => DEEDS[deed] ?? '';

/** Why a note matters where it lies: what it says of the harmony, or hides. */
export function whyOf(report: Report, index: number): string {
  const note = elementAt(report.notes, index);
  const change = report.changes.find(({ landing }) => landing.noteIndex === index);
  if (change) {
    const to = typeset(change.to);
    switch (change.landing.verdict) {
      case 'target':
        return `It tells ${to} from what came before: with the band muted the change is still heard.`;
      case 'chord-tone':
        return `It belongs to ${to}, but other chords of the form share it: a third or a seventh would tell them apart.`;
      case 'none':
        return '';
      default:
        return change.landing.resolutionIndex === undefined
          ? `On it the ear goes on hearing ${typeset(change.from)}.`
          : `The ear waits until the ${intervalWord(elementAt(report.notes, change.landing.resolutionIndex).interval ?? '')} of ${to} comes, ${beatsWord(change.landing.resolvedAfterBeats ?? 0)} in.`;
    }
  }
  if (note.targetIndex !== undefined)
    return 'It makes its target sound meant: tension, then the note it was for.';
  return (
    {
      0: 'It spells the chord.',
      1: 'It colours the chord without leaving it.',
      2: 'It moves the line on and says little of the chord.',
      3: 'It pulls to the note after it.',
      4: 'It steps out: worth it where the line comes home.',
    }[note.height] ?? ''
  );
}

/** A length as it is said: half a beat, a beat, 1.5 beats. */
export function beatsWord(beats: number): string {
  const round = Math.round(beats * 10) / 10;
  if (round === 0.5) return 'half a beat';
  if (round === 1) return 'a beat';
  return `${round} beats`;
}

const FIGURES: Record<string, string> = {
  enclosure: 'Enclosure',
  'double-chromatic': 'Double chromatic',
  'approach-below': 'Approach from below',
  'approach-above': 'Approach from above',
  suspension: 'Suspension',
  retardation: 'Retardation',
  'minor-to-major-third': 'Minor into major third',
};
export const figureName = (kind: string): string => FIGURES[kind] ?? kind;
