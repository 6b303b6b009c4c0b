import { LIMITS } from '@/core/contracts';
import { and, asc, count, desc, eq, isNotNull, isNull, lt } from 'drizzle-orm';
import { readChart } from '@/core/chart';
import { commonPhrases, foundIn, type Found, type KeptPhrase } from '@/core/phrases';
import { elementAt } from '@/core/shared';
import { database, write } from './db/client';
import { phrases, takes } from './db/schema';
import { Failure, notFound } from './failure';
import { newId } from './ids';
import { searchedTakes, type SearchedTake } from './searchedTakes';
import { phraseSchema, type PhraseBody, type PhraseChangeBody } from './validation';

/** A phrase of the player's vocabulary. */
export type StoredPhrase = {
  readonly id: string;
  readonly name: string;
  readonly tags: readonly string[];
  readonly phrase: KeptPhrase;
  readonly source: string;
  readonly take: { readonly id: string; readonly beat: number } | null;
  readonly createdAt: number;
};

/** Removed phrases can be brought back for so long. */
const KEPT_MS = 30 * 86_400_000;

type Row = typeof phrases.$inferSelect;
function asPhrase({ id, name, tags, json, source, takeId, takeBeat, createdAt }: Row): StoredPhrase {
  const { error, value } = phraseSchema.validate(json, { convert: false });
  if (error || !value)
    throw new Failure(422, { code: 'phrase.damaged', message: `The phrase “${name}” is damaged.` });
  const take = takeId === null ? null : { id: takeId, beat: takeBeat ?? 0 };
  return { id, name, tags: tags as string[], phrase: value, source, take, createdAt };
}

/** Every kept phrase, newest first; a damaged one blocks none of the others. */
export async function listPhrases(): Promise<StoredPhrase[]> {
  const rows = await database()
    .select()
    .from(phrases)
    .where(isNull(phrases.removedAt))
    .orderBy(desc(phrases.createdAt), asc(phrases.id));
  return rows.flatMap((row) => {
    try {
      return [asPhrase(row)];
    } catch {
      return [];
    }
  });
}

export async function phraseById(id: string): Promise<StoredPhrase> {
  const [row] = await database()
    .select()
    .from(phrases)
    .where(and(eq(phrases.id, id), isNull(phrases.removedAt)));
  if (!row) throw notFound('phrase');
  return asPhrase(row);
}

/** Keeps a phrase. @returns its id */
export async function keepPhrase({ name, tags, phrase, source, take }: PhraseBody): Promise<{ id: string }> {
  const chart = readChart(phrase.chartText);
  if (!chart.ok || chart.value.bars.length > LIMITS.phrase.bars)
    throw new Failure(400, {
      code: 'phrase.chords',
      message: chart.ok
        ? `A phrase has at most ${LIMITS.phrase.bars} bars.`
        : `The chords of this phrase cannot be read: ${chart.problems[0].message}`,
      path: 'phrase.chartText',
    });
  const id = newId();
  return write(async (tx) => {
    const [kept] = await tx.select({ count: count() }).from(phrases);
    if ((kept?.count ?? 0) >= LIMITS.phrase.phrases)
      throw new Failure(409, {
        code: 'phrase.too-many',
        message: `There are ${LIMITS.phrase.phrases} phrases already. Remove some first.`,
      });
    const [known] = take ? await tx.select({ id: takes.id }).from(takes).where(eq(takes.id, take.id)) : [];
    await tx.insert(phrases).values({
      id,
      name,
      tags,
      json: phrase,
      source,
      takeId: known?.id ?? null,
      takeBeat: known && take ? take.beat : null,
    });
    return { id };
  });
}

/** Another name, other tags; removed, or brought back within thirty days. */
export function changePhrase(
  id: string,
  { name, tags, removed, position }: PhraseChangeBody,
): Promise<{ id: string }> {
  return write(async (tx) => {
    const [known] = await tx.select().from(phrases).where(eq(phrases.id, id));
    if (!known) throw notFound('phrase');
    await tx
      .update(phrases)
      .set({
        ...(name !== undefined && { name }),
        ...(tags !== undefined && { tags }),
        ...(position !== undefined && { json: placedAt(asPhrase(known).phrase, position) }),
        ...(removed !== undefined && { removedAt: removed ? Date.now() : null }),
      })
      .where(eq(phrases.id, id));
    await tx
      .delete(phrases)
      .where(and(isNotNull(phrases.removedAt), lt(phrases.removedAt, Date.now() - KEPT_MS)));
    return { id };
  });
}

/** A phrase with the hand at a fret, or where it is likeliest. */
const placedAt = (phrase: KeptPhrase, position: number | null): KeptPhrase => ({
  ...phrase,
  notes: phrase.notes.map(({ position: _position, ...note }) => ({
    ...note,
    ...(position !== null && { position }),
  })),
});

/** Where a phrase was played again: take by take, newest first. */
export type FoundInTake = Pick<SearchedTake, 'id' | 'number' | 'title' | 'createdAt'> & {
  readonly found: readonly Found[];
};

export async function foundAgain(id: string): Promise<FoundInTake[]> {
  const [{ phrase }, searched] = await Promise.all([phraseById(id), searchedTakes()]);
  return searched
    .map(({ line, isSolo: _isSolo, ...take }) => ({ ...take, found: foundIn(line, phrase.notes) }))
    .filter(({ found }) => found.length > 0)
    .reverse();
}

/** A phrase that comes back over several takes, with where it was played last. */
export type Habit = {
  readonly count: number;
  readonly takes: number;
  readonly take: Pick<SearchedTake, 'id' | 'number' | 'title'>;
  /** Its place among the phrases of that take. */
  readonly phrase: number;
};

const MOST_HABITS = 12;

export async function habits(): Promise<Habit[]> {
  // what a drill asks for again and again is no habit
  const all = (await searchedTakes()).filter(({ isSolo }) => isSolo);
  return commonPhrases(all.map(({ line }) => line))
    .slice(0, MOST_HABITS)
    .map(({ line, phrase, ...counts }) => {
      const { id, number, title } = elementAt(all, line);
      return { ...counts, phrase, take: { id, number, title } };
    });
}
