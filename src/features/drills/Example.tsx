'use client';
import { useMemo, useState } from 'react';
import type { PlayedNote } from '@/core/analyse';
import { exampleFor } from '@/core/drills';
import type { Level } from '@/core/lines';
import { ToggleRow } from '@/ui/controls';
import { LineShown } from '@/ui/page/LineShown';
import { LineOnNeck } from '@/ui/neck/LineOnNeck';
import { KeyOf } from '../shell/commands/KeyOf';
import { useCommands } from '../shell/commands/useCommands';
import { useHearing } from '../shell/useHearing';
import { drawnLine, type DrillStage } from './drillView';
import { LinesToChoose } from './LinesToChoose';
import { useLines } from './useLines';

const LEVELS: readonly (readonly [Level, string])[] = [
  ['easy', 'easy'],
  ['usual', 'usual'],
  ['rich', 'rich'],
];

/** One line that passes: on the form, on the neck, and to be heard. Another one for every seed. */
export function Example({ stage }: { stage: DrillStage }) {
  const { drill, timeline } = stage;
  const [seed, setSeed] = useState(1);
  const [level, setLevel] = useState<Level>('usual');
  const [isChoosing, setIsChoosing] = useState(false);
  const offered = useLines(drill, level, isChoosing);
  const { state, hear } = useHearing();
  const shown = useMemo(() => {
    const made = exampleFor(drill, seed, level);
    if (!made) return null;
    return { ...made, ...drawnLine(stage, made.line, made.passes) };
  }, [stage, drill, seed, level]);
  const id = `${seed} ${level}`;
  const sounding = state.id === id && state.phase !== 'silent';
  const play = () => {
    if (shown)
      void hear(id, (rate) => ({ type: 'line', ...soundOf(shown, drill), rate, seed, leadSeconds: 0 }));
  };
  // among lines that are offered it is the next in their order
  const goOn = () => {
    const { lines } = offered;
    const next = lines[(lines.findIndex((one) => one.seed === seed) + 1) % Math.max(1, lines.length)];
    setSeed(next?.seed ?? seed + 1);
  };
  useCommands({
    'play.hearLine': { when: shown !== null, run: play },
    'play.anotherLine': { when: shown !== null, run: goOn },
    'play.chooseLine': { when: shown !== null, run: () => setIsChoosing(!isChoosing) },
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
        <button type="button" className="text-[15px] text-soft underline hover:text-ink" onClick={goOn}>
          <KeyOf command="play.anotherLine" className="mr-2 no-underline" />
          another
        </button>
        <button
          type="button"
          aria-expanded={isChoosing}
          className="text-[15px] text-soft underline hover:text-ink"
          onClick={() => setIsChoosing(!isChoosing)}
        >
          <KeyOf command="play.chooseLine" className="mr-2 no-underline" />
          {isChoosing ? 'one line' : 'eight to choose from'}
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
      {isChoosing && <LinesToChoose offered={offered} timeline={timeline} chosen={seed} onChoose={setSeed} />}
      <LineShown withChoice {...shown} timeline={timeline} cursor={cursor} name="the example" />
      <LineOnNeck report={shown.report} beat={cursor} name="The example" />
    </section>
  );
}

/** What the band and the line of an example are. */
const soundOf = (
  { line, passes }: { readonly line: PlayedNote[]; readonly passes: number },
  { chartText, tempo }: DrillStage['drill'],
) => ({ notes: line, chartText, tempo, choruses: passes });
