import type { Handover, Report } from '@/core/analyse';
import { intervalWord, typeset } from '@/core/music';
import { elementAt } from '@/core/shared';

/**
 * Where a line gives way to chords: is the first one the chart's, and what is the line's last note in it?
 * @returns words to stand behind the handover, with their comma; none where the line takes over
 */
export function intoChordsWords(report: Report, { hit, lastNote }: Handover): string {
  if (hit === undefined) return '';
  const { fit, as, noteIndices } = elementAt(report.events, hit);
  const { chord } = elementAt(report.notes, elementAt(noteIndices, 0));
  if (!fit || !chord) return '';
  const note = lastNote?.interval ? `, your last note is its ${intervalWord(lastNote.interval)}` : '';
  return `, ${chordWords(fit, chord, as)}${note}`;
}

function chordWords(fit: 'right' | 'substitute' | 'wrong', chord: string, as?: string): string {
  if (fit === 'right') return `${typeset(chord)} as written`;
  return fit === 'substitute'
    ? `${typeset(as ?? '')} instead of ${typeset(chord)}`
    : `another chord than ${typeset(chord)}`;
}
