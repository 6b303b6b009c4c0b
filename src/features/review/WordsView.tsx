'use client';
import { Star } from 'lucide-react';
import { useState } from 'react';
import type { Remark, TakeWords } from '@/core/correct';
import { ExportList } from './ExportList';
import type { Selection } from './selection';
import type { Saving } from './useWords';

type Props = {
  takeId: string;
  title: string;
  words: TakeWords;
  onWords: (words: TakeWords) => void;
  keeping: Saving;
  soundGone: boolean;
  /** Where a new remark belongs: the bar or the phrase that is selected. */
  place: { readonly bar?: number; readonly phraseBeat?: number; readonly words: string } | null;
  nameOfBar: (throughBar: number) => string;
  onHear: (beat: number) => void;
  beatOfBar: (bar: number) => number;
  selection: Selection | null;
  onRemove: () => void;
};

const MOST_TAGS = 24;
const LONGEST_TAG = 32;
const LONGEST_REMARK = 4_000;

/** The player’s own words on a take, and its export. */
export function WordsView(props: Props) {
  const { takeId, title, soundGone, onRemove } = props;
  return (
    <div className="grid grid-cols-[minmax(0,1fr)] gap-x-12 gap-y-8 lg:grid-cols-[minmax(0,752fr)_minmax(280px,416fr)]">
      <section aria-label="Your words">
        <h1 className="text-[25px] leading-8 font-[620]">Your words on this take</h1>
        <Stars {...props} />
        <Tags {...props} />
        <NewRemark {...props} />
        <Remarks {...props} />
      </section>
      <ExportList takeId={takeId} title={title} soundGone={soundGone} onRemove={onRemove} />
    </div>
  );
}

function Stars({ words, onWords }: Pick<Props, 'words' | 'onWords'>) {
  return (
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
  );
}

function Tags({ words, onWords }: Pick<Props, 'words' | 'onWords'>) {
  const [tag, setTag] = useState('');
  const add = () => {
    const clean = tag.trim().slice(0, LONGEST_TAG);
    if (clean && !words.tags.includes(clean))
      onWords({ ...words, tags: [...words.tags, clean].slice(0, MOST_TAGS) });
    setTag('');
  };
  return (
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
          if (event.key !== 'Enter') return;
          event.preventDefault();
          add();
        }}
        onBlur={add}
      />
    </p>
  );
}

function NewRemark({ words, onWords, place, keeping }: Props) {
  const [text, setText] = useState('');
  const add = () => {
    if (!text.trim()) return;
    const { words: _said, ...where } = place ?? { words: '' };
    const id = `r${Date.now().toString(36)}`;
    const remark: Remark = { id, text: text.trim().slice(0, LONGEST_REMARK), ...where };
    onWords({ ...words, remarks: [...words.remarks, remark] });
    setText('');
  };
  return (
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
          if (event.key === 'Enter' && (event.ctrlKey || event.metaKey)) add();
        }}
      />
      <p className="mt-1 flex items-center gap-4">
        <button type="button" className="go" disabled={!text.trim()} onClick={add}>
          Keep it
        </button>
        <span className="text-sm text-dim" role="status">
          {savingWords(keeping)}
        </span>
      </p>
    </div>
  );
}

function Remarks({ words, onWords, nameOfBar, beatOfBar, onHear }: Props) {
  return (
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
              remove
            </button>
          </p>
          <p className="whitespace-pre-wrap">{remark.text}</p>
        </li>
      ))}
    </ul>
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

function savingWords(keeping: Saving): string {
  if (keeping === 'kept') return 'All of it is saved.';
  if (keeping === 'keeping') return 'Being saved.';
  return 'Not saved: the server does not answer. The next change tries again.';
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
