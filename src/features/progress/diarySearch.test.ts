import { expect, test } from '@jest/globals';
import type { DiaryDay } from '@/core/scheduling';
import { datesIn } from '@/presentation';
import { daysFound } from './diarySearch';

const day = (date: string, ...titles: string[]): DiaryDay => ({
  day: date,
  minutes: 20,
  lines: titles.map((title, index) => ({
    kind: 'take',
    take: `t${index}`,
    number: index + 1,
    title,
    tempo: 96,
    said: '8 of 12 changes met',
  })),
});
const DAYS = [day('2026-11-20', 'Lamplight Quarry'), day('2026-11-23', 'Kiln Street', 'Lamplight Quarry')];
const WORDS = { '2026-11-23': 'Thirds felt easy today', '2026-08-02': 'New strings' };
const found = (query: string) => daysFound(DAYS, WORDS, query, datesIn('de')).map(({ day: date }) => date);

test('every word must stand somewhere in the day: in what was played, said, written, or in its date', () => {
  expect(found('lamplight')).toEqual(['2026-11-23', '2026-11-20']);
  expect(found('lamplight kiln')).toEqual(['2026-11-23']);
  expect(found('THIRDS easy')).toEqual(['2026-11-23']);
  expect(found('monday')).toEqual(['2026-11-23']);
  expect(found('montag')).toEqual(['2026-11-23']);
  expect(found('nothing like it')).toEqual([]);
});

test('words on a day without practice are found too, however long ago; no query finds nothing', () => {
  expect(found('strings')).toEqual(['2026-08-02']);
  expect(found('august')).toEqual(['2026-08-02']);
  expect(found('  ')).toEqual([]);
});
