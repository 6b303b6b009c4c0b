'use client';
import Link from 'next/link';
import { useRouter } from 'next/navigation';
import { useCallback, useEffect, useMemo, useRef, useState, useSyncExternalStore } from 'react';
import { Dialog } from 'radix-ui';
import { tinykeys } from 'tinykeys';
import { readChart, writeOverride, type Chart } from '@/core/chart';
import { overlayOf, planFromWords, presetsFor, type PlanWords } from '@/core/plan';
import { unwrap, elementAt, present } from '@/core/shared';
import { ask } from '@/audio/persistence/serverTakes';
import { ChordSymbol } from '@/ui/ChordSymbol';
import { ChordWords } from '@/ui/ChordWords';
import { Pill } from '@/ui/form/Pill';
import { instrumentOf, useGuitar } from '@/ui/instrument';
import { Shell } from '../shell/Shell';
import { useHearing } from '../shell/useHearing';
import { GuitarDialog } from './GuitarDialog';
import { Handover, type NeckLayer } from './Handover';
import { PlaceView, placeWords, threadAt } from './PlaceView';
import { PlanChooser } from './PlanChooser';
import { ReadingCard } from './ReadingCard';
import { ShapesView } from './ShapesView';
import { StudyForm } from './StudyForm';
import { factsOf, movesOf, nextChange, studyOf } from './studyView';

const VIEWS = { thread: 'Thread', place: 'One place', shapes: 'Shapes' } as const;
export type StudyViewName = keyof typeof VIEWS;
const LAYERS: Record<NeckLayer, string> = {
  shape: 'chord tones',
  scale: 'and its scale',
  plan: 'and the plan',
};

export type StudyPlace = { readonly at?: number; readonly position?: number; readonly view?: StudyViewName };
type Props = { chart: { id: string; text: string }; plan: PlanWords; place: StudyPlace };

/**
 * Read before you play: the form, what each chord asks for by the chosen school, and where it lies on the
 * neck.
 */
export function StudyScreen({ chart: stored, plan: first, place }: Props) {
  const router = useRouter();
  const [text, setText] = useState(stored.text);
  const [plan, setPlan] = useState<PlanWords>(first);
  const [before, setBefore] = useState<PlanWords | null>(null);
  const [selected, setSelected] = useState(place.at ?? 0);
  const [position, setPosition] = useState(place.position ?? 5);
  const [view, setView] = useState<StudyViewName>(place.view ?? 'thread');
  const [layer, setLayer] = useState<NeckLayer>('shape');
  const [trouble, setTrouble] = useState<string | null>(null);
  const guitar = useGuitar();
  const instrument = useMemo(() => instrumentOf(guitar), [guitar]);
  const chart: Chart = useMemo(() => unwrap(readChart(text)), [text]);
  const choice = useMemo(() => {
    const read = planFromWords(plan);
    return read.ok ? read.value : { id: plan.id };
  }, [plan]);
  const overlay = useMemo(() => {
    const read = plan.overlay ? overlayOf(chart, plan.overlay) : null;
    return read?.ok ? read.value : null;
  }, [chart, plan.overlay]);
  const study = useMemo(() => studyOf(chart, choice, overlay), [chart, choice, overlay]);
  const presets = useMemo(() => presetsFor(study.harmony), [study.harmony]);
  const index = Math.min(selected, study.cells.length - 1);
  const cell = elementAt(study.cells, index);
  const next = nextChange(study, index);
  const narrow = useNarrow();
  const { state: hearing, hear } = useHearing();
  const tempo = chart.tempo ?? 100;

  const choose = useCallback(
    (words: PlanWords) => {
      setBefore(plan);
      setPlan(words);
    },
    [plan],
  );
  const step = useCallback(
    (way: 1 | -1) =>
      setSelected(
        (at) => (Math.min(at, study.cells.length - 1) + way + study.cells.length) % study.cells.length,
      ),
    [study.cells.length],
  );
  const slide = useCallback(
    (way: 1 | -1) => setPosition((at) => Math.max(1, Math.min(instrument.frets - 4, at + way))),
    [instrument.frets],
  );
  const sound = useCallback(
    (what: 'chord' | 'scale' | 'thread' | 'plans') => {
      const base = { type: 'study' as const, chartText: text, choruses: 1, seed: 7 };
      if (what === 'thread')
        return void hear(`thread ${text}`, (rate) => ({ ...base, rate, tempo, what: { kind: 'thread' } }));
      if (what === 'chord')
        return void hear(`chord ${index} ${text}`, (rate) => ({
          ...base,
          rate,
          tempo: 100,
          what: { kind: 'chord', stretch: index },
        }));
      if (what === 'scale')
        return void hear(`scale ${index} ${JSON.stringify(plan)} ${text}`, (rate) => ({
          ...base,
          rate,
          tempo: 132,
          what: { kind: 'scale', stretch: index, plan },
        }));
      const bar = Math.max(1, Math.min(cell.bar, chart.bars.length - 3));
      const plans = [
        before ?? { id: plan.id === 'home-scale' ? ('outline' as const) : ('home-scale' as const) },
        plan,
      ];
      void hear(`plans ${bar} ${JSON.stringify(plans)} ${text}`, (rate) => ({
        ...base,
        rate,
        tempo,
        what: { kind: 'plans', bars: [bar, Math.min(chart.bars.length, bar + 3)], plans },
      }));
    },
    [text, hear, tempo, index, plan, before, cell.bar, chart.bars.length],
  );

  const keepReading = useCallback(
    async (line: string | null) => {
      const own = text.split('\n').filter((one) => !isReadingOf(one, cell.bar, nthOf(study, index)));
      const changed = `${own.join('\n').trimEnd()}\n${line === null ? '' : `${line}\n`}`;
      const read = readChart(changed);
      if (!read.ok) return setTrouble(read.problems[0].message);
      setText(changed);
      setTrouble(null);
      try {
        await ask(`/api/charts/${stored.id}`, {
          method: 'PUT',
          headers: { 'content-type': 'application/json' },
          body: JSON.stringify({ text: changed }),
        });
      } catch {
        setTrouble('This reading is not saved yet: the server does not answer.');
      }
    },
    [text, cell.bar, study, index, stored.id],
  );

  const record = useCallback(
    () => router.push(`/record?chart=${stored.id}&plan=${encodeURIComponent(JSON.stringify(plan))}`),
    [router, stored.id, plan],
  );
  useAddress({ at: index, position, view, plan });
  useKeys({
    ArrowRight: () => step(1),
    ArrowLeft: () => step(-1),
    PageDown: () => step(1),
    PageUp: () => step(-1),
    ArrowUp: () => slide(1),
    ArrowDown: () => slide(-1),
    Space: () => sound('chord'),
    s: () => sound('scale'),
    t: () => sound('thread'),
    b: () => sound('plans'),
    '1': () => setView('thread'),
    '2': () => setView('place'),
    '3': () => setView('shapes'),
    l: () => setLayer(nextLayer),
    r: record,
    e: () => router.push(`/charts/${stored.id}`),
    o: () => {
      const other = cell.reading?.runnerUp;
      if (other && cell.reading) void keepReading(readingLine(study, index, other.degree));
    },
  });

  const sounding =
    hearing.id?.startsWith('thread') && hearing.phase === 'sounding'
      ? (study.cells.findLast((one) => one.start <= hearing.beat + 1e-6)?.index ?? null)
      : null;
  const last = Math.min(instrument.frets, position + (position >= 7 ? 5 : 4));
  const stops = useMemo(
    () => (view === 'place' ? threadAt(study, position, instrument) : []),
    [view, study, position, instrument],
  );
  const say = view === 'place' ? placeWords(study, stops) : study.say;
  let heard: 'Preparing the sound' | 'Sounding; the same key stops it' | null;
  if (hearing.phase === 'preparing') heard = 'Preparing the sound';
  else if (hearing.phase === 'sounding') heard = 'Sounding; the same key stops it';
  else heard = null;

  return (
    <Shell
      place="Study"
      footer={
        <>
          <label className="flex items-center gap-3">
            <b className="text-ink tabular-nums">Position {position}</b>
            <input
              type="range"
              min={1}
              max={Math.max(1, instrument.frets - 4)}
              value={position}
              onChange={(event) => setPosition(Number(event.target.value))}
              className="w-24 accent-(--now)"
              aria-label="Position"
            />
          </label>
          <span className="hidden sm:inline">
            frets {position} to {last}
            {guitar.capo > 0 ? ` above the capo at ${guitar.capo}` : ''}
          </span>
          {view === 'thread' && cell.chord && next.chord && next.index !== index && (
            <span className="hidden xl:inline">
              <ChordSymbol symbol={cell.chord.symbol} /> solid, <ChordSymbol symbol={next.chord.symbol} />{' '}
              ringed
            </span>
          )}
          <span role="status" className="text-ink">
            {hearing.trouble ?? heard ?? trouble ?? ''}
          </span>
          <span className="ml-auto flex flex-wrap items-center gap-x-4 gap-y-1">
            <Hear name="Space" label="chord" onClick={() => sound('chord')} />
            <Hear name="S" label="scale" onClick={() => sound('scale')} />
            <Hear name="T" label="thread" onClick={() => sound('thread')} />
            <Hear name="B" label="two plans" onClick={() => sound('plans')} />
            <button type="button" className="go text-base" onClick={record}>
              Record a take
            </button>
            <kbd className="key hidden sm:inline">R</kbd>
          </span>
        </>
      }
    >
      <div className="mx-4 flex grow flex-col sm:mx-8">
        <div className="flex flex-wrap items-baseline gap-x-4 pt-1 text-sm leading-7 text-dim">
          {study.meta.map((word) => (
            <span key={word}>{word}</span>
          ))}
          <nav aria-label="Views" className="flex gap-4 sm:ml-auto">
            {(Object.keys(VIEWS) as StudyViewName[]).map((name, place) => (
              <button
                key={name}
                type="button"
                aria-pressed={view === name}
                onClick={() => setView(name)}
                className={`border-b-2 ${view === name ? 'border-now text-ink' : 'border-transparent text-soft hover:text-ink'}`}
              >
                {VIEWS[name]} <kbd className="key hidden sm:inline-block">{place + 1}</kbd>
              </button>
            ))}
            <Dialog.Root>
              <Dialog.Trigger className="text-soft hover:text-ink">Your guitar</Dialog.Trigger>
              <GuitarDialog guitar={guitar} />
            </Dialog.Root>
            <Link
              href={`/study/${stored.id}/sheet?plan=${encodeURIComponent(JSON.stringify(plan))}&position=${position}`}
              className="text-soft hover:text-ink"
            >
              Print sheet
            </Link>
          </nav>
        </div>
        <div className="flex items-start justify-between gap-6">
          <h1 className="text-[20px] leading-7 tracking-tight text-soft sm:text-[25px] sm:leading-8">
            <ChordWords text={say[0]} />{' '}
            <b className="block font-[620] text-ink">
              <ChordWords text={say[1]} />
            </b>
          </h1>
          {view !== 'shapes' && <Legend place={view === 'place'} />}
        </div>
        {view === 'place' ? (
          <div className="pt-4 pb-6">
            <PlaceView
              study={study}
              position={position}
              instrument={instrument}
              leftHanded={guitar.leftHanded}
              selected={index}
              barsARow={narrow ? 1 : 4}
              onSelect={setSelected}
            />
          </div>
        ) : (
          <div className="grid gap-x-6 gap-y-6 pt-3 pb-4 lg:grid-cols-[minmax(0,880px)_minmax(0,1fr)]">
            <div className="min-w-0">
              {view === 'thread' && (
                <StudyForm
                  study={study}
                  selected={index}
                  sounding={sounding}
                  barsARow={narrow ? 2 : 4}
                  onSelect={setSelected}
                />
              )}
              {view === 'shapes' && (
                <>
                  <p className="mb-3 flex items-baseline gap-3 text-[28px] font-[640]">
                    {cell.chord ? <ChordSymbol symbol={cell.chord.symbol} /> : 'N.C.'}
                    <span className="text-lg font-normal text-soft">
                      {cell.degree}, bar {cell.bar}
                    </span>
                  </p>
                  <ShapesView
                    study={study}
                    index={index}
                    position={position}
                    instrument={instrument}
                    leftHanded={guitar.leftHanded}
                  />
                </>
              )}
              {view === 'thread' && (
                <div className="mt-2 grid gap-x-6 gap-y-3 sm:grid-cols-[240px_minmax(0,1fr)]">
                  <section aria-label="What changes" className="text-[15px] leading-[21px] text-soft">
                    <h2 className="text-[28px] leading-9 font-[640] text-ink">
                      {cell.chord ? <ChordSymbol symbol={cell.chord.symbol} /> : 'N.C.'}
                      {next.chord && next.index !== index && (
                        <>
                          <span className="px-3 font-normal text-now">to</span>
                          <ChordSymbol symbol={next.chord.symbol} />
                        </>
                      )}
                    </h2>
                    {movesOf(study, index).map((move) => (
                      <p key={move} className="first-of-type:mt-1 first-of-type:text-ink">
                        {move}
                      </p>
                    ))}
                    <p className="mt-2 hidden sm:block">
                      <kbd className="key">←</kbd> <kbd className="key">→</kbd> chord{' '}
                      <kbd className="key">↑</kbd> <kbd className="key">↓</kbd> position
                    </p>
                    <button
                      type="button"
                      className="mt-1 text-left hover:text-ink"
                      onClick={() => setLayer(nextLayer)}
                    >
                      <kbd className="key">L</kbd> {LAYERS[layer]}
                    </button>
                  </section>
                  <Handover
                    study={study}
                    index={index}
                    position={position}
                    instrument={instrument}
                    leftHanded={guitar.leftHanded}
                    layer={layer}
                  />
                </div>
              )}
            </div>
            <aside className="min-w-0">
              <PlanChooser
                plan={plan}
                presets={presets}
                place={{
                  chord: cell.chord?.symbol ?? null,
                  degree: cell.reading?.degree ?? null,
                  section: elementAt(study.timeline.bars, cell.bar - 1).section,
                }}
                chart={chart}
                onChange={choose}
              />
              <ReadingCard
                key={`${index} ${text.length}`}
                cell={cell}
                facts={factsOf(study, index)}
                onRead={(degree, scale) =>
                  void keepReading(
                    degree === null && scale === null ? null : readingLine(study, index, degree, scale),
                  )
                }
              />
            </aside>
          </div>
        )}
      </div>
    </Shell>
  );
}

/** What the marks mean: by their shade, and always by the name in them. */
function Legend({ place }: { place: boolean }) {
  return (
    <svg
      viewBox="0 0 224 62"
      className="mt-1 hidden w-[224px] shrink-0 xl:block"
      role="img"
      aria-label="Reading the marks"
    >
      <g fontSize={13}>
        <Pill x={0} y={10} width={26} height={16} tier={0} label="A" size={12} />
        <text x={36} y={14.5} style={{ fill: 'var(--soft)' }}>
          the home scale lacks it
        </text>
        <Pill x={0} y={31} width={26} height={16} tier={2} label="E♭" size={12} />
        <text x={36} y={35.5} style={{ fill: 'var(--soft)' }}>
          {place ? 'chord tone; a dot: plan note' : 'the home scale has it'}
        </text>
        {place ? (
          <rect
            x={1}
            y={44}
            width={24}
            height={15}
            rx={7.5}
            fill="none"
            stroke="var(--now)"
            strokeWidth={2}
          />
        ) : (
          <line x1={0} y1={55} x2={26} y2={49} stroke="var(--now)" strokeWidth={3} />
        )}
        <text x={36} y={56.5} style={{ fill: 'var(--soft)' }}>
          {place ? 'the third or seventh to follow' : 'moves by a half step'}
        </text>
      </g>
    </svg>
  );
}

function Hear({ name, label, onClick }: { name: string; label: string; onClick: () => void }) {
  return (
    <button type="button" onClick={onClick} className="hover:text-ink" aria-label={`Hear ${label}`}>
      <kbd className="key hidden sm:inline-block">{name}</kbd> {label}
    </button>
  );
}

const nextLayer = (layer: NeckLayer): NeckLayer =>
  (({ shape: 'scale', scale: 'plan', plan: 'shape' }) as const)[layer];

/** Which chord of its bar a cell is, from 1. */
const nthOf = (study: ReturnType<typeof studyOf>, index: number): number =>
  index - study.cells.findIndex((cell) => cell.bar === elementAt(study.cells, index).bar) + 1;

const readingLine = (
  study: ReturnType<typeof studyOf>,
  index: number,
  degree: string | null,
  scale: string | null = null,
): string =>
  writeOverride({ bar: elementAt(study.cells, index).bar, nth: nthOf(study, index), degree, scale });

function isReadingOf(line: string, bar: number, nth: number): boolean {
  const found = /^\s*reading\s*:\s*(\d+)(?:\.(\d+))?\s*=/.exec(line);
  return found !== null && Number(found[1]) === bar && Number(found[2] ?? 1) === nth;
}

const QUERY = '(max-width: 639px)';
const onNarrow = (listener: () => void) => {
  const query = window.matchMedia(QUERY);
  query.addEventListener('change', listener);
  return () => query.removeEventListener('change', listener);
};
/** A phone on a stand: two bars a row. */
const useNarrow = (): boolean =>
  useSyncExternalStore(
    onNarrow,
    () => window.matchMedia(QUERY).matches,
    () => false,
  );

/** Every place in Study has its own address. */
function useAddress({
  at,
  position,
  view,
  plan,
}: {
  at: number;
  position: number;
  view: StudyViewName;
  plan: PlanWords;
}): void {
  useEffect(() => {
    const query = new URLSearchParams({
      at: String(at),
      position: String(position),
      view,
      plan: JSON.stringify(plan),
    });
    window.history.replaceState(window.history.state, '', `${window.location.pathname}?${query.toString()}`);
  }, [at, position, view, plan]);
}

/** Keys work wherever nothing is being typed or chosen. */
function useKeys(keys: Record<string, () => void>): void {
  const latest = useRef(keys);
  useEffect(() => {
    latest.current = keys;
  });
  useEffect(
    () =>
      tinykeys(
        window,
        Object.fromEntries(
          Object.keys(latest.current).map((key) => [
            key,
            (event: KeyboardEvent) => {
              if (
                event.target instanceof HTMLElement &&
                event.target.closest('input, select, textarea, [role=dialog]')
              )
                return;
              if (key === 'Space' && event.target instanceof HTMLElement && event.target.closest('button, a'))
                return;
              event.preventDefault();
              present(latest.current[key])();
            },
          ]),
        ),
      ),
    [],
  );
}
