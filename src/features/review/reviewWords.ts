import type { LandingMark, Report } from '@/core/analyse';
import type { Finding, FirstPage } from '@/core/findings';
import { intervalWord, typeset } from '@/core/music';
import { intervalLabel } from '@/ui/intervalLabel';
import { elementAt, present } from '@/core/shared';

const MOST_SHOWN = 3;

/** The findings beside the form, under the keys 1 to 3. */
export const shownFindings = ({ practise, also }: FirstPage): readonly Finding[] =>
  practise ? [practise, ...also].slice(0, MOST_SHOWN) : [];

/** More than this off the grid changes what is said of landings. */
const LATENCY_MATTERS_MS = 30;

/** The two sentences above the form: what went well, then the one thing to work on, or the next step. */
export function openingWords(
  report: Report,
  { strength, practise, step }: FirstPage,
): { soft: string; bold: string; latency: string | null } {
  const { ms, isDecided } = report.time.lean;
  const isOff = ms !== null && !isDecided && Math.abs(ms) > LATENCY_MATTERS_MS;
  return {
    soft:
      strength?.sentence ??
      (report.summary.notes === 0 ? 'No note was heard in this take.' : 'A first take of it.'),
    bold: practise ? `${practise.sentence} ${practise.advice ?? ''}`.trim() : (step?.sentence ?? ''),
    latency: isOff
      ? 'The notes lie off the beat, and by how much cannot be told. Measure the latency in Record, then line the take up below.'
      : null,
  };
}

/** What a note is, what it did, and why it matters, for the card beside the form. */
export function noteWords(report: Report, index: number): { is: string; did: string; fix: string | null } {
  const note = elementAt(report.notes, index);
  const change = report.changes.find(({ landing }) => landing.noteIndex === index);
  const chord = note.chord === null ? 'no chord' : typeset(note.chord);
  const place = {
    chord: 'a chord tone',
    colour: 'a colour tone',
    scale: 'a scale tone',
    approach: 'outside, leading in',
    outside: 'outside the chord and its scale',
  }[note.tier];
  const is =
    note.interval === null
      ? 'It sounds over no chord.'
      : `The ${intervalWord(note.interval)} of ${chord}: ${place}.${note.flags.includes('blue') ? ' A blue note.' : ''}`;
  const landed = change
    ? `It landed ${{ on: 'on', early: 'early for', held: 'over from before', late: 'late on', none: 'at' }[change.landing.timing]} the change from ${typeset(change.from)} to ${typeset(change.to)}. `
    : '';
  const target = note.targetIndex === undefined ? null : present(report.notes[note.targetIndex]);
  const led = target
    ? `It led to the ${intervalLabel(target.interval)} of ${typeset(target.chord ?? '')}.`
    : '';
  const deed = {
    'chord-tone': '',
    target: 'It is one of the notes the plan aims at.',
    anticipation: 'It came ahead of its chord.',
    grace: 'A grace note.',
    passing: 'It passed between two neighbours.',
    neighbour: 'It stepped away and came back.',
  } as Record<string, string>;
  const fix = change?.fix
    ? `${Math.abs(change.fix.toMidi - Math.round(note.midi)) === 1 ? 'One fret' : `${Math.abs(change.fix.toMidi - Math.round(note.midi))} semitones`} ${change.fix.toMidi > note.midi ? 'higher' : 'lower'} it would have met the change.`
    : null;
  return { is, did: landed + (led || (deed[note.function] ?? '')), fix };
}

export type BoardRow = {
  readonly from: string;
  readonly to: string;
  readonly cells: readonly (readonly number[])[];
  readonly met: number;
  readonly of: number;
};

/** Kinds of change against choruses, worst kind first; a cell holds the indices of its changes. */
export function landingsBoard(report: Report, marks: readonly LandingMark[]): BoardRow[] {
  const kinds = new Map<string, number[]>();
  report.changes.forEach(({ from, to }, index) =>
    kinds.set(`${from}→${to}`, [...(kinds.get(`${from}→${to}`) ?? []), index]),
  );
  return [...kinds]
    .map(([kind, indices]) => {
      const [from, to] = kind.split('→') as [string, string];
      const judged = indices.filter((index) => marks[index] !== 'rest');
      const met = judged.filter(
        (index) => marks[index] === 'target' || marks[index] === 'target-late',
      ).length;
      const cells = Array.from({ length: report.summary.choruses }, (_, chorus) =>
        indices.filter((index) => elementAt(report.changes, index).chorus === chorus + 1),
      );
      return { from, to, cells, met, of: judged.length };
    })
    .sort((a, b) => (a.of ? a.met / a.of : 1) - (b.of ? b.met / b.of : 1));
}
