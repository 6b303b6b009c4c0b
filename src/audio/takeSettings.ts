import type { ChordInstrument, ClickBeats, DropOut, StandInCharacter } from '@/core/band';
import type { PlayedNote } from '@/core/analyse';
import { secondsAt, timelineOf, type Route, type RouteWords } from '@/core/chart';
import type { PlanWords } from '@/core/plan';
import { elementAt } from '@/core/shared';
import type { Score } from '@/workers/bandProtocol';
import type { OwnBacking } from './band/backings';
import type { BandLevels } from './band/player';
import type { AudioInput } from './input/audioInput';
import type { NewTake } from './persistence/serverTakes';
import { renderOffline } from './workers';

/** What a take is to be: what is played over, how, with which band, and by which plan it is judged. */
export type TakeSettings = {
  readonly chartId: string;
  readonly chartText: string;
  readonly title: string;
  readonly route: RouteWords;
  readonly countInBars: number;
  readonly plan: PlanWords;
  readonly seed: number;
  readonly band: {
    readonly level: number;
    readonly levels: BandLevels;
    readonly click: ClickBeats;
    readonly dropOut: DropOut;
    readonly chords: ChordInstrument;
  };
  /** The player's own backing in the band's place. */
  readonly backing?: OwnBacking;
  /** The drill this is an attempt at, and what the stand-in player would play of it. */
  readonly drill?: { readonly id: string; readonly standIn: readonly PlayedNote[] | null };
};

/** The score of a take: everything that decides what its band plays. */
export function scoreOf(
  { band, countInBars, seed }: Pick<TakeSettings, 'band' | 'countInBars' | 'seed'>,
  { text, choruses, pace }: Route,
): Score {
  return {
    chartText: text,
    choruses,
    pace,
    countInBars,
    seed,
    click: band.click,
    dropOut: band.dropOut,
    chords: band.chords,
  };
}

/** Beats of the whole take, from bar 1 to its end. */
export const beatsOf = ({ chart, choruses, pace }: Route): number =>
  timelineOf(chart, elementAt(pace.tempi, 0)).formBeats * choruses;

/** What the server is told of a take when it begins. @param rate frames a second of its recording */
export function newTakeOf(
  { chartId, plan, title, band: { dropOut }, drill }: TakeSettings,
  route: Route,
  { choice, latency }: Pick<AudioInput, 'choice' | 'latency'>,
  rate: number,
  device: string,
): NewTake {
  const isAlone = (dropOut.choruses?.length ?? 0) + (dropOut.bars?.length ?? 0) > 0;
  const { text, choruses, pace } = route;
  const hasSteps = pace.tempi.length > 1;
  return {
    chartId,
    chartText: text,
    title,
    tempo: hasSteps ? meanTempo(route) : elementAt(pace.tempi, 0),
    choruses,
    plan,
    rate,
    bits: 24,
    source: choice?.kind === 'stand-in' ? 'stand-in' : 'microphone',
    device,
    createdAt: Date.now(),
    ...(latency.measured ? { latencySec: latency.seconds } : {}),
    ...(hasSteps ? { pace } : {}),
    ...(isAlone ? { dropOut } : {}),
    ...(drill ? { drillId: drill.id } : {}),
  };
}

function meanTempo(route: Route): number {
  const beats = beatsOf(route);
  return Math.round(((60 * beats) / secondsAt(route.pace, beats)) * 100) / 100;
}

/** What the stand-in player plays: a drill's line where there is one, else a solo of its own. */
export function standInSound(
  { drill, seed, plan }: TakeSettings,
  { text, choruses, pace }: Route,
  character: StandInCharacter,
  rate: number,
): Promise<Float32Array> {
  const tempo = elementAt(pace.tempi, 0);
  const common = { chartText: text, tempo, pace, choruses, rate, seed, leadSeconds: 0 };
  return drill?.standIn
    ? renderOffline({ type: 'line', notes: drill.standIn, ...common })
    : renderOffline({ type: 'solo', plan, character, ...common });
}
