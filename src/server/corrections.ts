import { eq } from 'drizzle-orm';
import { NO_WORDS, wordsText, type Edit, type TakeWords } from '@/core/correct';
import { database, write } from './db/client';
import {
  notes,
  reports,
  searchedLines,
  takeEdits,
  takeFindings,
  takeLines,
  takes,
  takeWords,
} from './db/schema';
import { readEdits, readHeard, readWords, type HeardTake } from './db/documents';
import { Failure, notFound } from './failure';

export async function heardIn(takeId: string): Promise<HeardTake | null> {
  const [row] = await database().select({ json: notes.json }).from(notes).where(eq(notes.takeId, takeId));
  return row ? readHeard(row.json) : null;
}

export async function editsOf(takeId: string): Promise<readonly Edit[]> {
  const [row] = await database()
    .select({ json: takeEdits.json })
    .from(takeEdits)
    .where(eq(takeEdits.takeId, takeId));
  return row ? readEdits(row.json) : [];
}

/**
 * Keeps the whole list of edits; what was derived from the notes before is made anew when it is next asked
 * for.
 */
export function keepEdits(takeId: string, edits: readonly Edit[]): Promise<{ edits: number }> {
  return write(async (tx) => {
    const [take] = await tx.select({ state: takes.state }).from(takes).where(eq(takes.id, takeId));
    if (!take) throw notFound('take');
    if (take.state !== 'ready')
      throw new Failure(409, { code: 'take.open', message: 'This take is not finished yet.' });
    const values = { takeId, json: edits, updatedAt: Date.now() };
    await tx.insert(takeEdits).values(values).onConflictDoUpdate({ target: takeEdits.takeId, set: values });
    await tx.delete(reports).where(eq(reports.takeId, takeId));
    await tx.delete(takeLines).where(eq(takeLines.takeId, takeId));
    await tx.delete(takeFindings).where(eq(takeFindings.takeId, takeId));
    await tx.delete(searchedLines).where(eq(searchedLines.takeId, takeId));
    return { edits: edits.length };
  });
}

export async function wordsOf(takeId: string): Promise<TakeWords> {
  const [row] = await database()
    .select({ json: takeWords.json })
    .from(takeWords)
    .where(eq(takeWords.takeId, takeId));
  return row ? readWords(row.json) : NO_WORDS;
}

export function keepWords(takeId: string, words: TakeWords): Promise<TakeWords> {
  return write(async (tx) => {
    const [take] = await tx.select({ id: takes.id }).from(takes).where(eq(takes.id, takeId));
    if (!take) throw notFound('take');
    const values = { takeId, json: words, search: wordsText(words), updatedAt: Date.now() };
    await tx.insert(takeWords).values(values).onConflictDoUpdate({ target: takeWords.takeId, set: values });
    return words;
  });
}
