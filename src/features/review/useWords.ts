'use client';
import { useEffect, useState } from 'react';
import type { TakeWords } from '@/core/correct';
import { keepWords } from './reviewServer';

const SAVE_AFTER_MS = 500;
export type Saving = 'kept' | 'keeping' | 'failed';

/** Tags, remarks and the rest of a take's words; saved a moment after the last change. */
export function useWords(
  id: string,
  first: TakeWords,
): { words: TakeWords; setWords: (words: TakeWords) => void; keeping: Saving } {
  const [words, setWords] = useState(first);
  const [saved, setSaved] = useState<{ words: TakeWords; failed: boolean }>({ words: first, failed: false });
  useEffect(() => {
    if (words === saved.words) return;
    const timer = setTimeout(() => {
      keepWords(id, words)
        .then(() => setSaved({ words, failed: false }))
        .catch(() => setSaved({ words, failed: true }));
    }, SAVE_AFTER_MS);
    return () => clearTimeout(timer);
  }, [id, words, saved.words]);
  return { words, setWords, keeping: savingState(saved, words) };
}

function savingState(saved: { words: TakeWords; failed: boolean }, words: TakeWords): Saving {
  if (saved.words !== words) return 'keeping';
  return saved.failed ? 'failed' : 'kept';
}
