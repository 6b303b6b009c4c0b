'use client';
import { useCallback, useMemo, useState } from 'react';
import type { GridAt, GridChoice, ScoreBar } from '@/core/notation';
import type { CorrectedNote } from '@/core/correct';
import { placesSaid } from '@/core/findings';
import type { Instrument } from '@/core/neck';
import { elementAt, type Beats } from '@/core/shared';
import { placesWords } from '@/presentation';
import { ToggleRow } from '@/ui/controls';
import { guitarNow, instrumentOf, useGuitar } from '@/ui/instrument';
import { ScoreList } from '@/ui/page/ScoreList';
import { degreesOf, pageOf } from '@/ui/page/reportPage';
import { ScorePage, warmEngraver } from '@/ui/page/ScorePage';
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

/**
 * Does what a page needs before it is asked for: the music font, the bars as they are plainest, and one of them
 * engraved out of sight, for the engraver's first bar takes several times as long as any other.
 */
export function makeReady(model: ReviewModel): void {
  const bars = plainBars(model, instrumentOf(guitarNow()));
  const first = bars.find(({ entries }) => entries.length > 2);
  void loadMusicFont().then(() => {
    if (first) setTimeout(() => warmEngraver(first));
  });
}

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
function usePage({ judgement, byId }: Written, instrument: Instrument, grids: Grids): readonly ScoreBar[] {
  return useMemo(
    () =>
      grids === NO_GRIDS
        ? plainBars({ judgement, byId }, instrument)
        : barsWith({ judgement, byId }, instrument, grids),
    [judgement, byId, instrument, grids],
  );
}

type Written = Pick<ReviewModel, 'judgement' | 'byId'>;

function barsWith({ judgement, byId }: Written, instrument: Instrument, grids: Grids): readonly ScoreBar[] {
  const { timeline, report, places } = judgement;
  return pageOf(
    report,
    timeline,
    instrument,
    (index) => {
      const played = byId.get(elementAt(places, index));
      return { bend: played?.bend, slide: played?.slide, isShaken: isShaken(played) };
    },
    gridAtOf(grids),
  );
}

const plain = new WeakMap<
  Written['judgement'],
  { readonly guitar: string; readonly bars: readonly ScoreBar[] }
>();

/** The bars as they are plainest: made once a judgement, mostly before the page is asked for. */
function plainBars(written: Written, instrument: Instrument): readonly ScoreBar[] {
  const guitar = JSON.stringify(instrument);
  const known = plain.get(written.judgement);
  if (known?.guitar === guitar) return known.bars;
  const bars = barsWith(written, instrument, NO_GRIDS);
  plain.set(written.judgement, { guitar, bars });
  return bars;
}

/** Heard notes say how a pitch is shaken; notes put in by hand do not. */
const isShaken = (note: CorrectedNote | undefined): boolean => note !== undefined && 'vibrato' in note;
