'use client';
import { useMemo, useState } from 'react';
import type { PlayedNote, Report } from '@/core/analyse';
import type { Timeline } from '@/core/chart';
import { noteName, readChord, spellOver } from '@/core/music';
import { marksOf } from '@/core/findings';
import { typeset } from '@/core/music';
import { unwrap, pitchClassOf, elementAt } from '@/core/shared';
import { exampleFor, judgeDrill } from '@/core/drills';
import type { Level } from '@/core/lines';
import { pathOf, type Instrument } from '@/core/neck';
import { FormRow } from '@/ui/form/FormRow';
import { HEAD, LANE } from '@/ui/form/geometry';
import { formRows } from '@/ui/form/formRows';
import { takeOnForm, type TakeOnForm } from '@/ui/form/takeOnForm';
import { instrumentOf, useGuitar } from '@/ui/instrument';
import { NeckMap, type NeckMark } from '@/ui/neck/NeckMap';
import { ToggleRow } from '@/ui/controls';
import { KeyOf } from '../shell/commands/KeyOf';
import { useCommands } from '../shell/commands/useCommands';
import { useHearing } from '../shell/useHearing';
import type { DrillStage } from './drillView';

const WIDTH = 800;
/** On a phone, where a row of the other width would be too small to read. */
const PHONE = 400;
const MOST_ROWS = 3;
const MOST_PASSES = 3;
const LEVELS: readonly (readonly [Level, string])[] = [
  ['easy', 'easy'],
  ['usual', 'usual'],
  ['rich', 'rich'],
];

/** One line that passes: on the form, on the neck, and to be heard. Another one for every seed. */
export function Example({ stage }: { stage: DrillStage }) {
  const { drill, chart, timeline, plan } = stage;
  const [seed, setSeed] = useState(1);
  const [level, setLevel] = useState<Level>('usual');
  const guitar = useGuitar();
  const { state, hear } = useHearing();
  const shown = useMemo(() => {
    const made = exampleFor(drill, seed, level);
    if (!made) return null;
    const { line, passes } = made;
    const { report } = judgeDrill(drill, line, passes);
    return { line, passes, report, drawn: takeOnForm(report, marksOf(report, plan, chart, drill.tempo)) };
  }, [drill, seed, level, plan, chart]);
  const id = `${seed} ${level}`;
  const sounding = state.id === id && state.phase !== 'silent';
  const play = () => {
    if (shown)
      void hear(id, (rate) => ({ type: 'line', ...soundOf(shown, drill), rate, seed, leadSeconds: 0 }));
  };
  useCommands({
    'play.hearLine': { when: shown !== null, run: play },
    'play.anotherLine': { when: shown !== null, run: () => setSeed(seed + 1) },
  });
  if (!shown) return <p className="text-soft">These bars hold nothing this drill can be played on.</p>;
  const stopWords = state.phase === 'preparing' ? 'tuning up' : 'stop';
  const cursor = sounding && state.phase === 'sounding' ? state.beat : null;
  return (
    <section aria-label="An example">
      <h2 className="mb-1 flex flex-wrap items-baseline gap-x-4 gap-y-1">
        <span className="heading">One line that passes</span>
        <button type="button" className="text-[15px] text-soft underline hover:text-ink" onClick={play}>
          <KeyOf command="play.hearLine" className="mr-2 no-underline" />
          {sounding ? stopWords : 'hear it'}
        </button>
        <button
          type="button"
          className="text-[15px] text-soft underline hover:text-ink"
          onClick={() => setSeed(seed + 1)}
        >
          <KeyOf command="play.anotherLine" className="mr-2 no-underline" />
          another
        </button>
        <ToggleRow
          label="How much it plays"
          value={level}
          choices={LEVELS}
          onChange={setLevel}
          className="text-[15px]"
        />
        {state.trouble && (
          <span role="alert" className="text-ink">
            {state.trouble}
          </span>
        )}
      </h2>
      <ExampleForm {...shown} timeline={timeline} cursor={cursor} width={WIDTH} shownOn="hidden sm:block" />
      <ExampleForm {...shown} timeline={timeline} cursor={cursor} width={PHONE} shownOn="sm:hidden" />
      {timeline.bars.length > MOST_ROWS * 4 && (
        <p className="text-sm text-dim">and so on to bar {timeline.bars.length}</p>
      )}
      <OnNeck
        report={shown.report}
        instrument={instrumentOf(guitar)}
        leftHanded={guitar.leftHanded}
        beat={cursor}
      />
    </section>
  );
}

/** What the band and the line of an example are. */
const soundOf = (
  { line, passes }: { readonly line: PlayedNote[]; readonly passes: number },
  { chartText, tempo }: DrillStage['drill'],
) => ({ notes: line, chartText, tempo, choruses: passes });

type FormProps = {
  report: Report;
  drawn: TakeOnForm;
  timeline: Timeline;
  passes: number;
  cursor: number | null;
  width: number;
  shownOn: string;
};

/** The first rows of the form with the line on them. */
function ExampleForm({ report, drawn, timeline, passes, cursor, width, shownOn }: FormProps) {
  const shownPasses = Array.from({ length: Math.min(passes, MOST_PASSES) }, (_, pass) => pass);
  const rows = useMemo(() => formRows(timeline).slice(0, MOST_ROWS), [timeline]);
  const intervalsIn = (from: number, to: number) =>
    report.notes
      .filter(({ onsetBeat }) => onsetBeat >= from && onsetBeat < to)
      .map(({ interval }) => interval ?? 'rest')
      .join(' ');
  return (
    <div className={shownOn}>
      {rows.map((row) => (
        <svg
          key={row.index}
          viewBox={`0 0 ${width} ${HEAD + LANE * shownPasses.length + 10}`}
          className="mb-1 w-full"
          role="img"
          aria-label={`Bars ${elementAt(row.bars, 0).number} to ${elementAt(row.bars, row.bars.length - 1).number} of the example: ${intervalsIn(row.start, row.end)}`}
        >
          <FormRow
            row={row}
            width={width}
            formBeats={timeline.formBeats}
            choruses={shownPasses}
            take={drawn}
            cursor={cursor}
          />
        </svg>
      ))}
    </div>
  );
}

/** Where the line lies: the places of the bars that are heard, or of the first four. */
function OnNeck({
  report,
  instrument,
  leftHanded,
  beat,
}: {
  report: ReturnType<typeof judgeDrill>['report'];
  instrument: Instrument;
  leftHanded: boolean;
  beat: number | null;
}) {
  const notes = report.notes.filter(({ top }) => top);
  const path = useMemo(
    () =>
      pathOf(
        notes.map(({ onsetBeat, durationBeats, midi }) => ({
          onsetBeat,
          durationBeats,
          midi: Math.round(midi),
        })),
        { instrument },
      ),
    [notes, instrument],
  );
  if (!path.ok) return null;
  const from = beat === null ? 0 : Math.floor(beat / 4) * 4;
  const marks = new Map<string, NeckMark>();
  notes.forEach((note, index) => {
    const place = path.value.path[index];
    if (!place || note.onsetBeat < from - 0.2 || note.onsetBeat >= from + (beat === null ? 16 : 4)) return;
    marks.set(`${place.string} ${place.fret}`, {
      string: place.string,
      fret: place.fret,
      label: note.chord
        ? typeset(noteName(spellOver(unwrap(readChord(note.chord)), pitchClassOf(Math.round(note.midi)))))
        : '',
      look: lookOf(note.height),
    });
  });
  const frets = [...marks.values()].map(({ fret }) => fret).filter((fret) => fret > 0);
  if (frets.length === 0) return null;
  const low = Math.max(1, Math.min(...frets));
  return (
    <div className="mt-3 max-w-[520px]">
      <NeckMap
        tuning={instrument.tuning}
        from={low}
        to={Math.max(low + 4, ...frets)}
        marks={[...marks.values()]}
        leftHanded={leftHanded}
        width={520}
        gap={24}
        label={`The example on the neck, frets ${low} to ${Math.max(...frets)}`}
        size={12}
      />
    </div>
  );
}

function lookOf(height: number): 'tone' | 'scale' | 'neighbour' {
  if (height === 0) return 'tone';
  return height <= 2 ? 'scale' : 'neighbour';
}
