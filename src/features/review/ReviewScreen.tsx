'use client';
import { useRouter } from 'next/navigation';
import { useCallback, useEffect, useMemo, useState } from 'react';
import { tinykeys } from 'tinykeys';
import type { GateMark, Report } from '@/core/analyse';
import { placeOf, readChart, timelineOf, type Pace } from '@/core/chart';
import type { Finding } from '@/core/practise';
import { PLANS, PLAN_IDS, planShort, type PlanId, type PlanWords } from '@/core/plan';
import { certain } from '@/core/vocabulary';
import { amendTake } from '@/audio/keep/serverTakes';
import { ChordWords } from '@/ui/ChordWords';
import { takeOnForm } from '@/ui/form/takeOnForm';
import { Shell } from '../shell/Shell';
import { MutedBandBoard, PhrasesBoard, TimeFacts } from './Boards';
import { Coverage } from './Coverage';
import { Findings } from './Findings';
import { FormPicture } from './FormPicture';
import { LandingsBoard } from './LandingsBoard';
import { LineUp } from './LineUp';
import { Legend } from './Legend';
import { NoteCard } from './NoteCard';
import { openingWords, shownFindings } from './reviewWords';
import { usePlayback } from './usePlayback';

export type ReviewTake = {
  readonly id: string; readonly number: number; readonly title: string; readonly tempo: number; readonly choruses: number; readonly chartText: string;
  readonly plan: PlanWords; readonly pace: Pace | null; readonly offsetSec: number; readonly soundGone: boolean; readonly when: string; readonly source: string;
};
type Props = {
  take: ReviewTake; report: Report; marks: readonly GateMark[]; findings: readonly Finding[]; cut: boolean;
  /** How surely the take holds a played line; null where that was not asked. */
  certainty: number | null;
};

const DOUBTFUL = 0.5;

/** The take on the form: what to say first, the picture, the findings and boards beside it, and its sound under the fingers. */
export function ReviewScreen({ take, report, marks, findings, cut, certainty }: Props) {
  const router = useRouter();
  const timeline = useMemo(() => timelineOf(certain(readChart(take.chartText)), take.tempo), [take.chartText, take.tempo]);
  const drawn = useMemo(() => takeOnForm(report, marks), [report, marks]);
  const [selected, setSelected] = useState<number | null>(null);
  const [kind, setKind] = useState<string | null>(null);
  const { playing, beat, playFrom, toggle } = usePlayback(take);
  const words = openingWords(report, findings);
  const shown = shownFindings(findings);
  const lit = useMemo(() => (kind === null ? drawn : { ...drawn, gates: drawn.gates.map((gate) => (kindOf(report, gate.index) === kind ? gate : { ...gate, word: '' })) }), [drawn, kind, report]);
  const change = useCallback(async (to: Parameters<typeof amendTake>[1]) => {
    await amendTake(take.id, to);
    router.refresh();
  }, [take.id, router]);
  const step = useCallback((by: number) => setSelected((now) => {
    const line = drawn.notes;
    if (line.length === 0) return null;
    const place = now === null ? (by > 0 ? -1 : line.length) : line.findIndex((note) => note.index === now);
    return line[Math.max(0, Math.min(line.length - 1, place + by))]!.index;
  }), [drawn]);
  useReviewKeys({ toggle, step, close: () => { setSelected(null); setKind(null); }, hear: () => playFrom(selected === null ? 0 : report.notes[selected]!.onsetBeat), finding: (index) => {
    const bar = shown[index]?.where.bars[0];
    if (bar !== undefined) playFrom(beatOfBar(timeline, bar));
  } });
  return (
    <Shell place="Takes" footer={
      <>
        <button type="button" onClick={toggle} aria-label={playing ? 'Pause' : 'Play the take'}><PlaySign playing={playing} /></button>
        <b className="text-ink" role="status">{placeText(timeline, beat ?? 0)}</b>
        <span className="hidden sm:inline"><kbd className="key">Space</kbd> play</span>
        <span className="hidden sm:inline"><kbd className="key">←</kbd> <kbd className="key">→</kbd> note, <kbd className="key">Enter</kbd> hear from it</span>
        <LineUp key={take.offsetSec} offsetSec={take.offsetSec} onChange={(offsetSec) => void change({ offsetSec })} />
        <label className="flex items-center gap-2">Judged by
          <select className="field !py-1" value={take.plan.id} onChange={(event) => void change({ plan: { id: event.target.value as PlanId } })}>
            {PLAN_IDS.map((id) => <option key={id} value={id}>{PLANS[id].name}</option>)}
          </select>
        </label>
      </>
    }>
      <div className="mx-4 pb-6 sm:mx-8">
        <p className="flex flex-wrap gap-x-5 text-sm leading-6 text-dim">
          <span>{take.title}, take {take.number}</span><span>{take.choruses} {take.choruses === 1 ? 'chorus' : 'choruses'} at {take.tempo}</span>
          <span>{planShort(take.plan)}</span><span>{report.summary.notes} notes</span><span>{take.when}</span>{take.source === 'stand-in' && <span>played by the stand-in player</span>}
        </p>
        {cut && <p role="status" className="my-2 border-l-[3px] border-now pl-4 text-soft">The input went away during this take. What was played until then is kept and judged.</p>}
        {certainty !== null && certainty < DOUBTFUL && <p role="status" className="my-2 border-l-[3px] border-now pl-4 text-ink">This hardly sounds like a played line: a voice, drums or the band may have been heard instead. Take what follows with doubt; a lead into the input, or the microphone nearer to the guitar, helps.</p>}
        <h1 className="mb-4 text-[22px] leading-[30px] font-[480] tracking-tight text-soft sm:text-[25px] sm:leading-8"><ChordWords text={words.soft} /><br /><b className="font-[620] text-ink"><ChordWords text={words.bold} /></b></h1>
        <div className="grid grid-cols-[minmax(0,1fr)] gap-x-6 gap-y-6 lg:grid-cols-[minmax(0,872fr)_minmax(280px,320fr)]">
          <div className="min-w-0">
            <FormPicture timeline={timeline} choruses={report.summary.choruses} take={lit} cursor={beat} selected={selected} onNote={setSelected} onBeat={playFrom} />
          </div>
          <aside className="min-w-0">
            {selected === null
              ? <Findings findings={shown} bars={timeline.bars.length} onHear={(bar) => playFrom(beatOfBar(timeline, bar))} />
              : <NoteCard report={report} index={selected} place={placeText(timeline, report.notes[selected]!.onsetBeat, true)} onClose={() => setSelected(null)} />}
            <LandingsBoard report={report} marks={marks} kind={kind} onKind={setKind} />
          </aside>
        </div>
        <Legend />
        <div className="mt-10 grid grid-cols-[minmax(0,1fr)] gap-x-12 gap-y-8 lg:grid-cols-[minmax(0,752fr)_minmax(280px,416fr)]">
          <Coverage report={report} />
          <TimeFacts report={report} />
          <MutedBandBoard report={report} timeline={timeline} />
          <div className="hidden lg:block" />
          <PhrasesBoard report={report} timeline={timeline} />
        </div>
      </div>
    </Shell>
  );
}

const kindOf = (report: Report, index: number): string => `${report.changes[index]!.from}→${report.changes[index]!.to}`;

/** The beat a bar begins on; bars count from 1 through all choruses. */
function beatOfBar({ bars, formBeats }: ReturnType<typeof timelineOf>, throughBar: number): number {
  const chorus = Math.floor((throughBar - 1) / bars.length);
  return chorus * formBeats + bars[(throughBar - 1) % bars.length]!.start;
}

function placeText(timeline: ReturnType<typeof timelineOf>, beat: number, withBeat = false): string {
  if (beat < 0) return 'Before bar 1';
  const { chorus, bar, beatInBar } = placeOf(timeline, beat);
  return `Chorus ${chorus + 1}, bar ${bar + 1}${withBeat ? `, beat ${Math.floor(beatInBar + 0.1) + 1}` : ''}`;
}

type Keys = { toggle: () => void; step: (by: number) => void; close: () => void; hear: () => void; finding: (index: number) => void };

function useReviewKeys(keys: Keys): void {
  useEffect(() => {
    const on = (act: () => void) => (event: KeyboardEvent) => {
      if (event.target instanceof HTMLElement && event.target.closest('input, select, textarea, button, a')) return;
      event.preventDefault();
      act();
    };
    return tinykeys(window, {
      Space: on(keys.toggle), ArrowRight: on(() => keys.step(1)), ArrowLeft: on(() => keys.step(-1)), PageDown: on(() => keys.step(1)), PageUp: on(() => keys.step(-1)),
      Enter: on(keys.hear), Escape: () => keys.close(), 1: on(() => keys.finding(0)), 2: on(() => keys.finding(1)), 3: on(() => keys.finding(2)),
    });
  });
}

const PlaySign = ({ playing }: { playing: boolean }) => (
  <svg width={32} height={32} aria-hidden="true"><circle cx={16} cy={16} r={15} fill="var(--now)" stroke="var(--now)" strokeWidth={2} /><path d={playing ? 'M11 10h4v12h-4zM17 10h4v12h-4z' : 'M12.5 9.5 23 16 12.5 22.5z'} fill="var(--on)" /></svg>
);

