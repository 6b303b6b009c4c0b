'use client';
import Link from 'next/link';
import { KeyOf } from '../shell/commands/KeyOf';
import { type SaveState } from './useAutosave';
import { type ChartModel } from './useChartModel';

export type LibraryEntry = { id: string; title: string; summary: string };

type FooterProps = { model: ChartModel; onRecord: () => void; onStudy: () => void };

export function Footer({ model: { saving, readable, good, problems }, onRecord, onStudy }: FooterProps) {
  const wrong = `${problems.length} ${problems.length === 1 ? 'place' : 'places'} to fix`;
  return (
    <>
      <b className="text-ink" role="status">
        {savingWords(saving)}
      </b>
      <span>{readable ? `${good?.bars.length ?? 0} bars read` : wrong}</span>
      <span className="ml-auto hidden sm:inline">
        <kbd className="key">Ctrl Z</kbd> undo
      </span>
      {!readable && (
        <span className="hidden sm:inline">
          <kbd className="key">F8</kbd> next problem
        </span>
      )}
      <button type="button" className="quiet" disabled={!readable} onClick={onRecord}>
        Record over it
      </button>
      <button type="button" className="go text-base" disabled={!readable} onClick={onStudy}>
        Study this chart
      </button>
      <span className="hidden sm:inline">
        <KeyOf command="chart.study" />
      </span>
    </>
  );
}

type LibraryProps = {
  library: readonly LibraryEntry[];
  current: string;
  title: string | null;
  onNew: () => void;
};

export function Library({ library, current, title, onNew }: LibraryProps) {
  return (
    <nav aria-label="Library" className="order-last lg:order-none">
      <h2 className="heading">Library</h2>
      <ul>
        {library.map((entry) => (
          <li key={entry.id} className="border-t border-line">
            <Link
              href={`/charts/${entry.id}`}
              aria-current={entry.id === current ? 'true' : undefined}
              className={`relative block py-[9px] leading-[22px] ${entry.id === current ? 'pl-3 font-[640] text-ink before:absolute before:inset-y-[10px] before:left-0 before:w-1 before:bg-now' : 'text-soft hover:text-ink'}`}
            >
              {entry.id === current && title ? title : entry.title}
              <span className="block text-sm font-normal text-dim">{entry.summary}</span>
            </Link>
          </li>
        ))}
      </ul>
      <button
        type="button"
        onClick={onNew}
        className="w-full border-t border-line py-[9px] text-left text-[15px] text-soft hover:text-ink"
      >
        <KeyOf command="chart.create" />
        &ensp;new chart
      </button>
      <Link
        href="/charts"
        className="block w-full border-t border-line py-[9px] text-[15px] text-soft hover:text-ink"
      >
        forms to start from
      </Link>
    </nav>
  );
}

const SIGNS = [
  ['%', 'the bar before, again'],
  ['Bb7 . . G7', 'one dot, one beat held'],
  ['[A]', 'starts a section'],
  ['|: … :|', 'repeats, with |1. |2.'],
  ['key: meter:', 'hold from there'],
  ['N.C.', 'no chord'],
  ['reading:', '8 = V/ii, altered'],
] as const;

export const YouCanWrite = () => (
  <div className="mt-8 border-t border-line pt-2">
    <h2 className="heading">You can write</h2>
    <dl className="grid grid-cols-[7rem_1fr] font-mono text-[15px] leading-[24px] text-soft">
      {SIGNS.map(([sign, meaning]) => (
        <div key={sign} className="contents">
          <dt>{sign}</dt>
          <dd>{meaning}</dd>
        </div>
      ))}
    </dl>
  </div>
);

function savingWords(state: SaveState): string {
  if (state.state === 'failed') return `Not saved: ${state.why}`;
  return state.state === 'waiting' ? 'Saving' : 'Saved';
}
