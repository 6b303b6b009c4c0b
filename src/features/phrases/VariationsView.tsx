'use client';
import { useMemo } from 'react';
import { VARIATIONS, varied, type KeptPhrase, type Variation } from '@/core/phrases';
import { sceneOf } from '@/core/phrases';
import { variationWords } from '@/presentation';
import { LineShown } from '@/ui/page/LineShown';
import { beatOf, HearAndKeep } from './Hear';
import { drawnLine, formulaText } from './phraseView';
import type { Bench } from './bench';

/** Everything one phrase can become, each to be heard and kept. */
export function VariationsView({ bench }: { bench: Bench }) {
  const { phrase } = bench.stored;
  const made = useMemo(
    () =>
      VARIATIONS.flatMap((variation) => {
        const other = varied(phrase, variation);
        return other ? [{ variation, other }] : [];
      }),
    [phrase],
  );
  return (
    <ul className="mt-2">
      {made.map(({ variation, other }) => (
        <li key={variation} className="border-b border-line py-3">
          <OneVariation bench={bench} variation={variation} other={other} />
        </li>
      ))}
    </ul>
  );
}

type OneProps = { bench: Bench; variation: Variation; other: KeptPhrase };

function OneVariation({ bench: { stored, hearing, keep }, variation, other }: OneProps) {
  const line = useMemo(() => drawnLine(sceneOf(other).chart, other.tempo, other.notes), [other]);
  const id = `${stored.id} ${variation}`;
  const name = variationWords(variation);
  return (
    <>
      <p className="flex flex-wrap items-baseline gap-x-4">
        <b className="text-[19px]">{name}</b>
        <span className="text-soft">{formulaText(other)}</span>
        <HearAndKeep
          hearing={hearing}
          line={{ id, ...other }}
          name={name}
          onKeep={() => keep(`${stored.name}, ${name}`.slice(0, 80), other)}
        />
      </p>
      <LineShown {...line} rows={1} cursor={beatOf(hearing, id)} name={name} />
    </>
  );
}
