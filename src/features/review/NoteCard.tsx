import type { Report } from '@/core/analyse';
import { noteName, readChord, spellOver } from '@/core/music';
import { typeset } from '@/core/practise';
import { certain } from '@/core/vocabulary';
import { ChordSymbol } from '@/ui/ChordSymbol';
import { ChordWords } from '@/ui/ChordWords';
import { intervalLabel } from '@/ui/intervalLabel';
import { noteWords } from './reviewWords';

type Props = { report: Report; index: number; place: string; onClose: () => void };
const SHARP = ['C', 'C♯', 'D', 'E♭', 'E', 'F', 'F♯', 'G', 'A♭', 'A', 'B♭', 'B'];

/** One note: what it is, what it did, and the smallest change that would have met the chord. */
export function NoteCard({ report, index, place, onClose }: Props) {
  const note = report.notes[index]!;
  const words = noteWords(report, index);
  const pc = ((Math.round(note.midi) % 12) + 12) % 12;
  const name = note.chord ? typeset(noteName(spellOver(certain(readChord(note.chord)), pc))) : SHARP[pc];
  return (
    <section aria-label="Selected note" className="mb-4 border-t-2 border-now pt-2.5">
      <div className="flex justify-between text-[15px] leading-6 text-soft"><h2>{place}</h2><button type="button" onClick={onClose} className="text-dim hover:text-ink"><kbd className="key">Esc</kbd> close</button></div>
      <p className="mt-2.5 text-[64px] leading-[64px] font-[640]" aria-live="polite">{name}</p>
      {note.chord && <p className="mt-1 text-xl font-[640]">{intervalLabel(note.interval)} of <ChordSymbol symbol={note.chord} /></p>}
      <dl className="mt-2.5 text-[15px] leading-[21px]">
        <dt className="mt-2.5 text-sm font-[560] text-dim">What it is</dt><dd><ChordWords text={words.is} /></dd>
        {words.did && <><dt className="mt-2.5 text-sm font-[560] text-dim">What it did</dt><dd><ChordWords text={words.did} /></dd></>}
        {words.fix && <><dt className="mt-2.5 text-sm font-[620] text-now">One-note fix</dt><dd>{words.fix}</dd></>}
      </dl>
    </section>
  );
}
