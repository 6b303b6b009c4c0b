import {
  bandFeel,
  CHARACTERS,
  chordSound,
  chordsUnder,
  improvise,
  lineupOf,
  perform,
  renderBand,
  scaleSound,
  threadSound,
  type Instruments,
  type StudySound,
} from '@/core/band';
import { passage, readChart, steady, timelineOf, writeBars, type Chart } from '@/core/chart';
import { cellAt, overlayOf, planFromWords, planOn, type PlanWords } from '@/core/plan';
import { beatsToSeconds, unwrap, elementAt } from '@/core/shared';
import { arranged } from './bandRenderer';
import type { OfflineRequest, StudyAsk } from './offlineRendererProtocol';

/** Seconds that are kept after the last bar, for what rings. */
export const TAIL_SECONDS = 0.8;

/** The studio worker without its thread: a solo with its lead of silence, or chords under a guitar. */
export async function renderRequest(
  request: OfflineRequest,
  instrumentsAt: (rate: number) => Promise<Instruments>,
): Promise<Float32Array> {
  const { tempo, choruses, rate, seed } = request;
  const chart = unwrap(readChart(request.chartText));
  if (request.type === 'study') return playStudy(chart, request.what, request, await instrumentsAt(rate));
  if (request.type === 'band') {
    const score = {
      ...request,
      pace: request.pace ?? steady(tempo),
      click: 'off',
      dropOut: {},
      chords: 'keys',
    } as const;
    const { request: band, length, lead } = arranged(score, rate);
    return renderBand(await instrumentsAt(rate), band, (length - lead) / rate);
  }
  if (request.type === 'line')
    return perform({
      notes: request.notes,
      tempo,
      ...(request.pace ? { pace: request.pace } : {}),
      rate,
      seed,
      leadSeconds: request.leadSeconds,
      tailSeconds: TAIL_SECONDS,
    });
  const notes = improvise({
    chart,
    tempo,
    choruses,
    seed,
    plan: unwrap(planFromWords(request.plan)),
    profile: { ...CHARACTERS[request.character ?? 'steady'].profile, ...request.profile },
  });
  return perform({
    notes,
    tempo,
    ...(request.pace ? { pace: request.pace } : {}),
    rate,
    seed,
    leadSeconds: request.leadSeconds,
    tailSeconds: TAIL_SECONDS,
  });
}

/** Chords under a guitar: what Study plays on a key. Two plans follow each other over the same bars. */
function playStudy(
  chart: Chart,
  what: StudyAsk,
  { tempo, rate, seed }: OfflineRequest,
  instruments: Instruments,
): Float32Array {
  const pieces = studyPieces(chart, what, tempo, seed).map((sound) =>
    mixed(sound, chart, tempo, rate, seed, instruments),
  );
  const out = new Float32Array(pieces.reduce((sum, piece) => sum + piece.length, 0));
  let at = 0;
  for (const piece of pieces) {
    out.set(piece, at);
    at += piece.length;
  }
  return out;
}

function studyPieces(chart: Chart, what: StudyAsk, tempo: number, seed: number): StudySound[] {
  const timeline = timelineOf(chart, tempo);
  if (what.kind === 'thread') return [threadSound(chart)];
  if (what.kind === 'plans') {
    const part = passage(chart, ...what.bars);
    return what.plans.map((plan) =>
      chordsUnder(
        part,
        improvise({
          chart: part,
          tempo,
          choruses: 1,
          seed,
          plan: unwrap(planFromWords(within(plan, chart, what.bars))),
          profile: { meet: 1 },
        }),
      ),
    );
  }
  const chord = timeline.chordSpans[what.stretch]?.chord;
  if (!chord) return [];
  if (what.kind === 'chord') return [chordSound(chord)];
  if (what.kind === 'note') return [scaleSound(chord, { pcs: [what.pc] }, what.pc)];
  const cell = cellAt(planOn(chart, timeline, unwrap(planFromWords(what.plan))).plan, what.stretch);
  return [scaleSound(chord, { pcs: cell.material }, cell.targets[0] ?? null)];
}

/** A plan over some bars of its form: superimposed changes are cut to them. */
function within(plan: PlanWords, chart: Chart, bars: readonly [number, number]): PlanWords {
  const laid = plan.overlay ? overlayOf(chart, plan.overlay) : null;
  return laid?.ok ? { ...plan, overlay: writeBars(passage(laid.value, ...bars).bars) } : plan;
}

function mixed(
  { events, line, beats }: StudySound,
  chart: Chart,
  tempo: number,
  rate: number,
  seed: number,
  instruments: Instruments,
): Float32Array {
  const seconds = beatsToSeconds(beats, tempo) + TAIL_SECONDS;
  const lineup = lineupOf(bandFeel(chart), tempo);
  const band = renderBand(
    instruments,
    { events, lineup, rate, leadSeconds: 0, secondsAt: (beat) => beatsToSeconds(beat, tempo) },
    seconds,
    { chords: 0.9 },
  );
  if (line.length === 0) return band;
  const guitar = perform({ notes: line, tempo, rate, seed, leadSeconds: 0, tailSeconds: TAIL_SECONDS });
  for (let n = 0; n < Math.min(band.length, guitar.length); n++) band[n]! += elementAt(guitar, n) * 0.9;
  return band;
}
