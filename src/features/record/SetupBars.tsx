'use client';
import { useMemo, useState } from 'react';
import { changeLoops, readChart, sectionsOf, type Chart } from '@/core/chart';
import { chordText } from '@/ui/chordParts';
import { ChoiceSetting, Setting } from '@/ui/Field';
import type { RecordChart, SettingsPart } from './settings';

type Bars = readonly [first: number, last: number];
type BarsChoice = { readonly key: string; readonly words: string; readonly bars: Bars | null };

/** What can be gone round in: the whole form, its sections, the bars around its changes, any bars. */
function choicesOf(form: Chart, chosen: Bars | null): BarsChoice[] {
  const count = form.bars.length;
  return [
    { key: 'whole', words: `the whole form, ${count}`, bars: null },
    ...sectionsOf(form).map(({ name, bars }, index) => ({
      key: `s${index}`,
      words: `section ${name}, ${bars[0]}–${bars[1]}`,
      bars,
    })),
    ...changeLoops(form).map(({ from, to, bar, bars }, index) => ({
      key: `c${index}`,
      words: `${chordText(from)} to ${chordText(to)}, bar ${bar}`,
      bars,
    })),
    { key: 'any', words: 'a loop of bars', bars: chosen ?? [1, Math.min(2, count)] },
  ];
}

/** The choice that is shown: the one that was picked as long as it fits, else a section, else any bars. */
function shownChoice(choices: readonly BarsChoice[], chosen: Bars | null, picked: string | null): string {
  if (chosen === null) return 'whole';
  const fitting = choices.filter(({ bars }) => bars?.[0] === chosen[0] && bars[1] === chosen[1]);
  const found = fitting.find(({ key }) => key === picked) ?? fitting.find(({ key }) => key.startsWith('s'));
  return found?.key ?? 'any';
}

/** Bars as a player writes them, within the form: `3` or `3-6`. */
function barsFrom(text: string, count: number): Bars | null {
  const found = /^\s*(\d{1,3})(?:\s*[-–]\s*(\d{1,3}))?\s*$/.exec(text);
  if (!found) return null;
  const first = Math.max(1, Math.min(count, Number(found[1])));
  return [first, Math.max(first, Math.min(count, Number(found[2] ?? found[1])))];
}

/** Which bars to go round in: the whole form, a section, or any. */
export function SetupBars({ chart, settings, set }: SettingsPart & { chart: RecordChart }) {
  const form = useMemo(() => {
    const read = readChart(chart.text);
    return read.ok ? read.value : null;
  }, [chart.text]);
  const [picked, setPicked] = useState<string | null>(null);
  const [text, setText] = useState<string | null>(null);
  if (!form) return null;
  const { bars } = settings;
  const choices = choicesOf(form, bars);
  const value = shownChoice(choices, bars, picked);
  const commit = () => {
    const read = barsFrom(text ?? '', form.bars.length);
    if (read) set({ bars: read });
    setText(null);
  };
  return (
    <>
      <ChoiceSetting
        name="Bars"
        value={value}
        choices={choices.map(({ key, words }) => [key, words] as const)}
        onChange={(chosen) => {
          setPicked(chosen);
          set({ bars: choices.find(({ key }) => key === chosen)?.bars ?? null });
        }}
      />
      {value === 'any' && bars && (
        <Setting name="Loop bars">
          <input
            className="field w-28 !py-1 font-[620] text-ink"
            aria-label="Loop bars"
            value={text ?? `${bars[0]}–${bars[1]}`}
            onChange={(event) => setText(event.target.value)}
            onBlur={commit}
            onKeyDown={(event) => {
              if (event.key === 'Enter') commit();
            }}
          />
        </Setting>
      )}
    </>
  );
}
