import { LIMITS } from '@/core/contracts';
import { and, asc, count, desc, eq, inArray, isNotNull, isNull, lt } from 'drizzle-orm';
import { ENGINE_VERSION, type Report } from '@/core/analyse';
import { readChart } from '@/core/chart';
import { commonPhrases, foundIn, type Found, type KeptPhrase, type SearchedLine } from '@/core/phrases';
import { elementAt } from '@/core/shared';
import { database, write } from './db/client';
import { phrases, searchedLines, takes } from './db/schema';
import { Failure, notFound } from './failure';
import { newId } from './ids';
import { reviewOf } from './reviews';
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

/** So many lines are made at one asking, the newest first: the next asking goes on. */
const MOST_FILLED = 100;
/** A question names so many takes at most. */
const MOST_ASKED = 500;
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

/** The line of a report as phrases are searched in it. */
export function searchedLineOf({ notes, phrases: own }: Pick<Report, 'notes' | 'phrases'>): SearchedLine {
  const line = notes.filter(({ top, function: role }) => top && role !== 'grace');
  const places = new Map(line.map(({ index }, place) => [index, place]));
  return {
    onsets: line.map(({ onsetBeat }) => Math.round(onsetBeat * 100) / 100),
    pitches: line.map(({ midi }) => Math.round(midi)),
    phraseStarts: own.flatMap(({ noteIndices }) => {
      const first = noteIndices.find((index) => places.has(index));
      return first === undefined ? [] : [places.get(first) ?? 0];
    }),
  };
}

type SearchedTake = {
  readonly id: string;
  readonly number: number;
  readonly title: string;
  readonly createdAt: number;
  readonly isSolo: boolean;
  readonly line: SearchedLine;
};

/** The lines of all takes, oldest first; what is missing is made from its report once. */
async function searchedTakes(): Promise<SearchedTake[]> {
  await fillMissing();
  const rows = await database()
    .select({
      id: takes.id,
      number: takes.number,
      title: takes.title,
      createdAt: takes.createdAt,
      madeAt: searchedLines.madeAt,
      drillId: takes.drillId,
    })
    .from(takes)
    .innerJoin(searchedLines, eq(searchedLines.takeId, takes.id))
    .where(and(eq(takes.state, 'ready'), isNull(takes.removedAt)))
    .orderBy(asc(takes.createdAt), asc(takes.id));
  const lines = await linesOf(rows);
  return rows.flatMap(({ madeAt: _madeAt, drillId, ...row }) => {
    const line = lines.get(row.id);
    return line ? [{ ...row, isSolo: drillId === null, line }] : [];
  });
}

type Line = { readonly madeAt: number; readonly line: SearchedLine };
let read = new Map<string, Line>();

/** The lines by take; those that were read before are not read again. */
async function linesOf(
  wanted: readonly { readonly id: string; readonly madeAt: number }[],
): Promise<ReadonlyMap<string, SearchedLine>> {
  const isKnown = ({ id, madeAt }: (typeof wanted)[number]) => read.get(id)?.madeAt === madeAt;
  const missing = wanted.filter((one) => !isKnown(one)).map(({ id }) => id);
  const kept = new Map(
    wanted.filter(isKnown).flatMap(({ id }) => {
      const known = read.get(id);
      return known ? [[id, known] as const] : [];
    }),
  );
  for (let at = 0; at < missing.length; at += MOST_ASKED) {
    const rows = await database()
      .select()
      .from(searchedLines)
      .where(inArray(searchedLines.takeId, missing.slice(at, at + MOST_ASKED)));
    for (const { takeId, madeAt, json } of rows) kept.set(takeId, { madeAt, line: json as SearchedLine });
  }
  read = kept;
  return new Map([...kept].map(([id, { line }]) => [id, line]));
}

async function fillMissing(): Promise<void> {
  const missing = await database()
    .select({ id: takes.id })
    .from(takes)
    .leftJoin(
      searchedLines,
      and(eq(searchedLines.takeId, takes.id), eq(searchedLines.engineVersion, ENGINE_VERSION)),
    )
    .where(
      and(
        eq(takes.state, 'ready'),
        isNull(takes.removedAt),
        isNull(searchedLines.takeId),
        isNull(takes.trouble),
      ),
    )
    .orderBy(desc(takes.createdAt))
    .limit(MOST_FILLED);
  for (const { id } of missing) {
    // a take that cannot be judged has no line to search in, and keeps no other from being searched
    const review = await reviewOf(id).catch(() => null);
    if (!review) continue;
    const values = {
      takeId: id,
      engineVersion: ENGINE_VERSION,
      json: searchedLineOf(review.report),
      madeAt: Date.now(),
    };
    await write(
      async (tx) =>
        void (await tx
          .insert(searchedLines)
          .values(values)
          .onConflictDoUpdate({ target: searchedLines.takeId, set: values })),
    );
  }
}

/** Where a phrase was played again: take by take, newest first. */
export type FoundInTake = Pick<SearchedTake, 'id' | 'number' | 'title' | 'createdAt'> & {
  readonly found: readonly Found[];
};

export async function foundAgain(id: string): Promise<FoundInTake[]> {
  const { phrase } = await phraseById(id);
  return (await searchedTakes())
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
