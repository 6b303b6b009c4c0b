import type { Timestamp } from './due';

/** Something that was done: an attempt at a drill, or a take. */
export type DiaryEntry =
  | {
      readonly kind: 'try';
      readonly at: Timestamp;
      readonly drill: string;
      readonly name: string;
      readonly title: string;
      readonly tempo: number;
      readonly met: number;
      readonly of: number;
      readonly passed: boolean;
      readonly seconds: number;
    }
  | {
      readonly kind: 'take';
      readonly at: Timestamp;
      readonly take: string;
      readonly number: number;
      readonly title: string;
      readonly tempo: number;
      readonly seconds: number;
      readonly said: string;
    };

export type DiaryLine =
  | {
      readonly kind: 'drill';
      readonly drill: string;
      readonly name: string;
      readonly title: string;
      readonly from: number;
      readonly to: number;
      readonly tries: number;
      readonly passes: number;
      readonly best: {
        readonly met: number;
        readonly of: number;
        readonly tempo: number;
        readonly passed: boolean;
      };
    }
  | {
      readonly kind: 'take';
      readonly take: string;
      readonly number: number;
      readonly title: string;
      readonly tempo: number;
      readonly said: string;
    };

/** A day of practice as it fills itself in. `day` is a date of the player's own time, as ISO 8601 writes it. */
export type DiaryDay = {
  readonly day: string;
  readonly minutes: number;
  readonly lines: readonly DiaryLine[];
};

export const dayOf = (at: Timestamp, offsetMinutes: number): string =>
  new Date(at + offsetMinutes * 60_000).toISOString().slice(0, 10);

/**
 * Days with what was practised, newest first; tries at one drill are one line, from its first tempo of the day
 * to its last.
 */
export function diaryOf(done: readonly DiaryEntry[], offsetMinutes: number): DiaryDay[] {
  const days = new Map<string, DiaryEntry[]>();
  for (const one of [...done].sort((a, b) => a.at - b.at)) {
    const day = dayOf(one.at, offsetMinutes);
    const list = days.get(day);
    if (list) list.push(one);
    else days.set(day, [one]);
  }
  return [...days]
    .sort(([a], [b]) => b.localeCompare(a))
    .map(([day, list]) => ({
      day,
      minutes: list.reduce((sum, { seconds }) => sum + seconds, 0) / 60,
      lines: linesOf(list),
    }));
}

function linesOf(list: readonly DiaryEntry[]): DiaryLine[] {
  const lines: DiaryLine[] = [];
  for (const one of list) {
    if (one.kind === 'take') {
      const { take, number, title, tempo, said } = one;
      lines.push({ kind: 'take', take, number, title, tempo, said });
      continue;
    }
    const place = lines.findIndex((line) => line.kind === 'drill' && line.drill === one.drill);
    const { drill, name, title, tempo, met, of, passed } = one;
    const own = { met, of, tempo, passed };
    if (place < 0) {
      lines.push({
        kind: 'drill',
        drill,
        name,
        title,
        from: tempo,
        to: tempo,
        tries: 1,
        passes: passed ? 1 : 0,
        best: own,
      });
      continue;
    }
    const line = lines[place] as Extract<DiaryLine, { kind: 'drill' }>;
    let better: boolean;
    if (passed !== line.best.passed) better = passed;
    else if (passed && tempo !== line.best.tempo) better = tempo > line.best.tempo;
    else better = met * line.best.of > line.best.met * of;
    lines[place] = {
      ...line,
      to: tempo,
      tries: line.tries + 1,
      passes: line.passes + (passed ? 1 : 0),
      best: better ? own : line.best,
    };
  }
  return lines;
}
