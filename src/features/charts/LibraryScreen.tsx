'use client';
import Link from 'next/link';
import { useRouter } from 'next/navigation';
import { useEffect, useMemo, useRef, useState } from 'react';
import { harmonyOf, LIBRARY, readChart, timelineOf, type Chart, type LibraryForm } from '@/core/chart';
import { presetsFor } from '@/core/plan';
import { elementAt, unwrap } from '@/core/shared';
import { ServerRefusal } from '@/audio/persistence/serverTakes';
import { KeyOf } from '../shell/commands/KeyOf';
import { useCommands } from '../shell/commands/useCommands';
import { Shell } from '../shell/Shell';
import { useHearing } from '../shell/useHearing';
import { chartFacts } from './chartFacts';
import { bandOver, type LibraryEntry } from './ChartsScreen';
import { makeChart, NEW_CHART } from './newChart';
import { TypesetChart } from './TypesetChart';

const HEAR_WORDS = { silent: 'hear it', preparing: 'preparing the band', sounding: 'stop' } as const;

/** What to play over: the player's own charts, and forms to start from. */
export function LibraryScreen({ own }: { own: readonly LibraryEntry[] }) {
  const model = useLibraryModel();
  const { chosen, chart, create, bring, listen, step } = model;
  useCommands({
    'library.next': () => step(1),
    'library.previous': () => step(-1),
    'library.hear': { label: `Hear ${chart.title}`, run: listen },
    'library.start': { label: `Start from ${chart.title}`, run: () => void create(chosen.text) },
    'library.create': () => void create(NEW_CHART),
  });
  return (
    <Shell place="Charts" footer={<Footer model={model} />}>
      <div
        className="mx-4 grid grow gap-x-10 gap-y-8 pt-3 pb-6 sm:mx-8 lg:grid-cols-[232px_416px_minmax(0,1fr)]"
        onDragOver={(event) => event.preventDefault()}
        onDrop={(event) => {
          event.preventDefault();
          void bring(event.dataTransfer.files[0]);
        }}
      >
        <OwnCharts own={own} model={model} />
        <Forms model={model} />
        <ChosenForm model={model} />
      </div>
    </Shell>
  );
}

function useLibraryModel() {
  const router = useRouter();
  const [chosen, choose] = useState<LibraryForm>(elementAt(LIBRARY, 0));
  const [trouble, setTrouble] = useState<string | null>(null);
  const { state: hearing, hear } = useHearing();
  const chart: Chart = useMemo(() => unwrap(readChart(chosen.text)), [chosen]);
  const create = async (text: string) => {
    try {
      const { id } = await makeChart(text);
      router.push(`/charts/${id}`);
      router.refresh();
    } catch (error) {
      const refused = error instanceof ServerRefusal;
      setTrouble(refused ? error.message : 'The server does not answer; nothing was made.');
    }
  };
  return {
    chosen,
    choose,
    chart,
    hearing,
    trouble: trouble ?? hearing.trouble,
    create,
    /** Makes a chart of a file: chart text, MusicXML or MIDI markers. */
    bring: async (file: File | undefined) => {
      if (!file) return;
      const read = await (await import('./moveChart')).chartFromFile(file);
      if (read.ok) return create(read.value);
      const [{ bar, message, suggestion }] = read.problems;
      setTrouble([bar === undefined ? '' : `Measure ${bar}:`, message, suggestion].filter(Boolean).join(' '));
    },
    listen: () => void hear(`form ${chosen.id}`, (rate) => bandOver({ ...chart, text: chosen.text }, rate)),
    step: (by: 1 | -1) =>
      choose((form) => elementAt(LIBRARY, (LIBRARY.indexOf(form) + by + LIBRARY.length) % LIBRARY.length)),
  };
}
type LibraryModel = ReturnType<typeof useLibraryModel>;

function Footer({ model: { chosen, chart, hearing, trouble, create, listen } }: { model: LibraryModel }) {
  return (
    <>
      <span>
        <KeyOf command="library.previous" /> <KeyOf command="library.next" /> form
      </span>
      <button type="button" className="hover:text-ink" onClick={listen}>
        <KeyOf command="library.hear" /> {HEAR_WORDS[hearing.phase]}
      </button>
      <span role="alert" className="text-ink">
        {trouble ?? ''}
      </span>
      <button type="button" className="go ml-auto text-base" onClick={() => void create(chosen.text)}>
        Start from {chart.title}
      </button>
      <KeyOf command="library.start" className="hidden sm:inline-block" />
    </>
  );
}

type OwnProps = { own: readonly LibraryEntry[]; model: LibraryModel };

function OwnCharts({ own, model: { create, bring } }: OwnProps) {
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

const Forms = ({ model: { chosen, choose } }: { model: LibraryModel }) => (
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

function ChosenForm({ model: { chosen, chart, hearing } }: { model: LibraryModel }) {
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
