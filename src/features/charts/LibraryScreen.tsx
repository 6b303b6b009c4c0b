'use client';
import Link from 'next/link';
import { useRouter } from 'next/navigation';
import { useCallback, useEffect, useMemo, useRef, useState } from 'react';
import { tinykeys } from 'tinykeys';
import { harmonyOf, LIBRARY, readChart, timelineOf, type LibraryForm } from '@/core/chart';
import { presetsFor } from '@/core/plan';
import { unwrap, elementAt } from '@/core/shared';
import { ServerRefusal } from '@/audio/persistence/serverTakes';
import { Shell } from '../shell/Shell';
import { useHearing } from '../shell/useHearing';
import { chartFacts } from './chartFacts';
import type { LibraryEntry } from './ChartsScreen';
import { makeChart, NEW_CHART } from './newChart';
import { TypesetChart } from './TypesetChart';

/** What to play over: the player's own charts, and forms to start from. */
export function LibraryScreen({ own }: { own: readonly LibraryEntry[] }) {
  const router = useRouter();
  const [chosen, setChosen] = useState<LibraryForm>(elementAt(LIBRARY, 0));
  const [trouble, setTrouble] = useState<string | null>(null);
  const file = useRef<HTMLInputElement>(null);
  const { state: hearing, hear } = useHearing();
  const chart = useMemo(() => unwrap(readChart(chosen.text)), [chosen]);
  const presets = useMemo(() => presetsFor(harmonyOf(chart, timelineOf(chart, 120))), [chart]);
  const create = useCallback(
    async (text: string) => {
      try {
        const { id } = await makeChart(text);
        router.push(`/charts/${id}`);
        router.refresh();
      } catch (error) {
        setTrouble(
          error instanceof ServerRefusal ? error.message : 'The server does not answer; nothing was made.',
        );
      }
    },
    [router],
  );
  const bring = async (brought: File | undefined) => {
    if (!brought) return;
    const read = await (await import('./moveChart')).chartFromFile(brought);
    if (read.ok) return create(read.value);
    setTrouble(
      [
        read.problems[0].bar === undefined ? '' : `Measure ${read.problems[0].bar}:`,
        read.problems[0].message,
        read.problems[0].suggestion,
      ]
        .filter(Boolean)
        .join(' '),
    );
  };
  const listen = useCallback(() => {
    const tempo = chart.tempo ?? 110;
    void hear(`form ${chosen.id}`, (rate) => ({
      type: 'band',
      chartText: chosen.text,
      tempo,
      choruses: 1,
      countInBars: 0,
      rate,
      seed: 3,
    }));
  }, [hear, chart, chosen]);
  const step = useCallback(
    (way: 1 | -1) =>
      setChosen((form) =>
        elementAt(LIBRARY, (LIBRARY.indexOf(form) + way + LIBRARY.length) % LIBRARY.length),
      ),
    [],
  );
  useEffect(() => {
    const unlessTyping = (work: () => void) => (event: KeyboardEvent) => {
      if (
        event.target instanceof HTMLElement &&
        event.target.closest('input, select, textarea, a, [role=dialog]')
      )
        return;
      event.preventDefault();
      work();
    };
    return tinykeys(window, {
      n: unlessTyping(() => void create(NEW_CHART)),
      h: unlessTyping(listen),
      ArrowDown: unlessTyping(() => step(1)),
      ArrowUp: unlessTyping(() => step(-1)),
      PageDown: unlessTyping(() => step(1)),
      PageUp: unlessTyping(() => step(-1)),
      Enter: unlessTyping(() => void create(chosen.text)),
    });
  }, [create, listen, step, chosen]);
  const sounding =
    hearing.phase === 'sounding'
      ? Math.min(
          chart.bars.length,
          1 + timelineOf(chart, 120).bars.findLastIndex((bar) => bar.start <= hearing.beat + 1e-6),
        )
      : null;
  return (
    <Shell
      place="Charts"
      footer={
        <>
          <span>
            <kbd className="key">↑</kbd> <kbd className="key">↓</kbd> form
          </span>
          <button type="button" className="hover:text-ink" onClick={listen}>
            <kbd className="key">H</kbd> {HEAR_WORDS[hearing.phase]}
          </button>
          <span role="alert" className="text-ink">
            {trouble ?? hearing.trouble ?? ''}
          </span>
          <button type="button" className="go ml-auto text-base" onClick={() => void create(chosen.text)}>
            Start from {chart.title}
          </button>
          <kbd className="key hidden sm:inline-block">Enter</kbd>
        </>
      }
    >
      <div
        className="mx-4 grid grow gap-x-10 gap-y-8 pt-3 pb-6 sm:mx-8 lg:grid-cols-[232px_416px_minmax(0,1fr)]"
        onDragOver={(event) => event.preventDefault()}
        onDrop={(event) => {
          event.preventDefault();
          void bring(event.dataTransfer.files[0]);
        }}
      >
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
            <kbd className="key">N</kbd> new chart
          </button>
          <button
            type="button"
            onClick={() => file.current?.click()}
            className="w-full border-t border-line py-2 text-left text-[15px] text-soft hover:text-ink"
          >
            bring a chart
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
        <section aria-label="Forms to start from">
          <h2 className="heading">Forms to start from</h2>
          <ul
            className="border-t border-line lg:max-h-[612px] lg:overflow-y-auto"
            tabIndex={0}
            aria-label="Forms"
          >
            {LIBRARY.map((form, index) => (
              <FormLine
                key={form.id}
                form={form}
                family={form.family !== LIBRARY[index - 1]?.family}
                on={form.id === chosen.id}
                onChoose={() => setChosen(form)}
              />
            ))}
          </ul>
        </section>
        <section aria-label="Typeset form" className="min-w-0">
          <h1 className="text-[30px] leading-10 font-[640] tracking-tight">{chart.title}</h1>
          <p className="text-soft">
            {chartFacts(chart).summary} ({chosen.tempos[0]} to {chosen.tempos[1]})
          </p>
          <p className="mb-4 text-dim">{chosen.about}</p>
          <TypesetChart
            chart={chart}
            wrongBar={null}
            soundingBar={chart.written.length === chart.bars.length ? sounding : null}
          />
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
      </div>
    </Shell>
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

const HEAR_WORDS = { silent: 'hear it', preparing: 'preparing the band', sounding: 'stop' } as const;
