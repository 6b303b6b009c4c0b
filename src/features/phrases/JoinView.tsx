'use client';
import { useMemo, useState } from 'react';
import { joinedPhrases, sceneOf } from '@/core/phrases';
import type { StoredPhrase } from '@/server/phrases';
import { Select } from '@/ui/controls';
import { LineShown } from '@/ui/page/LineShown';
import { beatOf, HearAndKeep } from './Hear';
import { drawnLine } from './phraseView';
import type { Bench } from './bench';

/** The phrase and another one after it, joined by the nearest note. */
export function JoinView({ bench, others }: { bench: Bench; others: readonly StoredPhrase[] }) {
  const [chosen, setChosen] = useState<string | null>(null);
  const other = others.find(({ id }) => id === chosen) ?? others[0];
  if (!other)
    return <p className="mt-4 text-soft">Keep a second phrase first: then the two can be joined here.</p>;
  return (
    <section aria-label="Joined" className="mt-3">
      <div className="flex items-center gap-3 text-soft">
        and then
        <Select
          label="The second phrase"
          look="line"
          value={other.id}
          options={others.map(({ id, name }) => [id, name] as const)}
          onChange={setChosen}
        />
      </div>
      <Joined bench={bench} other={other} />
    </section>
  );
}

function Joined({ bench: { stored, hearing, keep }, other }: { bench: Bench; other: StoredPhrase }) {
  const joined = useMemo(() => joinedPhrases(stored.phrase, other.phrase), [stored, other]);
  const line = useMemo(() => drawnLine(sceneOf(joined).chart, joined.tempo, joined.notes), [joined]);
  const id = `${stored.id} ${other.id}`;
  return (
    <>
      <p className="my-2 flex gap-4">
        <HearAndKeep
          hearing={hearing}
          line={{ id, ...joined }}
          name="both phrases"
          onKeep={() => keep(`${stored.name} and ${other.name}`.slice(0, 80), joined)}
        />
      </p>
      <LineShown {...line} cursor={beatOf(hearing, id)} name="both phrases" />
    </>
  );
}
