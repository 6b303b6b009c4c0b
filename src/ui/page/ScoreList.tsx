'use client';
import { useState } from 'react';
import { noteName, typeset } from '@/core/music';
import { slurInto, type ScoreBar, type ScoreEntry, type ScorePitch } from '@/core/notation';
import type { Slur } from '@/core/shared';

const LENGTHS: Record<string, string> = {
  whole: 'whole note',
  half: 'half',
  quarter: 'quarter',
  eighth: 'eighth',
  '16th': 'sixteenth',
  '32nd': 'thirty-second',
  '64th': 'sixty-fourth',
  '128th': '128th',
};

type Props = { bars: readonly ScoreBar[]; degreeOf: (index: number) => string };

/** The page in words, bar by bar, for who does not see it. Made when it is opened: a long take has thousands of notes. */
export function ScoreList({ bars, degreeOf }: Props) {
  const [open, setOpen] = useState(false);
  return (
    <details
      className="print:hidden mt-4 text-[15px]"
      onToggle={(event) => setOpen(event.currentTarget.open)}
    >
      <summary className="cursor-pointer text-soft hover:text-ink">The page as a list of bars</summary>
      {open && (
        <ol className="mt-2 leading-6 text-soft">
          {bars.map((bar) => (
            <li key={bar.start}>{barWords(bar, degreeOf)}</li>
          ))}
        </ol>
      )}
    </details>
  );
}

/** One bar: its chords, and what is written in it. */
export function barWords({ chorus, index, chords, entries }: ScoreBar, degreeOf: Props['degreeOf']): string {
  const where =
    index < 0 ? 'Outside the form' : `${chorus > 0 ? `Chorus ${chorus + 1}, bar` : 'Bar'} ${index + 1}`;
  const names = chords.map(({ chord }) => chord?.symbol ?? 'no chord').join(', ');
  const told = entries
    .map((entry, at) => entryWords(entry, slurInto(entries[at - 1], entry), degreeOf))
    .filter((words) => words !== '');
  return `${where}${names && ` (${names})`}: ${told.length > 0 ? told.join(', ') : 'rest'}.`;
}

const SLURRED = { hammer: ', hammered on', pull: ', pulled off' } as const;

function entryWords({ head, pitches }: ScoreEntry, slur: Slur | null, degreeOf: Props['degreeOf']): string {
  const length = `${'dotted '.repeat(head.dots)}${LENGTHS[head.type]}${head.triplet ? ' of a triplet' : ''}`;
  if (pitches.length === 0) return `${length} rest`;
  const begun = pitches.filter(({ tie }) => !tie.from);
  if (begun.length === 0) return `held for ${/^[aeiou8]/.test(length) ? 'an' : 'a'} ${length}`;
  return `${begun.map((pitch) => pitchWords(pitch, degreeOf)).join(' with ')}, ${length}${slur ? SLURRED[slur] : ''}`;
}

function pitchWords(
  { letter, alter, octave, touch, index }: ScorePitch,
  degreeOf: Props['degreeOf'],
): string {
  const name = `${typeset(noteName({ letter, alter }))}${octave}`;
  const degree = degreeOf(index);
  const place = touch ? `, string ${touch.string} fret ${touch.fret}` : '';
  return `${name}${degree && ` (${degree})`}${place}`;
}
