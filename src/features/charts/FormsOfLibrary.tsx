'use client';
import Link from 'next/link';
import { useEffect, useMemo, useRef } from 'react';
import { harmonyOf, LIBRARY, timelineOf, type LibraryForm } from '@/core/chart';
import { presetsFor } from '@/core/plan';
import { KeyOf } from '../shell/commands/KeyOf';
import { chartFacts } from './chartFacts';
import { type LibraryEntry } from './ChartFrame';
import { NEW_CHART } from './newChart';
import { TypesetChart } from './TypesetChart';
import { type LibraryModel } from './useLibraryModel';

export const HEAR_WORDS = { silent: 'hear it', preparing: 'preparing the band', sounding: 'stop' } as const;

type OwnProps = { own: readonly LibraryEntry[]; model: LibraryModel };

export function OwnCharts({ own, model: { create, bring } }: OwnProps) {
  const file = useRef<HTMLInputElement>(null);
  return (
    <nav aria-label="Library">
      <h2 className="heading">Yours</h2>
      <ul className="lg:max-h-[456px] lg:overflow-y-auto">
        {own.map((entry) => (
          <li key={entry.id} className="border-t border-line">
            <Link
              href={`/charts/${entry.id}`}
              className="block py-[7px] leading-[22px] text-soft hover:text-ink"
            >
              {entry.title}
              <span className="block text-sm text-dim">{entry.summary}</span>
            </Link>
          </li>
        ))}
      </ul>
      {own.length === 0 && (
        <p className="border-t border-line py-2 text-soft">
          None yet. Start from a form beside this, or write one.
        </p>
      )}
      <button
        type="button"
        onClick={() => void create(NEW_CHART)}
        className="w-full border-t border-line py-2 text-left text-[15px] text-soft hover:text-ink"
      >
        <KeyOf command="library.create" /> new chart
      </button>
      <button
        type="button"
        onClick={() => file.current?.click()}
        className="w-full border-t border-line py-2 text-left text-[15px] text-soft hover:text-ink"
      >
        import a chart
        <span className="block text-sm text-dim">
          chart text, MusicXML or MIDI markers; drop it anywhere here
        </span>
      </button>
      <input
        ref={file}
        type="file"
        accept=".txt,.musicxml,.xml,.mid,.midi,text/plain"
        className="sr-only"
        aria-label="Chart file"
        tabIndex={-1}
        onChange={(event) => {
          void bring(event.target.files?.[0]);
          event.target.value = '';
        }}
      />
    </nav>
  );
}

export const Forms = ({ model: { chosen, choose } }: { model: LibraryModel }) => (
  <section aria-label="Forms to start from">
    <h2 className="heading">Forms to start from</h2>
    <ul className="border-t border-line lg:max-h-[612px] lg:overflow-y-auto" tabIndex={0} aria-label="Forms">
      {LIBRARY.map((form, index) => (
        <FormLine
          key={form.id}
          form={form}
          family={form.family !== LIBRARY[index - 1]?.family}
          on={form.id === chosen.id}
          onChoose={() => choose(form)}
        />
      ))}
    </ul>
  </section>
);

export function ChosenForm({ model: { chosen, chart, hearing } }: { model: LibraryModel }) {
  const presets = useMemo(() => presetsFor(harmonyOf(chart, timelineOf(chart, 120))), [chart]);
  const { bars } = timelineOf(chart, 120);
  const isPlain = chart.written.length === chart.bars.length;
  const sounding =
    hearing.phase === 'sounding' && isPlain
      ? 1 + bars.findLastIndex((bar) => bar.start <= hearing.beat + 1e-6)
      : null;
  return (
    <section aria-label="Typeset form" className="min-w-0" data-tour="form">
      <h1 className="text-[30px] leading-10 font-[640] tracking-tight">{chart.title}</h1>
      <p className="text-soft">
        {chartFacts(chart).summary} ({chosen.tempos[0]} to {chosen.tempos[1]})
      </p>
      <p className="mb-4 text-dim">{chosen.about}</p>
      <TypesetChart chart={chart} wrongBar={null} soundingBar={sounding} />
      <h2 className="heading mt-4">Plans that suit it</h2>
      <ul className="border-t border-line">
        {presets.map((preset) => (
          <li
            key={preset.name}
            className="grid grid-cols-[180px_1fr] gap-3 border-b border-line py-1 text-[15px]"
          >
            <b className="font-[560]">{preset.name}</b>
            <span className="text-soft">{preset.reason}</span>
          </li>
        ))}
      </ul>
    </section>
  );
}

function FormLine({
  form,
  family,
  on,
  onChoose,
}: {
  form: LibraryForm;
  family: boolean;
  on: boolean;
  onChoose: () => void;
}) {
  const line = useRef<HTMLLIElement>(null);
  useEffect(() => {
    if (on) line.current?.scrollIntoView({ block: 'nearest' });
  }, [on]);
  const title = /^title: (.*)$/m.exec(form.text)?.[1] ?? form.id;
  return (
    <li
      ref={line}
      className={`relative border-b border-line ${on ? 'before:absolute before:inset-y-1.5 before:left-0 before:w-1 before:bg-now' : ''}`}
    >
      <button
        type="button"
        aria-pressed={on}
        onClick={onChoose}
        className={`grid w-full grid-cols-[116px_1fr] gap-x-3 py-[5px] pl-3 text-left leading-[21px] ${on ? 'text-ink' : 'text-soft hover:text-ink'}`}
      >
        <span className={family ? 'text-dim' : 'text-transparent'}>{form.family}</span>
        <span>
          <b className={on ? 'font-[640]' : 'font-[520]'}>{title}</b>
          <span className="block text-sm leading-[18px] text-dim">
            {form.about},{' '}
            <span className="whitespace-nowrap">
              {form.tempos[0]}–{form.tempos[1]}
            </span>
          </span>
        </span>
      </button>
    </li>
  );
}
