'use client';
import dynamic from 'next/dynamic';
import { useSyncExternalStore, type ComponentProps } from 'react';
import { createStore } from '@/core/shared';
import { ToggleRow } from '../controls';
import { LineOnForm } from '../form/LineOnForm';

// the engraver comes when a page is asked for
const LineOnPage = dynamic(() => import('./LineOnPage').then((made) => made.LineOnPage));

const WAYS = [
  ['form', 'on the form'],
  ['both', 'staff and tablature'],
  ['tab', 'tablature only'],
] as const;
export type ShownAs = (typeof WAYS)[number][0];

/** How the player reads lines, the same on every screen, kept in this browser. */
const STORAGE_KEY = 'idle-wander-lines-shown';
const shownAs = createStore<ShownAs | null>(null);

function read(): ShownAs {
  const kept = shownAs.get();
  if (kept) return kept;
  const stored = localStorage.getItem(STORAGE_KEY);
  return WAYS.find(([way]) => way === stored)?.[0] ?? 'form';
}

function choose(way: ShownAs): void {
  localStorage.setItem(STORAGE_KEY, way);
  shownAs.set(way);
}

/**
 * A line as the player reads lines: on the form by degrees, on staff and tablature, or on tablature alone.
 * @param props.withChoice whether the choice stands over it
 */
export function LineShown({
  withChoice,
  ...line
}: ComponentProps<typeof LineOnForm> & { withChoice?: boolean }) {
  const way = useSyncExternalStore(shownAs.subscribe, read, () => 'form' as const);
  return (
    <>
      {withChoice && (
        <ToggleRow
          label="How lines are shown"
          value={way}
          choices={WAYS}
          onChange={choose}
          className="mb-2 text-[15px]"
        />
      )}
      {way === 'form' ? <LineOnForm {...line} /> : <LineOnPage {...line} withStaff={way === 'both'} />}
    </>
  );
}
