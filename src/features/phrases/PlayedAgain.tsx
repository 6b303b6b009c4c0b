'use client';
import Link from 'next/link';
import { useEffect, useState } from 'react';
import type { FoundInTake, StoredPhrase } from '@/server/phrases';
import { foundWords, playedAgainWords } from '@/presentation';
import { foundAgain } from './phraseServer';

const MOST_TAKES = 12;

/** Where the phrase was played in the player's takes, newest first. */
export function PlayedAgain({ stored }: { stored: StoredPhrase }) {
  const [found, setFound] = useState<readonly FoundInTake[] | 'failed' | null>(null);
  useEffect(() => {
    let gone = false;
    foundAgain(stored.id)
      .then((takes) => {
        if (!gone) setFound(takes);
      })
      .catch(() => {
        if (!gone) setFound('failed');
      });
    return () => {
      gone = true;
    };
  }, [stored.id]);
  return (
    <section aria-label="Where you played it" className="mt-4 border-t border-line pt-3">
      <h2 className="heading">Where you played it</h2>
      <p role="status" className="mt-1 text-soft">
        {stored.phrase.notes.length < 3
          ? 'Two notes come up in every line: a phrase of three or more is searched for.'
          : statusWords(found)}
      </p>
      {found !== null && found !== 'failed' && (
        <ul className="mt-1">
          {found.slice(0, MOST_TAKES).map((take) => (
            <li key={take.id} className="border-b border-line py-1.5">
              <Link href={`/takes/${take.id}`} className="hover:underline">
                {take.title}, take {take.number}
              </Link>
              <span className="block text-[15px] text-dim">{foundWords(take.found)}</span>
            </li>
          ))}
        </ul>
      )}
    </section>
  );
}

function statusWords(found: readonly FoundInTake[] | 'failed' | null): string {
  if (found === null) return 'Searching your takes.';
  if (found === 'failed') return 'The server does not answer.';
  return playedAgainWords(found.map((take) => take.found.length));
}
