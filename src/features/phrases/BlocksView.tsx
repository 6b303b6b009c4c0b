'use client';
import { useMemo } from 'react';
import { blockChords, type Block } from '@/core/phrases';
import { FLAT_NAMES, typeset } from '@/core/music';
import { elementAt, modulo } from '@/core/shared';
import { instrumentOf, useGuitar } from '@/ui/instrument';
import { HearButton } from './Hear';
import type { Bench } from './bench';

/** The phrase as the top voice of block chords, each under one hand. */
export function BlocksView({ bench: { stored, hearing } }: { bench: Bench }) {
  const guitar = useGuitar();
  const { phrase } = stored;
  const tuning = useMemo(() => instrumentOf(guitar).tuning, [guitar]);
  const blocks = useMemo(() => blockChords(phrase, tuning), [phrase, tuning]);
  const notes = useMemo(
    () =>
      blocks.flatMap(({ pitches, onsetBeat, durationBeats }) =>
        pitches.map((midi) => ({ onsetBeat, durationBeats, midi })),
      ),
    [blocks],
  );
  if (blocks.length === 0) return <p className="mt-4 text-soft">No chord sounds under this phrase.</p>;
  return (
    <section aria-label="Block chords" className="mt-3">
      <p className="mb-2 flex flex-wrap items-baseline gap-x-4 text-[15px] text-dim">
        Under the tones of the sixth chord its inversions, under the rest the diminished chord between them.
        <HearButton
          hearing={hearing}
          line={{ id: `${stored.id} blocks`, ...phrase, notes }}
          name="the block chords"
        />
      </p>
      <div className="overflow-x-auto">
        <table className="text-left">
          <caption className="sr-only">
            Each melody note with its chord and its frets, low string first
          </caption>
          <thead>
            <tr className="border-b border-line text-[15px] text-dim">
              {['top note', 'chord', 'notes from below', 'frets, low string first'].map((name) => (
                <th key={name} scope="col" className="py-1 pr-6 font-normal">
                  {name}
                </th>
              ))}
            </tr>
          </thead>
          <tbody>
            {blocks.map((block) => (
              <BlockRow key={block.onsetBeat} block={block} strings={tuning.length} />
            ))}
          </tbody>
        </table>
      </div>
    </section>
  );
}

const nameOf = (midi: number): string => typeset(elementAt(FLAT_NAMES, modulo(midi, 12)));

function BlockRow({ block: { pitches, kind, grip }, strings }: { block: Block; strings: number }) {
  return (
    <tr className="border-b border-line">
      <th scope="row" className="py-1 pr-6 text-[19px] font-[620]">
        {nameOf(elementAt(pitches, pitches.length - 1))}
      </th>
      <td className={kind === 'sixth' ? 'pr-6' : 'pr-6 text-soft'}>
        {kind === 'sixth' ? 'sixth chord' : 'diminished'}
      </td>
      <td className="pr-6 text-soft">{pitches.map(nameOf).join(' ')}</td>
      <td className="pr-6 tabular-nums">{fretsText(grip, strings)}</td>
    </tr>
  );
}

/** `– – 7 9 8 8`, the lowest string first. */
function fretsText(grip: Block['grip'], strings: number): string {
  if (!grip) return 'beyond one hand';
  const frets = new Map(grip.map(({ string, fret }) => [string, fret]));
  return Array.from({ length: strings }, (_, index) => frets.get(strings - index) ?? '–').join('  ');
}
