import type { ChangeReport, Report } from '../../analyse';
import { readChord } from '../../music';
import { elementAt, pitchClassOf, unwrap, type Semitones } from '../../shared';
import { AIM_NAMES, tonesOf, type Aim } from '../aims';
import { isOnTime, overChanges } from './context';
import type { RuleKind } from './ruleKind';

/**
 * At each change: land on one of these tones, on time; `led` by a note so many semitones away (−1: from a half
 * step below); `early`: only ahead of it.
 */
export type LandRule = {
  readonly kind: 'land';
  readonly tones: readonly Aim[];
  readonly led?: readonly Semitones[];
  readonly early?: true;
  /** Slid, bent or graced into; what leads in by `led` counts too. */
  readonly gliding?: true;
};

function isLanded(change: ChangeReport, rule: LandRule, report: Report): boolean {
  const { landing, to } = change;
  if (landing.noteIndex === null) return false;
  if (!(rule.early ? landing.timing === 'early' : isOnTime(change))) return false;
  const note = elementAt(report.notes, landing.noteIndex);
  if (!tonesOf(unwrap(readChord(to)), rule.tones).includes(pitchClassOf(note.midi))) return false;
  const isGlided = note.from !== undefined || note.flags.includes('slide') || note.flags.includes('bend');
  if (rule.gliding && isGlided) return true;
  return rule.led ? isLed(note, rule.led, report) : !rule.gliding;
}

/** Was the note of the line before it so many semitones away? */
function isLed(note: Report['notes'][number], led: readonly Semitones[], report: Report): boolean {
  const before = report.notes.findLast((other) => other.top && other.onsetBeat < note.onsetBeat - 1e-6);
  return before !== undefined && led.includes(Math.round(before.midi) - Math.round(note.midi));
}

const STEPS: Readonly<Record<number, string>> = { 1: 'a half step', 2: 'a whole step' };
/** `a half step or a whole step above`, side by side. */
export const ledWords = (steps: readonly Semitones[]): string =>
  [steps.filter((step) => step < 0), steps.filter((step) => step > 0)]
    .flatMap((side, index) => {
      const sizes = side.map((step) => STEPS[Math.abs(step)] ?? `${Math.abs(step)} half steps`);
      return sizes.length === 0 ? [] : [`${sizes.join(' or ')} ${index === 0 ? 'below' : 'above'}`];
    })
    .join(' or ');

export const LAND: RuleKind<LandRule> = {
  id: 'land',
  judge: (rule, { report }) => overChanges(report, (change) => isLanded(change, rule, report)),
  counted: ({ tones: [tone, ...others] }) =>
    others.length === 0 && tone !== undefined && tone !== 'chord' ? `${tone}s` : 'landings',
  words: ({ tones, led, early, gliding }) => {
    const ways = [
      ...(led ? [`from ${ledWords(led)}`] : []),
      ...(gliding ? [`${led ? 'or ' : ''}slid, bent or graced into`] : []),
    ];
    const when = early ? 'an eighth ahead of the change' : 'at every change';
    return `${[`Land on ${tones.map((aim) => AIM_NAMES[aim]).join(' or ')} ${when}`, ...ways].join(', ')}.`;
  },
  example: ({ tones, led, early }, recipe) => ({
    ...recipe,
    land: tones,
    lands: true,
    ...(led && { lead: [led.map((steps) => -steps)] }),
    ...(early && { rhythm: 'anticipate' as const }),
  }),
};
