'use client';
import { useEffect, useRef, useState } from 'react';
import { readChart, timelineOf, chorusAt } from '@/core/chart';
import type { Transcription } from '@/core/transcribe';
import { unwrap, present } from '@/core/shared';
import { catchUp } from '@/audio/persistence/catchUp';
import { IndexedTakeStore } from '@/audio/persistence/localTakes';
import { discardTake, finishTake, HTTP_SERVER } from '@/audio/persistence/serverTakes';
import { TAKE_LOCK } from '@/audio/takeLock';
import { hearFile } from '@/audio/workers';
import { useCommands } from '../shell/commands/useCommands';
import { Far } from '../shell/Far';
import { sayTrashed } from '../shell/trash';

export type InterruptedTake = {
  readonly id: string;
  readonly title: string;
  readonly seconds: number;
  readonly offsetSec: number;
  readonly tempo: number;
  readonly choruses: number;
  readonly chartText: string;
  readonly when: string;
};
type HeardFileNotes = { readonly frames: number; readonly transcription: Transcription };

/**
 * Brings to the server what only this browser has of earlier takes, then says whether any is still to be
 * decided on.
 * A take that another tab records right now is not cut off.
 */
export function useCatchUp(onNews: () => void): void {
  const told = useRef(onNews);
  useEffect(() => {
    told.current = onNews;
  });
  useEffect(() => {
    let gone = false;
    const look = async () => {
      const held = (await navigator.locks?.query?.())?.held ?? [];
      if (gone || held.some(({ name }) => name === TAKE_LOCK)) return;
      const shelf = await IndexedTakeStore.open();
      if ((await shelf.list()).length > 0) {
        await catchUp(shelf, HTTP_SERVER);
        if (!gone) told.current();
      }
    };
    void look().catch(() => undefined); // the server is away: the next visit asks again
    return () => {
      gone = true;
    };
  }, []);
}

/** Is another tab recording right now? Its take is not cut off. Null until that is known. */
export function useTakeElsewhere(): boolean | null {
  const [elsewhere, setElsewhere] = useState<boolean | null>(null);
  useEffect(() => {
    const asked = navigator.locks?.query?.() ?? Promise.resolve({ held: [] });
    void asked.then(
      ({ held }) => setElsewhere((held ?? []).some(({ name }) => name === TAKE_LOCK)),
      () => setElsewhere(false),
    );
  }, []);
  return elsewhere;
}

type Props = {
  take: InterruptedTake;
  onKept: (id: string) => void;
  onGone: (id: string) => void;
  onLater: () => void;
  onBack: (take: { id: string; state: string }) => void;
};

/**
 * A take that was cut off: what there is of it, heard and drawn, and what becomes of it is the player's word.
 */
export function Interrupted({ take, onKept, onGone, onLater, onBack }: Props) {
  const { heard, share, trouble, keep, throwAway, hearEnd } = useInterrupted(take, onKept, onGone, onBack);
  const press = heard
    ? { words: 'keep it and review it', act: () => void keep() }
    : { words: 'later', act: onLater };
  useCommands({
    'play.next': { label: press.words, run: press.act },
    'play.away': { label: 'Throw it away', run: () => void throwAway() },
    'play.other': { label: 'Hear the last four bars', run: hearEnd },
  });
  const { words, isOne } = lengthOf(take.seconds);
  return (
    <Far
      alert
      meta={
        <>
          <span>
            {take.title}, at {take.tempo}
          </span>
          <span>{take.when}</span>
        </>
      }
      soft="Your last take was cut off."
      bold={`${words} of it ${isOne ? 'is' : 'are'} safe.`}
      press={press}
      hold={{ words: 'throw it away', act: () => void throwAway() }}
      double={{ words: 'hear the last four bars', act: hearEnd }}
      more={
        heard ? (
          <button type="button" className="hover:text-ink" onClick={onLater}>
            decide later
          </button>
        ) : undefined
      }
    >
      <Extent take={take} heard={heard} width={1216} className="hidden sm:block" />
      <Extent take={take} heard={heard} width={358} className="sm:hidden" />
      <p role="status" className="mt-8 max-w-[1080px] text-[24px] leading-9 text-soft sm:text-[26px]">
        {trouble ?? <HeardWords heard={heard} share={share} />}
      </p>
    </Far>
  );
}

/** A length in minutes and seconds, and whether it is one of them. */
function lengthOf(all: number): { words: string; isOne: boolean } {
  const [minutes, seconds] = [Math.floor(all / 60), all % 60];
  const counted = (count: number, unit: string) => `${count} ${count === 1 ? unit : `${unit}s`}`;
  const parts = [
    ...(minutes > 0 ? [counted(minutes, 'minute')] : []),
    ...(seconds > 0 || minutes === 0 ? [counted(seconds, 'second')] : []),
  ];
  return { words: parts.join(' '), isOne: all === 1 };
}

function HeardWords({ heard, share }: { heard: HeardFileNotes | null; share: number }) {
  if (!heard) return `Listening to it, ${Math.round(share * 100)} %`;
  const { length } = heard.transcription.notes;
  return (
    <>
      <b className="text-ink">
        {length} {length === 1 ? 'note is' : 'notes are'} in it.
      </b>{' '}
      Nothing is thrown away unless you say so; what there is can be judged like any take.
    </>
  );
}

/** What there is of the take, heard; and the ways to decide on it. */
function useInterrupted(
  take: InterruptedTake,
  onKept: Props['onKept'],
  onGone: Props['onGone'],
  onBack: Props['onBack'],
) {
  const [heard, setHeard] = useState<HeardFileNotes | null>(null);
  const [share, setShare] = useState(0);
  const [trouble, setTrouble] = useState<string | null>(null);
  const audio = useRef<HTMLAudioElement | null>(null);
  useEffect(() => {
    const control = new AbortController();
    const { signal } = control;
    void (async () => {
      try {
        const bytes = await (await fetch(`/api/takes/${take.id}/audio`, { signal })).arrayBuffer();
        const file = await hearFile(bytes, setShare, signal);
        setHeard({ frames: file.samples.length, transcription: file.transcription });
      } catch {
        if (!signal.aborted) setTrouble('It could not be read just now. It stays here.');
      }
    })();
    return () => {
      control.abort();
      audio.current?.pause();
    };
  }, [take.id]);
  const forget = async () => {
    const store = await IndexedTakeStore.open();
    await store.remove(take.id).catch(() => undefined);
  };
  return {
    heard,
    share,
    trouble,
    keep: async () => {
      if (!heard) return;
      try {
        await finishTake(take.id, heard.frames, take.offsetSec, heard.transcription);
        await forget();
        onKept(take.id);
      } catch {
        setTrouble('The server does not answer. The take stays here.');
      }
    },
    throwAway: async () => {
      const recoverable = await discardTake(take.id).catch(() => false);
      await forget().catch(() => undefined);
      onGone(take.id);
      if (recoverable) sayTrashed(take.id, onBack);
    },
    hearEnd: () => {
      const player = (audio.current ??= new Audio(`/api/takes/${take.id}/audio`));
      if (!player.paused) return player.pause();
      player.currentTime = Math.max(0, take.seconds - (16 * 60) / take.tempo);
      void player.play().catch(() => undefined);
    },
  };
}

/** How far it got: choruses on a line, the notes that are there, and where it stopped. */
function Extent({
  take,
  heard,
  width: WIDTH,
  className,
}: {
  take: InterruptedTake;
  heard: HeardFileNotes | null;
  width: number;
  className: string;
}) {
  const { formBeats, bars } = timelineOf(unwrap(readChart(take.chartText)), take.tempo);
  const all = formBeats * take.choruses;
  const beatAt = (seconds: number) => ((seconds - take.offsetSec) * take.tempo) / 60;
  const stop = Math.max(0, Math.min(all, beatAt(take.seconds)));
  const x = (beat: number) => Math.round((Math.max(0, beat) / all) * WIDTH * 10) / 10;
  const chorus = Math.min(take.choruses - 1, chorusAt({ formBeats }, stop));
  const bar = present(bars.findLast(({ start }) => start <= stop - chorus * formBeats + 1e-6)).index + 1;
  const late = x(stop) > WIDTH * 0.6;
  return (
    <svg
      viewBox={`0 0 ${WIDTH} 204`}
      className={`mt-12 w-full ${className}`}
      role="img"
      aria-label={`Stopped in bar ${bar} of chorus ${chorus + 1} of ${take.choruses}`}
    >
      {Array.from({ length: take.choruses }, (_, index) => (
        <g key={index}>
          <line x1={x(index * formBeats)} y1={8} x2={x(index * formBeats)} y2={160} stroke="var(--dim)" />
          {take.choruses <= WIDTH / 110 && (
            <text x={x(index * formBeats) + 10} y={24} fontSize={20} style={{ fill: 'var(--dim)' }}>
              chorus {index + 1}
            </text>
          )}
        </g>
      ))}
      <rect x={x(stop)} y={36} width={WIDTH - x(stop)} height={104} fill="var(--row)" />
      {heard?.transcription.notes.map((note, index) => {
        const [from, to] = [beatAt(note.onsetSec), beatAt(note.offsetSec)];
        return to < 0 ? null : (
          <rect
            key={index}
            x={x(from)}
            y={140 - Math.max(0, Math.min(96, (note.midi - 40) * 2))}
            width={Math.max(2, x(to) - x(from) - 1)}
            height={5}
            fill="var(--h0)"
          />
        );
      })}
      <line x1={x(stop)} y1={2} x2={x(stop)} y2={168} stroke="var(--now)" strokeWidth={3} />
      <text
        x={x(stop) + (late ? 1 : -1)}
        y={196}
        fontSize={WIDTH > 600 ? 22 : 17}
        textAnchor={late ? 'end' : 'start'}
        style={{ fill: 'var(--soft)' }}
      >
        stopped here, bar {bar} of chorus {chorus + 1}
      </text>
    </svg>
  );
}
