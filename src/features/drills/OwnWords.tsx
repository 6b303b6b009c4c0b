'use client';
import { useMemo, useState } from 'react';
import { readChart } from '@/core/chart';
import { OWN_EXAMPLES, readOwnWords, ruleWords, type OwnWords as ReadWords } from '@/core/drills';
import { accepted, type Outcome } from '@/core/shared';

type Props = { chartText: string; onGo: (words: string) => void };

/** A drill in the player's own words, read while it is typed. */
export function OwnWords({ chartText, onGo }: Props) {
  const [text, setText] = useState('');
  const bars = useMemo(() => {
    const read = readChart(chartText);
    return read.ok ? read.value.bars.length : 1;
  }, [chartText]);
  const read = useMemo(() => (text.trim() === '' ? accepted(null) : readOwnWords(text, bars)), [text, bars]);
  return (
    <form
      className="mt-3"
      onSubmit={(event) => {
        event.preventDefault();
        if (text.trim() !== '' && read.ok) onGo(text);
      }}
    >
      <label className="heading" htmlFor="own-drill">
        Or in your own words
      </label>
      <div className="flex flex-wrap gap-3">
        <input
          id="own-drill"
          className="field min-w-0 flex-1"
          list="own-examples"
          placeholder={OWN_EXAMPLES[0]}
          value={text}
          onChange={(event) => setText(event.target.value)}
          aria-describedby="own-said"
          autoComplete="off"
        />
        <button type="submit" className="quiet" disabled={text.trim() === '' || !read.ok}>
          Start it
        </button>
      </div>
      <datalist id="own-examples">
        {OWN_EXAMPLES.map((one) => (
          <option key={one} value={one} />
        ))}
      </datalist>
      <p id="own-said" role="status" className="mt-1 min-h-6 text-[15px] text-soft">
        <ReadBack read={read} onSuggestion={setText} />
      </p>
    </form>
  );
}

/** The drill as it was understood, or what was not and the nearest that would be. */
function ReadBack({
  read,
  onSuggestion,
}: {
  read: Outcome<ReadWords | null>;
  onSuggestion: (text: string) => void;
}) {
  if (read.ok) {
    if (!read.value) return null;
    const { rule, span, tempo } = read.value;
    return (
      <>
        Heard as: <b className="text-ink">{ruleWords(rule)}</b>
        {span && ` Bars ${span.join('–')}.`}
        {tempo && ` At ${tempo}.`}
      </>
    );
  }
  const [{ message, suggestion }] = read.problems;
  return (
    <>
      {message}
      {suggestion && (
        <>
          {' '}
          Try:{' '}
          <button type="button" className="underline" onClick={() => onSuggestion(suggestion)}>
            {suggestion}
          </button>
        </>
      )}
    </>
  );
}
