'use client';
import { parseISO } from 'date-fns';
import Link from 'next/link';
import { useEffect, useRef, useState } from 'react';
import type { DiaryDay, DiaryLine } from '@/core/scheduling';
import { typeset } from '@/core/music';
import { ask } from '@/audio/persistence/serverTakes';
import { ChordWords } from '@/ui/ChordWords';
import { useDates } from '@/ui/dates';

export type Week = { readonly name: string; readonly days: readonly DiaryDay[]; readonly minutes: number };

type ListProps = { words: Readonly<Record<string, string>>; today: string };

export const Found = ({ days, words, today }: ListProps & { days: readonly DiaryDay[] }) => (
  <section aria-label="Found" className="mt-6">
    <p role="status" className="border-b-2 border-line pb-1 text-soft">
      {days.length === 0
        ? 'No day of the diary has these words.'
        : `${days.length} ${days.length === 1 ? 'day' : 'days'} found`}
    </p>
    {days.map((day) => (
      <Day key={day.day} day={day} text={words[day.day] ?? ''} today={today} />
    ))}
  </section>
);

export function WeekSection({
  week,
  words,
  today,
  onPrint,
}: ListProps & { week: Week; onPrint: () => void }) {
  return (
    <section aria-label={week.name} className="mt-6">
      <h2 className="flex flex-wrap items-baseline gap-x-5 border-b-2 border-line pb-1 text-[21px] font-[640]">
        {week.name}
        <span className="text-base font-normal text-soft">
          {Math.round(week.minutes)} minutes on {week.days.length} {week.days.length === 1 ? 'day' : 'days'}
        </span>
        <button
          type="button"
          className="no-print ml-auto text-[15px] font-normal text-soft underline hover:text-ink"
          onClick={onPrint}
        >
          print this week
        </button>
      </h2>
      {week.days.map((day) => (
        <Day key={day.day} day={day} text={words[day.day] ?? ''} today={today} />
      ))}
    </section>
  );
}

export function Day({
  day: { day, minutes, lines },
  text,
  today,
}: {
  day: DiaryDay;
  text: string;
  today: string;
}) {
  const date = parseISO(day);
  const dates = useDates();
  return (
    <article className="grid gap-x-8 gap-y-2 border-b border-line py-4 md:grid-cols-[150px_minmax(0,1fr)_minmax(0,360px)]">
      <h3 className="text-soft">
        <b className="text-[19px] text-ink">{day === today ? 'Today' : dates.weekday(date)}</b>
        <br />
        {dates.day(date)}
        {minutes > 0 && (
          <>
            <br />
            {Math.max(1, Math.round(minutes))} {Math.round(minutes) > 1 ? 'minutes' : 'minute'}
          </>
        )}
      </h3>
      <ul className="grid content-start gap-2">
        {lines.length === 0 && <li className="text-soft">Nothing recorded.</li>}
        {lines.map((line, index) => (
          <li key={index}>
            <Line line={line} />
          </li>
        ))}
      </ul>
      <Words day={day} text={text} />
    </article>
  );
}

function Line({ line }: { line: DiaryLine }) {
  if (line.kind === 'take')
    return (
      <>
        <Link href={`/takes/${line.take}`} className="font-[600] hover:underline">
          {line.title}, take {line.number}
        </Link>{' '}
        <span className="text-soft">
          at {line.tempo}: <ChordWords text={typeset(line.said)} />
        </span>
      </>
    );
  const { name, title, from, to, tries, passes, best } = line;
  return (
    <>
      <Link href={`/drills/${line.drill}`} className="font-[600] hover:underline">
        <ChordWords text={typeset(name)} />
      </Link>{' '}
      <span className="text-soft">
        {title},{' '}
        {from === to ? (
          `at ${to}`
        ) : (
          <>
            from {from} to <b className="text-ink">{to}</b>
          </>
        )}
        : {passes} of {tries} {tries === 1 ? 'attempt' : 'attempts'} passed, best {best.met} of {best.of} at{' '}
        {best.tempo}
      </span>
    </>
  );
}

const KEEP_AFTER_MS = 600;

/** Words on a day, kept a moment after the last letter. */
function Words({ day, text: first }: { day: string; text: string }) {
  const [text, setText] = useState(first);
  const [state, setState] = useState<'kept' | 'keeping' | 'failed'>('kept');
  const timer = useRef<ReturnType<typeof setTimeout> | null>(null);
  const latest = useRef<string | null>(null);
  const keep = (value: string) => {
    latest.current = null;
    void ask(`/api/diary/${day}`, {
      method: 'PUT',
      keepalive: true,
      headers: { 'content-type': 'application/json' },
      body: JSON.stringify({ text: value }),
    })
      .then(() => setState('kept'))
      .catch(() => setState('failed'));
  };
  useEffect(
    () => () => {
      if (timer.current) clearTimeout(timer.current);
      if (latest.current !== null) keep(latest.current);
    },
    // only when the page goes
    // eslint-disable-next-line react-hooks/exhaustive-deps
    [],
  );
  const change = (value: string) => {
    setText(value);
    setState('keeping');
    latest.current = value;
    if (timer.current) clearTimeout(timer.current);
    timer.current = setTimeout(() => keep(value), KEEP_AFTER_MS);
  };
  return (
    <div>
      <textarea
        aria-label={`Your words on ${day}`}
        className="field min-h-[60px] w-full resize-y !border-transparent !bg-transparent leading-6 hover:!border-line focus:!border-line focus:!bg-row print:hidden"
        rows={2}
        maxLength={4000}
        placeholder="In your words"
        value={text}
        onChange={(event) => change(event.target.value)}
      />
      <p className="hidden whitespace-pre-wrap print:block">{text}</p>
      {state === 'failed' && (
        <p role="alert" className="text-sm">
          Not kept: the server does not answer.{' '}
          <button type="button" className="underline" onClick={() => keep(text)}>
            Try again
          </button>
        </p>
      )}
    </div>
  );
}
