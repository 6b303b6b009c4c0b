'use client';
import { useState } from 'react';
import { useGuitar } from '@/ui/instrument';
import { savePicture } from './savePicture';

type Props = { takeId: string; title: string; soundGone: boolean; onRemove: () => void };

const FILES: readonly (readonly [string, string, string])[] = [
  ['midi', 'MIDI', 'notes where they were played, bends, chords as markers'],
  ['musicxml', 'MusicXML', 'the line as a score with its chords and places on your neck'],
  ['notes-csv', 'Notes as CSV', 'every note with what it was and did'],
  ['changes-csv', 'Changes as CSV', 'every change with its landing'],
  ['json', 'Report as JSON', 'everything that is counted'],
  ['wav', 'Sound as WAV', 'as it was recorded'],
  ['archive', 'The whole take', 'sound, notes, edits and words in one file that opens elsewhere'],
];

/** The take in every format, its picture, and the way into the trash. */
export function ExportList({ takeId, title, soundGone, onRemove }: Props) {
  const { tuning, frets, capo, size, open, area } = useGuitar();
  const guitar = new URLSearchParams({
    tuning,
    frets: String(frets),
    capo: String(capo),
    size,
    open,
    area,
  }).toString();
  return (
    <section aria-label="Export">
      <h2 className="text-[25px] leading-8 font-[620]">Export</h2>
      <ul className="mt-3">
        {FILES.filter(([format]) => format !== 'wav' || !soundGone).map(([format, name, what]) => (
          <li key={format} className="border-t border-line py-2">
            <a
              className="font-[580] text-now hover:underline"
              href={`/api/takes/${takeId}/export?format=${format}${format === 'musicxml' ? `&${guitar}` : ''}`}
              download
            >
              {name}
            </a>
            <br />
            <span className="text-[15px] text-dim">{what}</span>
          </li>
        ))}
        <Pictures title={title} />
        <li className="border-t border-line py-2">
          <button type="button" className="font-[580] text-now hover:underline" onClick={onRemove}>
            Remove this take
          </button>
          <br />
          <span className="text-[15px] text-dim">into the trash, for thirty days</span>
        </li>
      </ul>
    </section>
  );
}

function Pictures({ title }: { title: string }) {
  const [busy, setBusy] = useState<'svg' | 'png' | 'failed' | null>(null);
  const save = async (kind: 'svg' | 'png') => {
    setBusy(kind);
    await savePicture(kind, title)
      .then(() => setBusy(null))
      .catch(() => setBusy('failed'));
  };
  const ways = [
    ['Picture as SVG', () => void save('svg')],
    ['as PNG', () => void save('png')],
    ['Print', () => window.print()],
  ] as const;
  return (
    <li className="border-t border-line py-2">
      <span className="flex gap-5">
        {ways.map(([name, run]) => (
          <button key={name} type="button" className="font-[580] text-now hover:underline" onClick={run}>
            {name}
          </button>
        ))}
      </span>
      <span className="text-[15px] text-dim" role="status">
        {pictureWords(busy)}
      </span>
    </li>
  );
}

function pictureWords(busy: string | null) {
  if (busy === 'failed') return 'The picture could not be made.';
  if (busy) return 'Drawing it.';
  return 'the form with everything on it, as it is drawn now';
}
