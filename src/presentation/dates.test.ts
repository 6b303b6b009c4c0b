import { expect, test } from '@jest/globals';
import { weekOf, weekStart } from '@/core/scheduling';
import { weekOffset } from '@/server/practice';
import { datesIn, languageOf } from './dates';
import { takeMoment } from './moment';

// how each country writes them: the Unicode CLDR, by way of the engine's own data
const AT = new Date(2026, 10, 3, 9, 5);

test('days and times as the country writes them', () => {
  const { weekday, day, shortDay } = datesIn('en-GB');
  expect([weekday(AT), day(AT), shortDay(AT)]).toEqual(['Tuesday', '3 November', '3 Nov']);
  expect(datesIn('en-GB').time(AT)).toMatch(/^0?9:05$/);
  expect(datesIn('de').whole(AT)).toBe('Dienstag, 3. November 2026');
  expect(datesIn('en-US').day(AT)).toBe('November 3');
  expect(datesIn('en-US').time(AT)).toMatch(/^9:05\sAM$/);
});

test('the week begins on Monday in Britain and Germany, on Sunday in the States, on Saturday in Egypt', () => {
  expect(['en-GB', 'de-DE', 'en-US', 'ar-EG'].map((language) => datesIn(language).firstWeekday)).toEqual([
    1, 1, 0, 6,
  ]);
});

test('a week that begins on Sunday holds the Sunday before its Monday', () => {
  const sunday = new Date(2026, 10, 1, 12).getTime();
  const monday = new Date(2026, 10, 2, 12).getTime();
  const week = (at: number, first: number) => weekOf(at, weekOffset(first, at));
  expect([week(sunday, 1) === week(monday, 1), week(sunday, 0) === week(monday, 0)]).toEqual([false, true]);
  const offset = weekOffset(0, monday);
  expect(new Date(weekStart(weekOf(monday, offset), offset)).toDateString()).toBe('Sun Nov 01 2026');
});

test('the first language a browser asks for, where it is one', () => {
  expect(languageOf('de-AT,de;q=0.9,en;q=0.8')).toBe('de-AT');
  for (const none of [null, '', '*', 'no language at all', 'xx-' + 'y'.repeat(300)])
    expect(languageOf(none)).toBe('en-GB');
});

test('the moment of a take in that language', () => {
  const now = new Date(2026, 10, 25, 20, 0).getTime();
  expect(takeMoment(new Date(2026, 10, 22, 19, 5).getTime(), datesIn('de'), now)).toBe('Sonntag 19:05');
});
