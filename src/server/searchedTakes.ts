import { and, asc, eq, inArray, isNull } from 'drizzle-orm';
import { ENGINE_VERSION, type Report } from '@/core/analyse';
import type { SearchedLine } from '@/core/phrases';
import { database, write } from './db/client';
import { searchedLines, takes } from './db/schema';
import { reviewOf } from './reviews';

/** So many lines are made at one asking, the newest first: the next asking goes on. */
const MOST_FILLED = 100;
/** A question names so many takes at most. */
const MOST_ASKED = 500;

/** The line of a report as phrases are searched in it. */
function searchedLineOf({ notes, phrases: own }: Pick<Report, 'notes' | 'phrases'>): SearchedLine {
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

export type SearchedTake = {
  readonly id: string;
  readonly number: number;
  readonly title: string;
  readonly createdAt: number;
  readonly isSolo: boolean;
  readonly line: SearchedLine;
};

const readyTakes = () =>
  database()
    .select({
      id: takes.id,
      number: takes.number,
      title: takes.title,
      createdAt: takes.createdAt,
      drillId: takes.drillId,
      trouble: takes.trouble,
      madeAt: searchedLines.madeAt,
      engineVersion: searchedLines.engineVersion,
    })
    .from(takes)
    .leftJoin(searchedLines, eq(searchedLines.takeId, takes.id))
    .where(and(eq(takes.state, 'ready'), isNull(takes.removedAt)))
    .orderBy(asc(takes.createdAt), asc(takes.id));

/** The lines of all takes, oldest first; what is missing is made from its report once. */
export async function searchedTakes(): Promise<SearchedTake[]> {
  let rows = await readyTakes();
  const missing = rows.filter((row) => row.engineVersion !== ENGINE_VERSION && row.trouble === null);
  if (missing.length > 0) {
    await fill(missing.slice(-MOST_FILLED).reverse());
    rows = await readyTakes();
  }
  const lines = await linesOf(rows.flatMap(({ id, madeAt }) => (madeAt === null ? [] : [{ id, madeAt }])));
  return rows.flatMap(({ id, number, title, createdAt, drillId }) => {
    const line = lines.get(id);
    return line ? [{ id, number, title, createdAt, isSolo: drillId === null, line }] : [];
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

/** Makes the lines of takes in the order given. */
async function fill(missing: readonly { readonly id: string }[]): Promise<void> {
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
