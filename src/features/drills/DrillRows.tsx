'use client';
import Link from 'next/link';
import { CATALOGUE, ruleWords, type DrillKind } from '@/core/drills';
import { typeset } from '@/core/music';
import { fastestPassed } from '@/core/scheduling';
import { elementAt } from '@/core/shared';
import type { StoredDrill, StoredRun } from '@/server/drillRows';
import { ChordWords } from '@/ui/ChordWords';

export type Item = {
  readonly drill: StoredDrill;
  readonly runs: readonly StoredRun[];
  /** Days until it is due; none or fewer is now. */
  readonly days: number;
};

/** A drill that comes back: its tempo, its last attempt, and when it is due. */
export function ItemRow({ item: { drill, runs, days } }: { item: Item }) {
  const last = runs[0];
  const tempo = elementAt(drill.ladder.rungs, drill.ladder.at);
  return (
    <Link
      href={`/drills/${drill.id}`}
      className="group grid grid-cols-[minmax(0,1fr)_auto] items-baseline gap-x-4 py-2.5 hover:text-ink"
    >
      <b className="text-[17px] group-hover:underline">
        <ChordWords text={typeset(drill.drill.name)} />
      </b>
      <b className="text-right text-xl">{tempo}</b>
      <span className="text-[15px] text-soft">
        {drill.title}, {last ? `last ${last.met} of ${last.of}` : 'first try'}
      </span>
      <span
        className={`text-right text-[15px] ${days <= 0 && !drill.away ? 'font-[640] text-now' : 'text-dim'}`}
      >
        {dueWords(drill, days)}
      </span>
    </Link>
  );
}

/** A kind of drill that can be started. */
export function KindRow({ kind, item, onGo }: { kind: DrillKind; item: Item | null; onGo: () => void }) {
  const { name, rule } = CATALOGUE[kind];
  const best = item ? fastestPassed(item.runs) : null;
  return (
    <button
      type="button"
      onClick={onGo}
      className="group grid w-full grid-cols-[minmax(0,1fr)_auto] gap-x-3 border-b border-line py-2 text-left"
    >
      <b className="font-[580] group-hover:underline">
        <ChordWords text={typeset(name)} />
      </b>
      <span className="text-sm text-dim">{standingWords(best, item)}</span>
      <span className="col-span-2 text-sm leading-5 text-soft">{ruleWords(rule)}</span>
    </button>
  );
}

function dueWords(drill: StoredDrill, days: number) {
  if (drill.away) return 'away';
  if (days <= 0) return 'due';
  if (days === 1) return 'tomorrow';
  return `in ${days} days`;
}

function standingWords(best: number | null, item: Item | null) {
  if (best !== null) return `passed at ${best}`;
  if (item) return 'started';
  return '';
}
