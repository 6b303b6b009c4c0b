'use client';
import Link from 'next/link';
import { useMemo } from 'react';
import { sceneOf } from '@/core/phrases';
import type { StoredPhrase } from '@/server/phrases';
import { instrumentOf, useGuitar } from '@/ui/instrument';
import { ChordWords } from '@/ui/ChordWords';
import { LineShown } from '@/ui/page/LineShown';
import { HandPlace, lastPlace } from '@/ui/neck/HandPlace';
import { LineOnNeck } from '@/ui/neck/LineOnNeck';
import { KeyOf } from '../shell/commands/KeyOf';
import { BlocksView } from './BlocksView';
import { CellView } from './CellView';
import { EndingsView } from './EndingsView';
import { beatOf, hearWords, type Hearing } from './Hear';
import { JoinView } from './JoinView';
import { chordsText, drawnLine, formulaText, notesText } from './phraseView';
import { TransferView } from './TransferView';
import { VariationsView } from './VariationsView';
import { type Tab, type Bench } from './bench';

export const WorkshopFooter = ({ hearing, id }: { hearing: Hearing; id: string }) => (
  <>
    <span>
      <KeyOf command="phrase.hear" className="mr-1.5" />
      {hearWords(hearing, id)}
    </span>
    <span>
      <KeyOf command="phrase.nextView" className="mr-1.5" />
      next view
    </span>
    <Link href="/phrases" className="ml-auto hover:text-ink">
      all phrases
    </Link>
  </>
);

/** The phrase as it is kept: over its chords, on the neck, by name and by degree. */
export function Own({ bench: { stored, hearing, place } }: { bench: Bench }) {
  const guitar = useGuitar();
  const { phrase } = stored;
  const line = useMemo(() => drawnLine(sceneOf(phrase).chart, phrase.tempo, phrase.notes), [phrase]);
  const beat = beatOf(hearing, stored.id);
  return (
    <section aria-label="The phrase">
      <h1 className="text-[27px] leading-9 font-[640]">{stored.name}</h1>
      <p className="mb-1 text-soft">
        <ChordWords text={chordsText(phrase)} />
        <span className="ml-4">{notesText(phrase)}</span>
        <b className="ml-4 text-ink">{formulaText(phrase)}</b>
      </p>
      <LineShown withChoice {...line} cursor={beat} name={stored.name} />
      <LineOnNeck report={line.report} beat={beat} name={stored.name} />
      <div className="mt-2 flex flex-wrap gap-x-5 gap-y-1 text-[15px] leading-7">
        <span className="text-dim">Your index finger at fret</span>
        <HandPlace
          label="Fret of the index finger"
          value={placeOf(phrase)}
          last={lastPlace(instrumentOf(guitar))}
          onChange={place}
        />
      </div>
    </section>
  );
}

/** The fret the player has said, where it is one. */
function placeOf({ notes }: StoredPhrase['phrase']): number | 'several' | null {
  const said = [...new Set(notes.map(({ position }) => position ?? null))];
  return said.length > 1 ? 'several' : (said[0] ?? null);
}

export function View({ tab, bench, others }: { tab: Tab; bench: Bench; others: readonly StoredPhrase[] }) {
  if (tab === 'variations') return <VariationsView bench={bench} />;
  if (tab === 'blocks') return <BlocksView bench={bench} />;
  if (tab === 'join') return <JoinView bench={bench} others={others} />;
  if (!bench.chart)
    return <p className="mt-4 text-soft">There is no chart to carry it to. Write one under Charts.</p>;
  if (tab === 'endings') return <EndingsView bench={bench} chart={bench.chart} />;
  if (tab === 'cell') return <CellView bench={bench} chart={bench.chart} />;
  return <TransferView key={bench.chart.id} bench={bench} chart={bench.chart} />;
}
