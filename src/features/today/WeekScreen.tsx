'use client';
import Link from 'next/link';
import { ChordWords } from '@/ui/ChordWords';
import { KeyOf } from '../shell/commands/KeyOf';
import { useCommands } from '../shell/commands/useCommands';
import { Shell } from '../shell/Shell';
import { useWeek, type PlacedItem } from './useWeek';
import type { WeekDay, WeekView } from './weekView';

type Hand = ReturnType<typeof useWeek>;

/** The coming seven days: what comes back when, and why; a drill can be put on another day. Prints on one sheet. */
export function WeekScreen({ view }: { view: WeekView }) {
  const hand = useWeek(view);
  const { chosen, step, canMove, move, open, said } = hand;
  const by = (days: 1 | -1) => ({
    when: chosen !== null && canMove(chosen, days),
    run: () => chosen && move(chosen, days),
  });
  useCommands({
    'week.next': () => step(1),
    'week.previous': () => step(-1),
    'week.later': by(1),
    'week.earlier': by(-1),
    'week.open': { when: chosen !== null, run: () => chosen && open(chosen.item) },
  });
  return (
    <Shell
      place="Today"
      side={
        <Link href="/" className="no-print hover:text-ink">
          Today
        </Link>
      }
      footer={
        <>
          <span role="status">
            {said ?? 'What comes back is worked out as if all before it were done and went well'}
          </span>
          <span className="ml-auto hidden lg:inline">
            <KeyOf command="week.next" /> next thing <KeyOf command="week.earlier" className="ml-4" /> a day
            earlier <KeyOf command="week.later" className="ml-4" /> a day later
          </span>
        </>
      }
    >
      <div className="sheet week-sheet mx-4 pt-3 pb-10 sm:mx-8">
        <div className="flex flex-wrap items-end justify-between gap-x-8">
          <h1 className="text-[40px] leading-[48px] font-[640] tracking-tight sm:text-[52px] sm:leading-[60px]">
            The week ahead
          </h1>
          <button type="button" className="no-print quiet mb-2" onClick={() => window.print()}>
            Print
          </button>
        </div>
        <p className="mt-1 text-lg text-soft">
          {view.goal ? `${view.goal}. ` : ''}
          {view.given} minutes a day.
        </p>
        <ol className="mt-4">
          {view.days.map((day) => (
            <Day key={day.ahead} day={day} hand={hand} />
          ))}
        </ol>
      </div>
    </Shell>
  );
}

function Day({ day, hand }: { day: WeekDay; hand: Hand }) {
  const { name, date, minutes, items, ahead } = day;
  return (
    <li className="grid gap-x-6 border-t border-line py-2.5 sm:grid-cols-[290px_minmax(0,1fr)] print:break-inside-avoid print:py-1.5">
      <h2 className="leading-6">
        <b className="text-[19px]">{name}</b> <span className="ml-1 text-soft">{date}</span>{' '}
        {minutes > 0 && <span className="ml-1 text-dim">{minutes} min</span>}
      </h2>
      {items.length === 0 ? (
        <p className="text-dim">Nothing comes back. A day off, or whatever you like.</p>
      ) : (
        <ul>
          {items.map((item) => (
            <Row key={item.key} placed={{ item, ahead }} hand={hand} />
          ))}
        </ul>
      )}
    </li>
  );
}

function Row({ placed, hand }: { placed: PlacedItem; hand: Hand }) {
  const { item } = placed;
  const isChosen = hand.chosen?.item.key === item.key;
  return (
    <li
      aria-current={isChosen || undefined}
      className={`grid grid-cols-[minmax(0,1fr)_auto] items-center gap-x-4 border-l-[3px] pl-3 ${isChosen ? 'border-now' : 'border-transparent'}`}
    >
      <p className="py-0.5">
        <Link href={item.href} className="hover:underline" onFocus={() => hand.choose(item.key)}>
          <b className="text-[17px]">
            <ChordWords text={item.name} />
          </b>
        </Link>{' '}
        <span className="text-soft">{item.where}</span>{' '}
        <span className="ml-2 text-[15px] text-dim">
          {item.why}, {item.minutes} minutes
        </span>
      </p>
      {item.drillId !== null && (
        <p className="no-print flex gap-1.5">
          <Move placed={placed} hand={hand} by={-1} words="a day earlier" sign="‹" />
          <Move placed={placed} hand={hand} by={1} words="a day later" sign="›" />
        </p>
      )}
    </li>
  );
}

type MoveProps = { placed: PlacedItem; hand: Hand; by: 1 | -1; words: string; sign: string };

const Move = ({ placed, hand, by, words, sign }: MoveProps) => (
  <button
    type="button"
    className="key hover:text-ink disabled:opacity-40"
    aria-label={`${placed.item.name}, ${words}`}
    disabled={!hand.canMove(placed, by)}
    onClick={() => hand.move(placed, by)}
  >
    {sign}
  </button>
);
