'use client';
import { useWindowVirtualizer } from '@tanstack/react-virtual';
import Link from 'next/link';
import { useRouter } from 'next/navigation';
import { useEffect, useRef, useState } from 'react';
import { PLANS } from '@/core/plan';
import { askAhead } from '@/audio/persistence/serverTakes';
import { TakeProfile } from '@/ui/form/TakeProfile';
import { trashTake } from '../shell/trash';
import type { TakeRow, TakeRowLine } from './takesList';

const ROW = 61;
type Props = {
  total: number;
  rowAt: (index: number) => TakeRow | undefined;
  need: (index: number) => void;
};

/** All takes that were chosen; only the rows in sight are drawn, however many there are. */
export function TakeList({ total, rowAt, need }: Props) {
  const box = useRef<HTMLUListElement>(null);
  const [margin, setMargin] = useState(0);
  useEffect(() => setMargin(box.current?.offsetTop ?? 0), []);
  const list = useWindowVirtualizer({
    count: total,
    estimateSize: () => ROW,
    overscan: 12,
    scrollMargin: margin,
    initialRect: { width: 1280, height: 900 },
  });
  const shown = list.getVirtualItems();
  const last = shown[shown.length - 1]?.index ?? 0;
  const firstShown = shown[0]?.index ?? 0;
  useEffect(() => {
    for (let index = firstShown; index <= last; index++) if (!rowAt(index)) need(index);
  }, [firstShown, last, rowAt, need]);
  return (
    <ul ref={box} className="relative" style={{ height: list.getTotalSize() }} aria-label={`${total} takes`}>
      {shown.map(({ index, start }) => {
        const take = rowAt(index);
        return (
          <li
            key={index}
            aria-setsize={total}
            aria-posinset={index + 1}
            className="absolute inset-x-0"
            style={{ height: ROW, transform: `translateY(${start - margin}px)` }}
          >
            {rowOf(take)}
          </li>
        );
      })}
    </ul>
  );
}

function rowOf(take: TakeRow | undefined) {
  if (take?.line) return <Row take={take} line={take.line} />;
  if (take) return <TroubledRow take={take} />;
  return <div className="h-full border-t border-line" aria-hidden="true" />;
}

/**
 * A row asks for the page when it is pointed at or reached, and for the take itself when it is pressed: by the
 * click both are on their way.
 */
function Row({ take, line }: { take: TakeRow; line: TakeRowLine }) {
  const router = useRouter();
  const href = `/takes/${take.id}`;
  const ahead = () => router.prefetch(href);
  return (
    <Link
      href={href}
      prefetch={false}
      onPointerEnter={ahead}
      onFocus={ahead}
      onPointerDown={() => askAhead(take.id)}
      onClick={() => askAhead(take.id)}
      className="grid h-full grid-cols-[44px_minmax(0,1fr)_auto] items-center gap-x-4 border-t border-line hover:bg-row lg:grid-cols-[44px_216px_minmax(0,1fr)_128px_150px_72px]"
    >
      <span className="text-2xl font-[560] text-soft">{take.number}</span>
      <span className="min-w-0 leading-5">
        <b className="block truncate font-[560] text-ink">
          {take.title}
          {take.stars > 0 && (
            <span className="ml-2 text-sm text-now" aria-label={`${take.stars} stars`}>
              {'★'.repeat(take.stars)}
            </span>
          )}
        </b>
        <span className="block truncate text-sm text-dim">
          {take.when}, {PLANS[take.planId].short}
        </span>
      </span>
      <span className="hidden lg:block">
        <TakeProfile profile={line.profile} />
      </span>
      <Count value={line.met} of={line.judged} name="changes met on time" />
      <span className="hidden lg:block">
        <Count value={line.heard} of={line.segments} name="chords heard with the band muted" />
      </span>
      <span className="hidden text-right text-[22px] font-[560] text-soft lg:block">{take.tempo}</span>
    </Link>
  );
}

/** A take that cannot be judged: what is wrong, and the way to be rid of it. */
function TroubledRow({ take }: { take: TakeRow }) {
  const router = useRouter();
  const reload = () => router.refresh();
  return (
    <div className="flex h-full items-center gap-x-4 border-t border-line">
      <span className="w-11 text-2xl font-[560] text-soft">{take.number}</span>
      <span className="min-w-0 grow leading-5">
        <b className="block truncate font-[560] text-ink">{take.title}</b>
        <span className="block truncate text-sm text-soft">{take.trouble}</span>
      </span>
      <a
        className="text-soft hover:text-ink hover:underline"
        href={`/api/takes/${take.id}/export?format=archive`}
        download
      >
        Export
      </a>
      <button type="button" className="quiet" onClick={() => void trashTake(take.id, reload, reload)}>
        Remove<span className="sr-only"> take {take.number}</span>
      </button>
    </div>
  );
}

const Count = ({ value, of, name }: { value: number; of: number; name: string }) => (
  <span className="block text-right text-2xl font-[640] text-soft">
    {value}
    <span className="text-[15px] font-normal text-dim"> of {of}</span>
    <span className="sr-only"> {name}</span>
  </span>
);
