'use client';
import Link from 'next/link';
import type { ReactNode } from 'react';
import { ChordWords } from '@/ui/ChordWords';
import { Select } from '@/ui/controls';
import { KeyOf } from '../shell/commands/KeyOf';
import { ALSO_COMMANDS, type TodayView } from './todayView';

type Props = { view: TodayView; onMinutes: (minutes: number) => void };

/** What is due besides, what moved since last week, and how far the tunes have come. */
export function TodayColumns({ view, onMinutes }: Props) {
  const { goal, tunes, first } = view;
  return (
    <div className="mt-7 grid gap-x-8 gap-y-8 md:grid-cols-2 lg:grid-cols-3">
      <Column name={first ? 'Also due' : 'Due'}>
        <AlsoDue view={view} onMinutes={onMinutes} />
      </Column>
      <Column name="Since last week">
        <SinceLastWeek view={view} />
      </Column>
      <Column name={goal ? goalTunes(tunes.length) : 'Your tunes'}>
        <Tunes view={view} />
      </Column>
    </div>
  );
}

function Column({ name, children }: { name: string; children: ReactNode }) {
  return (
    <section aria-label={name} className="min-w-0">
      <h2 className="heading border-b border-line">{name}</h2>
      {children}
    </section>
  );
}

const NUMERALS = ['', 'one', 'two', 'three', 'four', 'five', 'six'];
const goalTunes = (count: number): string =>
  count === 1 ? 'The tune' : `The ${NUMERALS[count] ?? count} tunes`;

function AlsoDue({ view, onMinutes }: Props) {
  const { also, first } = view;
  return (
    <>
      {also.length === 0 && (
        <p className="py-3 text-soft">{first ? 'Nothing else today.' : 'Nothing is due.'}</p>
      )}
      {also.map((item, index) => (
        <Link
          key={item.href}
          href={item.href}
          className="group grid grid-cols-[32px_minmax(0,1fr)] border-b border-line py-2"
        >
          <KeyOf
            command={ALSO_COMMANDS[index] ?? 'today.fifth'}
            className="mt-0.5 h-5 !min-w-[22px] justify-self-start !px-1"
          />
          <span className="col-start-2">
            <b className="text-[17px] group-hover:underline">
              <ChordWords text={item.name} />
            </b>
            <br />
            <span className="text-soft">
              {[item.where, item.bold ? `last ${item.bold}` : item.words].filter(Boolean).join(', ')}
            </span>
            <span className="block text-[15px] text-dim">{item.why}</span>
          </span>
        </Link>
      ))}
      <MinutesToday view={view} onMinutes={onMinutes} />
    </>
  );
}

const CHOICES = [10, 20, 30, 45, 60, 90];

function MinutesToday({ view: { given, minutes, rests }, onMinutes }: Props) {
  const choices = [...new Set([...CHOICES, given])].sort((a, b) => a - b);
  return (
    <p className="flex flex-wrap items-center gap-x-2 py-2 text-sm text-dim">
      <label className="flex items-center gap-2">
        Time today{' '}
        <Select
          label="Minutes today"
          look="line"
          value={given}
          options={choices.map((choice) => [choice, `${choice} minutes`] as const)}
          onChange={onMinutes}
        />
      </label>
      {minutes > 0 && (
        <span>
          planned: {minutes}
          {rests > 0 && `, with ${rests === 1 ? 'one rest' : `${rests} rests`}`}
        </span>
      )}
    </p>
  );
}

function SinceLastWeek({ view: { since } }: { view: TodayView }) {
  if (since.length === 0)
    return <p className="py-3 text-soft">After two weeks of takes, this shows what has changed.</p>;
  return (
    <>
      {since.map(({ title, words }) => (
        <p key={title} className="border-b border-line py-2">
          <b className="text-[17px]">
            <ChordWords text={title} />
          </b>
          <br />
          <span className="text-soft">{words}</span>
        </p>
      ))}
      <p className="py-2">
        <Link href="/progress" className="text-[15px] text-dim hover:text-ink">
          all of it under Progress
        </Link>
      </p>
    </>
  );
}

type Tune = TodayView['tunes'][number];

function tuneWords({ takes, of, held, tempo }: Tune): string {
  if (takes === 0) return `${of} kinds of change, not played yet`;
  return `${held} of ${of} kinds of change held at ${tempo}${takes === 1 ? ', from 1 take' : ''}`;
}

function Tunes({ view: { tunes, spread } }: { view: TodayView }) {
  return (
    <>
      {tunes.length === 0 && <p className="py-3 text-soft">Tunes you have played stand here.</p>}
      {tunes.map((tune) => (
        <Link
          key={tune.chart}
          href={`/progress?tune=${encodeURIComponent(tune.title)}`}
          className="group block border-b border-line py-2"
        >
          <b className="text-[17px] group-hover:underline">{tune.title}</b>
          <br />
          <span className="text-soft">{tuneWords(tune)}</span>
          <span className="mt-1.5 flex gap-1" aria-hidden="true">
            {Array.from({ length: tune.of }, (_, kind) => (
              <i
                key={kind}
                className={`h-2 max-w-[26px] min-w-[8px] flex-1 ${kind < tune.held ? 'bg-[var(--h0)]' : 'bg-line'}`}
              />
            ))}
          </span>
        </Link>
      ))}
      {spread.length > 1 && <p className="py-2 text-sm leading-5 text-dim">{spreadWords(spread)}</p>}
    </>
  );
}

const spreadWords = (spread: TodayView['spread']): string =>
  spread
    .filter(({ titles }) => titles.length > 0)
    .slice(0, 2)
    .map(({ day, titles }) => `${day} ${titles.join(' and ')}`)
    .join('; ');
