'use client';
import Link from 'next/link';
import { useMemo } from 'react';
import { examplesOf, ruleWords, type RankedExample } from '@/core/drills';
import { typeset } from '@/core/music';
import { elementAt } from '@/core/shared';
import type { StoredDrill } from '@/server/drillRows';
import { ChordWords } from '@/ui/ChordWords';
import { LineOnPage } from '@/ui/page/LineOnPage';
import { drawnLine, stageOf, type DrillStage } from './drillView';

/** Up to so many bars there is room for two lines and for the player's own words; of longer ones one stands there. */
const SHORT = 4;
/** Systems of four bars on the sheet at most. */
const ROWS = 3;
/** Boxes to tick, one for each day of two weeks. */
const DAYS = 14;

/**
 * One page for the stand: what to play and why, lines to copy on staff and tablature, the tempos with a box a day, and
 * room to write. Printed on white, whatever the theme.
 */
export function LessonSheet({ drill }: { drill: StoredDrill }) {
  const { rungs, at } = drill.ladder;
  const tempo = elementAt(rungs, at);
  const stage = useMemo(() => stageOf(drill.drill, tempo), [drill.drill, tempo]);
  const bars = stage.timeline.bars.length;
  const isShort = bars <= SHORT;
  const lines = useMemo(() => examplesOf(stage.drill, isShort ? 2 : 1), [stage.drill, isShort]);
  const { name, rule, reason, span } = drill.drill;
  return (
    <main data-theme="noon" className="sheet lesson-sheet min-h-dvh bg-white text-ink">
      <div className="mx-auto max-w-[960px] px-8 py-6">
        <p className="no-print mb-4 flex gap-6 text-soft">
          <Link className="underline" href={`/drills/${drill.id}`}>
            Back to the drill
          </Link>
          <button type="button" className="underline" onClick={() => window.print()}>
            Print
          </button>
        </p>
        <p className="text-soft">
          {drill.title}, bars {span[0]}–{span[1]}
        </p>
        <h1 className="text-[30px] leading-10 font-[640] tracking-tight">
          <ChordWords text={typeset(name)} />
        </h1>
        <p className="mt-1 text-[17px] leading-6">
          <b>{ruleWords(rule)}</b> <span className="text-soft">{reason}</span>
        </p>
        <p className="mt-1 text-soft">
          {stage.size.pass} of {stage.size.places} places to be met, {stage.size.passes}{' '}
          {stage.size.passes === 1 ? 'pass' : 'passes'} an attempt.
        </p>
        {lines.map((one, place) => (
          <SheetLine key={one.seed} one={one} stage={stage} name={`Line ${place + 1}`} />
        ))}
        {lines.length === 0 && <p className="mt-4">These bars hold nothing this drill can be played on.</p>}
        {bars > ROWS * 4 && (
          <p className="text-soft">
            The first {ROWS * 4} of {bars} bars.
          </p>
        )}
        <Tempos rungs={rungs} now={tempo} most={isShort ? 4 : 3} />
        <section aria-label="Notes" className="mt-5 break-inside-avoid">
          <h2 className="font-[620]">What you noticed</h2>
          {Array.from({ length: 3 }, (_, row) => (
            <div key={row} className="h-8 border-b border-line" />
          ))}
        </section>
      </div>
    </main>
  );
}

function SheetLine({
  one: { line, passes },
  stage,
  name,
}: {
  one: RankedExample;
  stage: DrillStage;
  name: string;
}) {
  const shown = useMemo(() => drawnLine(stage, line, passes), [stage, line, passes]);
  return (
    <section aria-label={name} className="mt-4 break-inside-avoid">
      <h2 className="mb-1 font-[620]">{name}</h2>
      <LineOnPage {...shown} timeline={stage.timeline} name={name} rows={ROWS} withStaff whole />
    </section>
  );
}

/** A row of boxes for each tempo of the ladder, from the one it stands at. */
function Tempos({ rungs, now, most }: { rungs: readonly number[]; now: number; most: number }) {
  const ahead = rungs.filter((tempo) => tempo >= now).slice(0, most);
  return (
    <section aria-label="Tempos" className="mt-5 break-inside-avoid">
      <h2 className="font-[620]">Tempos, a box for each day it was met</h2>
      <table className="mt-1">
        <tbody>
          {ahead.map((tempo) => (
            <tr key={tempo}>
              <th scope="row" className="w-16 text-left font-[560] tabular-nums">
                {tempo}
              </th>
              {Array.from({ length: DAYS }, (_, day) => (
                <td key={day} className="p-1">
                  <span className="block size-5 border border-soft" />
                </td>
              ))}
            </tr>
          ))}
        </tbody>
      </table>
    </section>
  );
}
