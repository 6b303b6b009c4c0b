'use client';
import { useMemo } from 'react';
import { readChart } from '@/core/chart';
import { typeset } from '@/core/music';
import { endingsOf, withEnding, type EndingOver } from '@/core/phrases';
import { unwrap } from '@/core/shared';
import { endWords, homeWords } from '@/presentation';
import { ChordWords } from '@/ui/ChordWords';
import { HearAndKeep } from './Hear';
import type { Bench, WorkshopChart } from './bench';

/** What the last note of the phrase is over every chord of a form, and what would bring it home. */
export function EndingsView({ bench, chart }: { bench: Bench; chart: WorkshopChart }) {
  const { phrase } = bench.stored;
  const endings = useMemo(() => endingsOf(phrase, unwrap(readChart(chart.text))), [phrase, chart]);
  return (
    <div className="mt-3 overflow-x-auto">
      <table className="w-full min-w-[560px] text-left">
        <caption className="sr-only">The last note over every chord of {chart.title}</caption>
        <thead>
          <tr className="border-b border-line text-[15px] text-dim">
            {['chord', 'from bar', 'last note is', 'it', 'to come home', ''].map((name) => (
              <th key={name} scope="col" className="py-1 pr-4 font-normal">
                {name}
              </th>
            ))}
          </tr>
        </thead>
        <tbody>
          {endings.map((ending) => (
            <EndingRow key={ending.symbol} bench={bench} ending={ending} />
          ))}
        </tbody>
      </table>
    </div>
  );
}

function EndingRow({ bench: { stored, hearing, keep }, ending }: { bench: Bench; ending: EndingOver }) {
  const ended = useMemo(() => withEnding(stored.phrase, ending), [stored, ending]);
  const id = `${stored.id} end ${ending.symbol}`;
  const name = `ended on ${typeset(ending.symbol)}`;
  return (
    <tr className="border-b border-line">
      <th scope="row" className="py-1.5 pr-4 text-[19px] font-[620]">
        <ChordWords text={typeset(ending.symbol)} />
        <span className="ml-2 text-[15px] font-normal text-dim">{typeset(ending.numeral)}</span>
      </th>
      <td className="pr-4 text-soft">{ending.bar}</td>
      <td className="pr-4">{ending.interval === null ? '–' : typeset(ending.interval)}</td>
      <td className={ending.end === 'home' ? 'pr-4 font-[620]' : 'pr-4 text-soft'}>{endWords(ending.end)}</td>
      <td className="pr-4 text-soft">{homeWords(ending.homeBy)}</td>
      <td className="py-1 text-right">
        <HearAndKeep
          hearing={hearing}
          line={{ id, ...ended }}
          name={name}
          onKeep={() => keep(`${stored.name}, ${name}`.slice(0, 80), ended)}
        />
      </td>
    </tr>
  );
}
