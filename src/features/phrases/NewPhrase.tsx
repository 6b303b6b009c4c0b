'use client';
import { useRouter } from 'next/navigation';
import { useState } from 'react';
import { readLineMusicXml, readMidi } from '@/core/formats';
import { PHRASE_EXAMPLE, readPhrase, writePhrase, type KeptPhrase } from '@/core/phrases';
import type { Problem } from '@/core/shared';
import { keepPhrase } from './phraseServer';

const MOST_BYTES = 2_000_000;

type Draft = { name: string; chords: string; line: string; tempo: string };
const EMPTY: Draft = { name: '', chords: '', line: '', tempo: '100' };

const problemWords = ({ message, column, suggestion }: Problem): string =>
  [column === undefined ? message : `Column ${column}: ${message}`, suggestion].filter(Boolean).join(' ');

/** A phrase typed in, or read from a file: its chords and its notes, checked while they are written. */
export function NewPhrase() {
  const router = useRouter();
  const [draft, setDraft] = useState(EMPTY);
  const [source, setSource] = useState<'typed' | 'file'>('typed');
  const [trouble, setTrouble] = useState<string | null>(null);
  const isEmpty = draft.line.trim() === '' && draft.chords.trim() === '';
  const read = readPhrase({ ...draft, tempo: Math.max(30, Math.min(300, Number(draft.tempo) || 100)) });
  const change = (field: keyof Draft) => (event: { target: { value: string } }) =>
    setDraft({ ...draft, [field]: event.target.value });
  const keep = () => {
    if (!read.ok) return setTrouble(problemWords(read.problems[0]));
    keepPhrase({ name: draft.name.trim() || 'My phrase', tags: [], phrase: read.value, source })
      .then(({ id }) => router.push(`/phrases/${id}`))
      .catch((error: Error) => setTrouble(error.message));
  };
  const bring = async (file: File | undefined) => {
    if (!file) return;
    const notes = await notesOfFile(file);
    if (typeof notes === 'string') return setTrouble(notes);
    setSource('file');
    setDraft({ ...draft, name: file.name.replace(/\.[a-z]+$/i, ''), ...fileDraft(notes, draft.chords) });
  };
  return (
    <section aria-label="Write a phrase" className="max-w-[560px]">
      <h2 className="text-[25px] leading-8 font-[640]">Write a phrase</h2>
      <form
        className="mt-2 grid grid-cols-[minmax(0,1fr)] gap-2"
        onSubmit={(event) => {
          event.preventDefault();
          keep();
        }}
      >
        <Line label="Name" value={draft.name} onChange={change('name')} placeholder="My phrase" />
        <Line
          label="Chords"
          value={draft.chords}
          onChange={change('chords')}
          placeholder="Dm7 | G7 | Cmaj7"
        />
        <Line label="Notes" value={draft.line} onChange={change('line')} placeholder={PHRASE_EXAMPLE} />
        <p className="text-[15px] leading-6 text-dim">
          Notes (<code>Eb4</code>), degrees of the chord (<code>b3</code>) or rests (<code>.</code>), each
          with its length in beats: <code>C5:1/2</code>. Without one it is as long as the note before.
        </p>
        <div className="flex flex-wrap items-center gap-4">
          <label className="flex items-center gap-2 text-dim">
            Tempo
            <input
              className="field w-20 !py-1"
              inputMode="numeric"
              value={draft.tempo}
              onChange={change('tempo')}
            />
          </label>
          <button type="submit" className="quiet" disabled={isEmpty}>
            Keep it
          </button>
          <label className="cursor-pointer text-[15px] text-soft underline hover:text-ink">
            from a MIDI or MusicXML file
            <input
              type="file"
              className="sr-only"
              accept=".mid,.midi,.musicxml,.xml"
              onChange={(event) => void bring(event.target.files?.[0])}
            />
          </label>
        </div>
      </form>
      <p role="status" className="mt-2 min-h-6 text-soft">
        {trouble ?? (isEmpty || read.ok ? '' : problemWords(read.problems[0]))}
      </p>
    </section>
  );
}

type LineProps = {
  label: string;
  value: string;
  placeholder: string;
  onChange: (event: { target: { value: string } }) => void;
};
const Line = ({ label, ...input }: LineProps) => (
  <label className="grid grid-cols-[72px_minmax(0,1fr)] items-center gap-3 text-dim">
    {label}
    <input className="field text-ink" maxLength={1000} {...input} />
  </label>
);

/** The notes of a file, or why there are none. */
async function notesOfFile(file: File): Promise<KeptPhrase['notes'] | string> {
  if (file.size > MOST_BYTES) return `${file.name} is too large for one phrase.`;
  const bytes = new Uint8Array(await file.arrayBuffer());
  const read = /\.midi?$/i.test(file.name)
    ? readMidi(bytes)
    : readLineMusicXml(new TextDecoder().decode(bytes));
  if (!read.ok) return problemWords(read.problems[0]);
  const first = Math.min(...read.value.map(({ onsetBeat }) => Math.floor(onsetBeat / 4) * 4));
  const notes = read.value.slice(0, 200).map(({ onsetBeat, durationBeats, midi }) => ({
    onsetBeat: onsetBeat - first,
    durationBeats,
    midi: Math.round(midi),
  }));
  return notes.length < 2 ? `${file.name} holds fewer than two notes.` : notes;
}

/** The text of a file's notes, and chords for as many bars as they fill where none are written yet. */
function fileDraft(notes: KeptPhrase['notes'], chords: string): Pick<Draft, 'chords' | 'line'> {
  const end = Math.max(...notes.map(({ onsetBeat, durationBeats }) => onsetBeat + durationBeats));
  const bars = Math.max(1, Math.ceil(end / 4 - 0.01));
  const under = chords.trim() || Array<string>(bars).fill('C').join(' | ');
  const chartText = `| ${Array<string>(bars).fill('C').join(' | ')} |`;
  return { chords: under, line: writePhrase({ chartText, tempo: 100, notes }).line };
}
