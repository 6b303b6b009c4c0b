'use client';
import Link from 'next/link';
import { useMemo } from 'react';
import { MUSICAL_TERMS, termsIn, type MusicalTerm } from '@/presentation';
import { PanelFrame } from '../commands/PanelFrame';
import { useHearing } from '../useHearing';
import { pageText } from './pageText';

const TEMPO = 90;
const CHART = 'key: C\ntempo: 90\n| C | C | C | C |';

/** The musical terms that stand on the screen, each with what it is, why it matters, and an example to hear. */
export const WordList = ({ open, onClose }: { open: boolean; onClose: () => void }) => (
  <PanelFrame open={open} onClose={onClose} title="Words on this screen">
    <p className="mt-2 text-soft">
      How things are done, and how they are judged, stands in the{' '}
      <Link href="/guide" className="text-now hover:underline" onClick={onClose}>
        guide
      </Link>
      .
    </p>
    <Terms />
  </PanelFrame>
);

function Terms() {
  const here = useMemo(() => termsIn(pageText(document.querySelectorAll('main, header, footer'))), []);
  const others = MUSICAL_TERMS.filter((term) => !here.includes(term));
  const { state, hear } = useHearing();
  const listen = (term: MusicalTerm) =>
    void hear(term.name, (rate) => ({
      type: 'line',
      chartText: CHART,
      tempo: TEMPO,
      choruses: 1,
      rate,
      seed: 1,
      leadSeconds: 0,
      notes: (term.example ?? []).map(([onsetBeat, durationBeats, midi]) => ({
        onsetBeat,
        durationBeats,
        midi,
      })),
    }));
  const list = (terms: readonly MusicalTerm[]) => (
    <dl className="grid gap-x-8 gap-y-4 sm:grid-cols-2">
      {terms.map((term) => (
        <TermEntry
          key={term.name}
          term={term}
          isSounding={state.id === term.name && state.phase !== 'silent'}
          onHear={() => listen(term)}
        />
      ))}
    </dl>
  );
  return (
    <>
      {state.trouble && (
        <p role="alert" className="mt-2 text-ink">
          {state.trouble}
        </p>
      )}
      <section className="mt-4 border-t border-line pt-3">
        {here.length === 0 ? <p className="text-soft">No musical term stands here.</p> : list(here)}
      </section>
      {others.length > 0 && (
        <section className="mt-5 border-t border-line pt-3">
          <h3 className="heading">On other screens</h3>
          {list(others)}
        </section>
      )}
    </>
  );
}

type EntryProps = { term: MusicalTerm; isSounding: boolean; onHear: () => void };

const TermEntry = ({ term: { name, what, why, example }, isSounding, onHear }: EntryProps) => (
  <div>
    <dt className="flex items-baseline gap-4 font-[620]">
      {name}
      {example && (
        <button
          type="button"
          aria-pressed={isSounding}
          aria-label={`Hear ${name}`}
          className="text-[15px] font-normal text-now hover:underline"
          onClick={onHear}
        >
          {isSounding ? 'stop' : 'hear it'}
        </button>
      )}
    </dt>
    <dd className="leading-6 text-soft">
      {what} <span className="text-dim">{why}</span>
    </dd>
  </div>
);
