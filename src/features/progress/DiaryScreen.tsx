'use client';
import Link from 'next/link';
import { useEffect, useMemo, useState } from 'react';
import { useDates } from '@/ui/dates';
import { Shell } from '../shell/Shell';
import { daysFound } from './diarySearch';
import { Found, WeekSection, Day, type Week } from './DiaryDays';
type Props = {
  weeks: readonly Week[];
  words: Readonly<Record<string, string>>;
  today: string;
  goal: string | null;
};

/**
 * What was practised, day by day, filled in by itself; beside it the player’s own words. Prints a week a
 * sheet.
 */
export function DiaryScreen({ weeks, words, today, goal }: Props) {
  const [sheet, setSheet] = useState<number | null>(null);
  useEffect(() => {
    if (sheet === null) return;
    const done = () => setSheet(null);
    window.addEventListener('afterprint', done);
    window.print();
    return () => window.removeEventListener('afterprint', done);
  }, [sheet]);
  const dates = useDates();
  const [query, setQuery] = useState('');
  const found = useMemo(
    () =>
      daysFound(
        weeks.flatMap(({ days }) => days),
        words,
        query,
        dates,
      ),
    [weeks, words, query, dates],
  );
  const isSearching = query.trim() !== '';
  const shown = sheet === null ? weeks : weeks.filter((_, index) => index === sheet);
  return (
    <Shell
      place="Progress"
      side={
        <Link href="/progress" className="no-print hover:text-ink">
          Progress
        </Link>
      }
      footer={
        <>
          <span>What you did fills itself in; what you write is kept as you write it</span>
        </>
      }
    >
      <div className={`mx-4 pt-3 pb-10 sm:mx-8 ${sheet === null ? '' : 'sheet'}`}>
        <div className="flex flex-wrap items-end justify-between gap-x-8 gap-y-2">
          <h1 className="text-[40px] leading-[48px] font-[640] tracking-tight sm:text-[52px] sm:leading-[60px]">
            Diary
          </h1>
          <input
            type="search"
            className="no-print field mb-2 w-72 max-w-full"
            aria-label="Find in the diary"
            placeholder="Find a tune, a word, a day"
            value={query}
            onChange={({ target }) => setQuery(target.value)}
          />
        </div>
        {goal && <p className="mt-1 text-lg text-soft">{goal}</p>}
        {isSearching && <Found days={found} words={words} today={today} />}
        {!isSearching && weeks.every(({ days }) => days.length === 0) && (
          <Day day={{ day: today, minutes: 0, lines: [] }} text={words[today] ?? ''} today={today} />
        )}
        {(isSearching ? [] : shown).map((week, index) => (
          <WeekSection
            key={week.name}
            week={week}
            words={words}
            today={today}
            onPrint={() => setSheet(index)}
          />
        ))}
      </div>
    </Shell>
  );
}
