'use client';
import { useCallback, useMemo, useState } from 'react';
import type { GridAt, GridChoice, ScoreBar } from '@/core/notation';
import type { CorrectedNote } from '@/core/correct';
import { placesSaid } from '@/core/findings';
import type { Instrument } from '@/core/neck';
import { elementAt, type Beats } from '@/core/shared';
import { placesWords } from '@/presentation';
import { ToggleRow } from '@/ui/controls';
import { instrumentOf, useGuitar } from '@/ui/instrument';
import { ScoreList } from '@/ui/page/ScoreList';
import { degreesOf, pageOf } from '@/ui/page/reportPage';
import { ScorePage } from '@/ui/page/ScorePage';
import { loadMusicFont } from '@/ui/page/useMusicFont';
import { Selected } from './FormView';
import { HandPanel } from './HandPanel';
import type { ReviewModel } from './useReviewModel';
import { followPlayer } from './useTakePlayer';

const KINDS = [
  ['both', 'staff and tablature'],
  ['tab', 'tablature only'],
] as const;
type PageKind = (typeof KINDS)[number][0];

const GRID_CHOICES = [
  ['plainest', 'as it is plainest'],
  ['triplets', 'in triplets'],
  ['sixteenths', 'in sixteenths'],
] as const;
/** How the reader wants bars written, by their first beat. */
type Grids = ReadonlyMap<Beats, { readonly until: Beats; readonly grid: GridChoice }>;
const NO_GRIDS: Grids = new Map();

function withGrid(grids: Grids, { start, counting }: ScoreBar, grid: GridChoice | 'plainest'): Grids {
  const changed = new Map(grids);
  if (grid === 'plainest') changed.delete(start);
  else changed.set(start, { until: start + counting.bar / counting.beat, grid });
  return changed;
}

/** The bar in which a note is written: one that is played early may stand in the next. */
const barOf = (bars: readonly ScoreBar[], note: number): ScoreBar | undefined =>
  bars.find(({ entries }) => entries.some(({ pitches }) => pitches.some(({ index }) => index === note)));

const gridAtOf =
  (grids: Grids): GridAt =>
  (beat) => {
    for (const [start, { until, grid }] of grids)
      if (beat >= start - 1e-6 && beat < until - 1e-6) return grid;
    return null;
  };

/** Loads the music font before the page is asked for. */
export const makeReady = (): void => void loadMusicFont();

/** The take as it would stand on a page. */
export function PageView({ model }: { model: ReviewModel }) {
  const { judgement, drawn, current, chosen, span, select, player } = model;
  const [kind, setKind] = useState<PageKind>('both');
  const guitar = useGuitar();
  const instrument = useMemo(() => instrumentOf(guitar), [guitar]);
  const [grids, setGrids] = useState<Grids>(NO_GRIDS);
  const bars = usePage(model, instrument, grids);
  const bar = chosen === null ? undefined : barOf(bars, chosen);
  const degrees = useMemo(() => degreesOf(drawn), [drawn]);
  const swings = judgement.report.time.swing !== null;
  return (
    <div className="grid gap-x-10 gap-y-6 lg:grid-cols-[minmax(0,1fr)_300px]">
      <section aria-label="The page" className="min-w-0">
        <h1 className="sr-only">
          {model.data.take.title}, take {model.data.take.number}, on the page
        </h1>
        <div className="no-print mb-2 flex flex-wrap items-baseline gap-x-8 gap-y-1 text-[15px] text-dim">
          <ToggleRow label="What stands on the page" value={kind} choices={KINDS} onChange={setKind} />
          <span>
            {swings ? 'swung eighths written as eighths' : 'eighths as played'},{' '}
            {placesWords(placesSaid(judgement.report))}
          </span>
          {bar && (
            <span className="flex items-baseline gap-3">
              this bar{' '}
              <ToggleRow
                label="How this bar is written"
                value={grids.get(bar.start)?.grid ?? 'plainest'}
                choices={GRID_CHOICES}
                onChange={(grid) => setGrids(withGrid(grids, bar, grid))}
              />
            </span>
          )}
        </div>
        <ScorePage
          bars={bars}
          strings={instrument.tuning.length}
          withStaff={kind === 'both'}
          degreeOf={useCallback((index: number) => degrees.get(index) ?? null, [degrees])}
          selected={chosen}
          marked={current && current.kind !== 'note' ? span : null}
          onNote={useCallback((index: number) => select({ kind: 'note', index }), [select])}
          follow={useCallback(
            (move: (beat: Beats | null) => void) =>
              followPlayer(player, (beat, playing) => move(playing || beat > 0 ? beat : null)),
            [player],
          )}
        />
        <ScoreList bars={bars} degreeOf={(index) => degrees.get(index)?.label ?? ''} />
      </section>
      <div className="no-print">
        {current ? (
          <Selected model={model} />
        ) : (
          <p className="text-[15px] leading-6 text-dim">
            Press a note, or step through them with the arrow keys: what is said of it stands here. Under each
            note stands its degree in the chord.
          </p>
        )}
        <HandPanel model={model} instrument={instrument} />
      </div>
    </div>
  );
}

/** The take's bars as they are written. */
function usePage(
  { judgement, byId }: ReviewModel,
  instrument: Instrument,
  grids: Grids,
): readonly ScoreBar[] {
  const { timeline, report, places } = judgement;
  return useMemo(
    () =>
      pageOf(
        report,
        timeline,
        instrument,
        (index) => {
          const played = byId.get(elementAt(places, index));
          return { bend: played?.bend, slide: played?.slide, isShaken: isShaken(played) };
        },
        gridAtOf(grids),
      ),
    [timeline, report, places, byId, instrument, grids],
  );
}

/** Heard notes say how a pitch is shaken; notes put in by hand do not. */
const isShaken = (note: CorrectedNote | undefined): boolean => note !== undefined && 'vibrato' in note;
