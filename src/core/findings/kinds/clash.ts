import { noteName, readChord, spellOver } from '../../music';
import { unwrap } from '../../shared';
import type { Counted, FindingContext } from '../finding';
import { barAt } from '../bars';
import { defineKind } from '../measure';
import { times, typeset } from '../../music';

type Facts = {
  readonly chord: string;
  readonly note: string;
  /** The chord tone a half step away. */
  readonly against: string;
};

const ENOUGH_CLASHES = 4;
/** Held this long, or struck on the beat, a clash is heard. */
const HEARD_BEATS = 0.75;

/** One note against one chord, again and again, unresolved: named (T13.8). */
function detect(context: FindingContext): Counted<Facts>[] {
  const { report, plan } = context;
  if (plan.id === 'step-out' || plan.id === 'free' || plan.id === 'superimposed') return [];
  const groups = new Map<string, { chord: string; pc: number; bars: number[] }>();
  for (const note of report.notes) {
    if (!note.top || note.chord === null || note.height < 4 || note.inPlan) continue;
    if (note.flags.includes('resolved') || note.flags.includes('blue')) continue;
    if (note.durationBeats < HEARD_BEATS && Math.abs(note.onsetBeat - Math.round(note.onsetBeat)) > 0.12)
      continue;
    const pc = ((Math.round(note.midi) % 12) + 12) % 12;
    const key = `${note.chord} ${pc}`;
    const group = groups.get(key) ?? { chord: note.chord, pc, bars: [] };
    group.bars.push(barAt(context, note.onsetBeat));
    groups.set(key, group);
  }
  return [...groups.values()].flatMap(({ chord: symbol, pc, bars }): Counted<Facts>[] => {
    const chord = unwrap(readChord(symbol));
    const against = chord.tones.find((tone) => [1, 11].includes((tone.pc - pc + 12) % 12));
    const of = report.coverage.find((cover) => cover.chord === symbol)?.count ?? bars.length;
    if (!against) return [];
    return [
      {
        where: { chord: symbol, bars },
        met: Math.max(0, of - bars.length),
        of: Math.max(of, bars.length),
        limit: 1,
        raised: bars.length >= ENOUGH_CLASHES,
        weight: Math.min(0.9, (1.2 * bars.length) / Math.max(12, of)),
        facts: { chord: symbol, note: noteName(spellOver(chord, pc)), against: noteName(against.note) },
      },
    ];
  });
}

/** A clash that comes again and again. */
export const clash = defineKind<Facts>({
  id: 'clash',
  name: 'a clash again and again',
  drill: 'plan-only',
  isNoProgress: true,
  detect,
  say: ({ missed, inBars, facts: { chord, note, against } }) => ({
    title: `${typeset(note)} over ${typeset(chord)}`,
    sentence: `You played ${typeset(note)} over ${typeset(chord)}, against its ${typeset(against)}, ${times(missed)}.`,
    advice: `Move it a half step to ${typeset(against)}${inBars}.`,
  }),
  example: { chord: 'Cm7', note: 'E', against: 'Eb' },
});
