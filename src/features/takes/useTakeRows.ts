'use client';
import { useCallback, useEffect, useRef, useState } from 'react';
import { ask } from '@/audio/persistence/serverTakes';
import type { Filter, Rows, TakeRow } from './takesList';

const PAGE = 40;
const SETTLED_MS = 150;

const queryOf = (key: string, from: number): URLSearchParams =>
  new URLSearchParams([
    ...Object.entries(JSON.parse(key) as Filter).map(([part, value]): [string, string] => [
      part,
      String(value),
    ]),
    ['from', String(from)],
    ['most', String(PAGE)],
  ]);

type Held = { readonly key: string; readonly total: number; readonly rows: ReadonlyMap<number, TakeRow> };

/** Lays a page over the rows that are held; rows of another choice go. */
const withPage = (held: Held, key: string, from: number, { total, rows }: Rows): Held => ({
  key,
  total,
  rows: new Map([
    ...(held.key === key ? held.rows : []),
    ...rows.map((row, index): [number, TakeRow] => [from + index, row]),
  ]),
});

/** The rows that were fetched, page by page, as they come into sight. */
export function useTakeRows(first: Rows, filter: Filter) {
  const initial = useRef(filter);
  const key = JSON.stringify(filter);
  const [held, setHeld] = useState<Held>(() => ({
    key,
    total: first.total,
    rows: new Map(first.rows.map((row, index) => [index, row])),
  }));
  const [trouble, setTrouble] = useState<string | null>(null);
  const asked = useRef(new Set<string>());
  const fetchPage = useCallback(
    (from: number) => {
      const name = `${key} ${from}`;
      if (asked.current.has(name)) return;
      asked.current.add(name);
      ask<Rows>(`/api/takes/lines?${queryOf(key, from)}`)
        .then((page) => {
          setTrouble(null);
          setHeld((now) => withPage(now, key, from, page));
        })
        .catch(() => {
          asked.current.delete(name);
          setTrouble('Some takes could not be fetched. Scroll on, or load the page again.');
        });
    },
    [key],
  );
  useEffect(() => {
    if (filter === initial.current) return;
    const timer = setTimeout(() => {
      asked.current.clear();
      fetchPage(0);
    }, SETTLED_MS);
    return () => clearTimeout(timer);
  }, [filter, fetchPage]);
  const isCurrent = held.key === key;
  const rowAt = useCallback((index: number) => held.rows.get(index), [held]);
  const need = useCallback(
    (index: number) => {
      if (isCurrent) fetchPage(Math.floor(index / PAGE) * PAGE);
    },
    [isCurrent, fetchPage],
  );
  return { total: held.total, rowAt, need, trouble };
}
