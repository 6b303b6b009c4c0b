'use client';
import { Star } from 'lucide-react';
import { useState } from 'react';
import type { TakeWords } from '@/core/correct';
import type { Selection } from './selection';
import { savePicture } from './savePicture';
import type { Remark } from '@/core/correct';

type Props = {
  takeId: string;
  title: string;
  words: TakeWords;
  onWords: (words: TakeWords) => void;
  keeping: 'kept' | 'keeping' | 'failed';
  soundGone: boolean;
  /** Where a new remark belongs: the bar or the phrase that is selected. */
  place: { readonly bar?: number; readonly phraseBeat?: number; readonly words: string } | null;
  nameOfBar: (throughBar: number) => string;
  onHear: (beat: number) => void;
  beatOfBar: (bar: number) => number;
  selection: Selection | null;
  onRemove: () => void;
};

const FILES: readonly (readonly [string, string, string])[] = [
  ['midi', 'MIDI', 'notes where they were played, bends, chords as markers'],
  ['musicxml', 'MusicXML', 'the line as a score with its chords'],
  ['notes-csv', 'Notes as CSV', 'every note with what it was and did'],
  ['changes-csv', 'Changes as CSV', 'every change with its landing'],
  ['json', 'Report as JSON', 'everything that is counted'],
  ['wav', 'Sound as WAV', 'as it was recorded'],
  ['archive', 'The whole take', 'sound, notes, edits and words in one file that opens elsewhere'],
];

/** The player’s own words on a take, and ways to take it along. */
export function WordsView({
  takeId,
  title,
  words,
  onWords,
  keeping,
  soundGone,
  place,
  nameOfBar,
  onHear,
  beatOfBar,
  onRemove,
}: Props) {
  const [text, setText] = useState('');
  const [tag, setTag] = useState('');
  const [busy, setBusy] = useState<string | null>(null);
  const addTag = () => {
    const clean = tag.trim().slice(0, 32);
    if (clean && !words.tags.includes(clean))
      onWords({ ...words, tags: [...words.tags, clean].slice(0, 24) });
    setTag('');
  };
  const addRemark = () => {
    if (!text.trim()) return;
    const { words: _said, ...where } = place ?? { words: '' };
    onWords({
      ...words,
      remarks: [
        ...words.remarks,
        { id: `r${Date.now().toString(36)}`, text: text.trim().slice(0, 4000), ...where },
      ],
    });
    setText('');
  };
  const picture = async (kind: 'svg' | 'png') => {
    setBusy(kind);
    await savePicture(kind, title).catch(() => setBusy('failed'));
    setBusy((now) => (now === 'failed' ? now : null));
  };
  return (
    <div className="grid grid-cols-[minmax(0,1fr)] gap-x-12 gap-y-8 lg:grid-cols-[minmax(0,752fr)_minmax(280px,416fr)]">
      <section aria-label="Your words">
        <h1 className="text-[25px] leading-8 font-[620]">Your words on this take</h1>
        <fieldset className="mt-3 flex items-center gap-1">
          <legend className="sr-only">Stars</legend>
          {[1, 2, 3, 4, 5].map((star) => (
            <button
              key={star}
              type="button"
              aria-label={`${star} ${star === 1 ? 'star' : 'stars'}`}
              aria-pressed={words.stars >= star}
              className="p-1"
              onClick={() => onWords({ ...words, stars: words.stars === star ? 0 : star })}
            >
              <StarSign filled={words.stars >= star} />
            </button>
          ))}
          <span className="ml-3 text-dim">{words.stars === 0 ? 'no stars yet' : `${words.stars} of 5`}</span>
        </fieldset>
        <p className="mt-3 flex flex-wrap items-center gap-2 text-[15px]">
          {words.tags.map((one) => (
            <button
              key={one}
              type="button"
              className="quiet !py-0.5"
              aria-label={`Take the tag ${one} off`}
              onClick={() => onWords({ ...words, tags: words.tags.filter((other) => other !== one) })}
            >
              {one} <span aria-hidden="true">×</span>
            </button>
          ))}
          <input
            className="field w-44 !py-1"
            aria-label="A tag"
            placeholder="a tag, then Enter"
            value={tag}
            onChange={(event) => setTag(event.target.value)}
            onKeyDown={(event) => {
              if (event.key === 'Enter') {
                event.preventDefault();
                addTag();
              }
            }}
            onBlur={addTag}
          />
        </p>
        <div className="mt-5">
          <label className="text-dim" htmlFor="remark">
            A remark on {place?.words ?? 'the whole take'}
          </label>
          <textarea
            id="remark"
            className="field mt-1 h-24 w-full"
            value={text}
            onChange={(event) => setText(event.target.value)}
            onKeyDown={(event) => {
              if (event.key === 'Enter' && (event.ctrlKey || event.metaKey)) addRemark();
            }}
          />
          <p className="mt-1 flex items-center gap-4">
            <button type="button" className="go" disabled={!text.trim()} onClick={addRemark}>
              Keep it
            </button>
            <span className="text-sm text-dim" role="status">
              {keepingWords(keeping)}
            </span>
          </p>
        </div>
        <ul className="mt-4">
          {words.remarks.map((remark) => (
            <li key={remark.id} className="border-t border-line py-2.5">
              <p className="flex justify-between gap-3 text-sm text-dim">
                <span>
                  <RemarkPlace remark={remark} nameOfBar={nameOfBar} beatOfBar={beatOfBar} onHear={onHear} />
                </span>
                <button
                  type="button"
                  className="hover:text-ink"
                  onClick={() =>
                    onWords({ ...words, remarks: words.remarks.filter(({ id }) => id !== remark.id) })
                  }
                >
                  take it out
                </button>
              </p>
              <p className="whitespace-pre-wrap">{remark.text}</p>
            </li>
          ))}
        </ul>
      </section>
      <section aria-label="Export">
        <h2 className="text-[25px] leading-8 font-[620]">Export</h2>
        <ul className="mt-3">
          {FILES.map(([format, name, what]) =>
            format === 'wav' && soundGone ? null : (
              <li key={format} className="border-t border-line py-2">
                <a
                  className="font-[580] text-now hover:underline"
                  href={`/api/takes/${takeId}/export?format=${format}`}
                  download
                >
                  {name}
                </a>
                <br />
                <span className="text-[15px] text-dim">{what}</span>
              </li>
            ),
          )}
          <li className="border-t border-line py-2">
            <span className="flex gap-5">
              <button
                type="button"
                className="font-[580] text-now hover:underline"
                onClick={() => void picture('svg')}
              >
                Picture as SVG
              </button>
              <button
                type="button"
                className="font-[580] text-now hover:underline"
                onClick={() => void picture('png')}
              >
                as PNG
              </button>
              <button
                type="button"
                className="font-[580] text-now hover:underline"
                onClick={() => window.print()}
              >
                Print
              </button>
            </span>
            <span className="text-[15px] text-dim" role="status">
              {pictureWords(busy)}
            </span>
          </li>
          <li className="border-t border-line py-2">
            <button type="button" className="font-[580] text-now hover:underline" onClick={onRemove}>
              Remove this take
            </button>
            <br />
            <span className="text-[15px] text-dim">into the trash, for thirty days</span>
          </li>
        </ul>
      </section>
    </div>
  );
}

const StarSign = ({ filled }: { filled: boolean }) => (
  <Star
    size={30}
    strokeWidth={1.5}
    color={filled ? 'var(--now)' : 'var(--dim)'}
    fill={filled ? 'var(--now)' : 'none'}
    aria-hidden
  />
);

function keepingWords(keeping: 'keeping' | 'kept' | 'failed') {
  if (keeping === 'kept') return 'All of it is kept.';
  if (keeping === 'keeping') return 'Being kept.';
  return 'Not kept: the server does not answer. The next change tries again.';
}

function pictureWords(busy: string | null) {
  if (busy === 'failed') return 'The picture could not be made.';
  if (busy) return 'Drawing it.';
  return 'the form with everything on it, as it is drawn now';
}

/** What a remark is about; a bar or a phrase can be heard. */
function RemarkPlace({
  remark: { bar, phraseBeat },
  nameOfBar,
  beatOfBar,
  onHear,
}: Pick<Props, 'nameOfBar' | 'beatOfBar' | 'onHear'> & { remark: Remark }) {
  if (bar === undefined && phraseBeat === undefined) return 'the whole take';
  const beat = bar === undefined ? (phraseBeat ?? 0) : beatOfBar(bar);
  return (
    <button type="button" className="hover:text-ink" onClick={() => onHear(beat)}>
      {bar === undefined ? 'a phrase' : nameOfBar(bar)}: hear it
    </button>
  );
}
