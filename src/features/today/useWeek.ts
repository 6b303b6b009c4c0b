'use client';
import { useRouter } from 'next/navigation';
import { useState } from 'react';
import { ask } from '@/audio/persistence/serverTakes';
import { elementAt } from '@/core/shared';
import type { WeekItem, WeekView } from './weekView';

export type PlacedItem = { readonly item: WeekItem; readonly ahead: number };

/** The coming days with one thing of them under the hand, which can be put on another day. */
export function useWeek({ days }: WeekView) {
  const router = useRouter();
  const [key, setKey] = useState<string | null>(null);
  const [said, setSaid] = useState<string | null>(null);
  const all: readonly PlacedItem[] = days.flatMap(({ items, ahead }) =>
    items.map((item) => ({ item, ahead })),
  );
  const at = all.findIndex(({ item }) => item.key === key);
  const chosen = at < 0 ? null : elementAt(all, at);
  const step = (by: 1 | -1) => {
    if (all.length === 0) return;
    const first = by > 0 ? 0 : all.length - 1;
    setKey(elementAt(all, at < 0 ? first : Math.max(0, Math.min(all.length - 1, at + by))).item.key);
  };
  const canMove = ({ item, ahead }: PlacedItem, by: 1 | -1): boolean =>
    item.drillId !== null && ahead + by >= 0 && ahead + by < days.length;
  const move = (placed: PlacedItem, by: 1 | -1) => {
    const { item, ahead } = placed;
    if (!canMove(placed, by)) return;
    setKey(item.key);
    void ask(`/api/drills/${item.drillId}`, {
      method: 'PATCH',
      headers: { 'content-type': 'application/json' },
      body: JSON.stringify({ inDays: ahead + by }),
    })
      .then(() => {
        const { name, date } = elementAt(days, ahead + by);
        setSaid(`${item.name}: ${name.toLowerCase() === 'today' ? 'today' : `${name}, ${date}`}.`);
        router.refresh();
      })
      .catch((error: Error) => setSaid(error.message));
  };
  return {
    chosen,
    said,
    step,
    canMove,
    move,
    choose: setKey,
    open: (item: WeekItem) => router.push(item.href),
  };
}
