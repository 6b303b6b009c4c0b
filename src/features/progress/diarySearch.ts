import { parseISO } from 'date-fns';
import { datesIn, USUAL_LANGUAGE, type Dates } from '@/presentation';
import type { DiaryDay, DiaryLine } from '@/core/scheduling';

/** The names of days are found in English too, whatever the browser writes them in. */
const ENGLISH = datesIn(USUAL_LANGUAGE);

const lineText = (line: DiaryLine): string =>
  line.kind === 'take' ? `${line.title} take ${line.number} ${line.said}` : `${line.name} ${line.title}`;

/**
 * Days of the diary that hold every word of a query: in what was played, in the player's own words, or in the
 * date as it is written (`monday`, `november`). Days with words alone count too, however long ago.
 * @returns the latest first; nothing for a query without words
 */
export function daysFound(
  days: readonly DiaryDay[],
  words: Readonly<Record<string, string>>,
  query: string,
  dates: Dates,
): DiaryDay[] {
  const wanted = query.toLowerCase().split(/\s+/).filter(Boolean);
  if (wanted.length === 0) return [];
  const known = new Set(days.map(({ day }) => day));
  const written = Object.keys(words)
    .filter((day) => !known.has(day))
    .map((day): DiaryDay => ({ day, minutes: 0, lines: [] }));
  return [...days, ...written]
    .filter(({ day, lines }) => {
      const date = dates.whole(parseISO(day));
      const text = [date, ENGLISH.whole(parseISO(day)), day, words[day] ?? '', ...lines.map(lineText)]
        .join(' ')
        .toLowerCase();
      return wanted.every((word) => text.includes(word));
    })
    .sort((a, b) => (a.day < b.day ? 1 : -1));
}
