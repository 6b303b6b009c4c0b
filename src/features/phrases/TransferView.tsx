'use client';
import { useRouter } from 'next/navigation';
import { useMemo, useState } from 'react';
import { readChart } from '@/core/chart';
import { transferred, TRANSFERS, type Transfer } from '@/core/phrases';
import { elementAt, unwrap } from '@/core/shared';
import { transferWords } from '@/presentation';
import { ToggleRow } from '@/ui/controls';
import { LineShown } from '@/ui/page/LineShown';
import { KeyOf } from '../shell/commands/KeyOf';
import { useCommands } from '../shell/commands/useCommands';
import { beatOf, hearLine, hearWords } from './Hear';
import { drillPhrase } from './phraseServer';
import { drawnLine, motifOf } from './phraseView';
import type { Bench, WorkshopChart } from './bench';

/** The phrase over a whole form: by degree, by scale step, by contour or exactly. */
export function TransferView({ bench, chart }: { bench: Bench; chart: WorkshopChart }) {
  const router = useRouter();
  const { stored, hearing, say } = bench;
  const { phrase } = stored;
  const [transfer, setTransfer] = useState<Transfer>('degree');
  const form = useMemo(() => unwrap(readChart(chart.text)), [chart]);
  const { notes, statements } = useMemo(() => transferred(phrase, form, transfer), [phrase, form, transfer]);
  const line = useMemo(() => drawnLine(form, phrase.tempo, notes), [form, phrase, notes]);
  const id = `${chart.id} ${transfer}`;
  const play = () => hearLine(hearing, { id, chartText: chart.text, tempo: phrase.tempo, notes });
  const drill = () =>
    void drillPhrase(chart.id, motifOf(phrase), phrase.tempo)
      .then((made) => router.push(`/drills/${made.id}`))
      .catch((error: Error) => say(error.message));
  useCommands({
    'phrase.hearForm': play,
    'phrase.drill': drill,
    'phrase.transfer': () =>
      setTransfer(elementAt(TRANSFERS, (TRANSFERS.indexOf(transfer) + 1) % TRANSFERS.length)),
  });
  return (
    <section aria-label={`Over ${chart.title}`} className="mt-3">
      <div className="flex flex-wrap items-center gap-x-6 gap-y-2">
        <ToggleRow
          label="How it is carried"
          value={transfer}
          choices={TRANSFERS.map((one) => [one, transferWords(one).name] as const)}
          onChange={setTransfer}
        />
        <button type="button" className="quiet" onClick={play}>
          <KeyOf command="phrase.hearForm" className="mr-2" />
          {hearWords(hearing, id)}
        </button>
        <button type="button" className="quiet" onClick={drill}>
          <KeyOf command="phrase.drill" className="mr-2" />
          drill it
        </button>
      </div>
      <p className="my-2 text-[15px] text-dim">
        {transferWords(transfer).what} {statements.length}{' '}
        {statements.length === 1 ? 'statement' : 'statements'}.
      </p>
      <LineShown {...line} cursor={beatOf(hearing, id)} rows={8} name={`the phrase over ${chart.title}`} />
    </section>
  );
}
