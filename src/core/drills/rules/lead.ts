import type { Report } from '../../analyse';
import { readChord } from '../../music';
import { pitchClassOf, unwrap, type Beats, type Semitones } from '../../shared';
import { AIM_NAMES, tonesOf, type Aim } from '../aims';
import { overChords } from './context';
import { ledWords } from './land';
import type { RuleKind } from './ruleKind';

/**
 * Over each chord that is played on, at its change or inside it: one of these tones, led into by a note so many
 * semitones away (−1: from a half step below), or slid, bent or graced into.
 */
export type LeadRule = {
  readonly kind: 'lead';
  readonly tones: readonly Aim[];
  readonly from?: readonly Semitones[];
  readonly gliding?: true;
};

/** What leads in is followed by its target within so long. */
const LINKED: Beats = 1.25;

type Note = Report['notes'][number];

function isLedInto(note: Note, { tones, from, gliding }: LeadRule, report: Report): boolean {
  if (note.chord === null || !note.top) return false;
  if (!tonesOf(unwrap(readChord(note.chord)), tones).includes(pitchClassOf(note.midi))) return false;
  if (gliding && (note.from !== undefined || note.flags.includes('slide') || note.flags.includes('bend')))
    return true;
  const before = report.notes.findLast((other) => other.top && other.onsetBeat < note.onsetBeat - 1e-6);
  return (
    before !== undefined &&
    note.onsetBeat - before.onsetBeat <= LINKED &&
    (from ?? []).includes(Math.round(before.midi) - Math.round(note.midi))
  );
}

export const LEAD: RuleKind<LeadRule> = {
  id: 'lead',
  judge: (rule, { report }) =>
    overChords(report, (notes) => notes.some((note) => isLedInto(note, rule, report))),
  counted: () => 'lead-ins',
  words: ({ tones, from = [], gliding }) => {
    const ways = [
      ...(from.length > 0 ? [`from ${ledWords(from)}`] : []),
      ...(gliding ? ['by a slide, a bend or a grace note'] : []),
    ];
    return `Over every chord lead into ${tones.map((aim) => AIM_NAMES[aim]).join(' or ')} ${ways.join(', or ')}.`;
  },
  example: ({ tones, from, gliding }, recipe) => ({
    ...recipe,
    land: tones,
    lands: true,

    ...(from && { lead: [from.map((steps) => -steps)], chromatic: true as const, inside: true as const }),
    ...(gliding && { glide: true as const }),
  }),
};
