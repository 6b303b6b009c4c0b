'use client';
import { ladderWords, type Ladder, type Try } from '@/core/habit';
import type { RunOutcome } from '@/server/drills';
import type { TakeSession } from '@/audio/takeSession';
import { ChordSvg } from '@/ui/ChordSymbol';
import { chordWidth } from '@/ui/chordParts';
import { ruleWords } from '@/core/drill';
import { nowPlaying, type NowPlaying } from '@/ui/stage/nowPlaying';
import { Shell } from '../shell/Shell';
import { usePreferences } from '../shell/preferences';
import { aimOver, countedThing, passAt, type DrillStage } from './drillView';
import { LadderPicture } from './LadderPicture';
import { PassStrip } from './PassStrip';
import { useBeat, useLiveCount, useSessionState } from './useSitting';

type Props = {
  session: TakeSession; stage: DrillStage; ladder: Ladder; tries: readonly Try[]; before: RunOutcome | null; minutes: number; attempt: number; title: string;
  onStop: () => void; onTempo: (by: 1 | -1) => void;
};

/** The last attempt's result stays readable over so many beats of the next. */
const SAID_UNTIL = 8;

/** A running attempt: the chord now and next with what to play of it, how it goes, and the ladder. Quiet: a mark at each change, no sound, no red. */
export function LiveDrill({ session, stage, ladder, tries, before, minutes, attempt, title, onStop, onTempo }: Props) {
  const state = useSessionState(session);
  const beat = useBeat(session);
  const count = useLiveCount(session, stage, Math.min(beat, session.endBeat));
  const { restMinutes } = usePreferences();
  const { timeline, plan, size, drill } = stage;
  const at = Math.min(beat, session.endBeat - 0.001);
  const now = nowPlaying(timeline, plan, at);
  const words = ladderWords(ladder, tries, { met: size.pass, of: size.places });
  const waits = state.phase === 'opening' || state.phase === 'finishing' ? state.what : null;
  const thing = countedThing(drill);
  return (
    <Shell place="Drills" side={<><span className="hidden sm:inline">{title}</span><span>{passAt(stage, at)}</span></>} footer={
      <>
        <button type="button" aria-label="Stop the drill" onClick={onStop}><svg width={32} height={32} aria-hidden="true"><circle cx={16} cy={16} r={15} fill="none" stroke="var(--now)" strokeWidth={2} /><path d="M11 11h10v10h-10z" fill="var(--now)" /></svg></button>
        <b className="text-ink" role="status">{waits ?? (beat < 0 ? `Counting in at ${drill.tempo}` : `Attempt ${attempt} at ${drill.tempo}`)}</b>
        <span><span className="font-[640] text-now">press</span> stop</span>
        <button type="button" className="hidden hover:text-ink sm:inline" onClick={() => onTempo(1)}><kbd className="key">.</kbd> faster</button>
        <button type="button" className="hidden hover:text-ink sm:inline" onClick={() => onTempo(-1)}><kbd className="key">,</kbd> slower</button>
        <span className="ml-auto hidden md:inline">{minutes > 0 && <><b className="text-ink">{minutes} {minutes === 1 ? 'minute' : 'minutes'}</b> without a rest; </>}reminder at {restMinutes}</span>
      </>
    }>
      <div className="mx-4 grid grow gap-x-14 gap-y-4 pt-3 sm:mx-8 lg:grid-cols-[minmax(0,1fr)_328px]">
        <div className="min-w-0">
          <Sentence now={now} stage={stage} />
          <p className="mt-2 text-[24px] leading-9 text-soft sm:mt-5 sm:text-[32px] sm:leading-10" data-testid="so-far">
            {beat < 0 && before ? <><span className="text-dim">Before:</span> <b className="text-ink">{before.run.met} of {before.run.of}</b>{before.climb === 'up' ? `, up to ${drill.tempo}` : before.climb === 'down' ? `, a little slower: ${drill.tempo}` : before.run.passed ? ', passed' : ''}</>
              : count.of === 0 ? ruleWords(drill.rule) : <><b className="text-ink">{count.met} of {count.of}</b> {thing} so far{count.left > 0 && `, ${count.left} ${count.left === 1 ? 'change' : 'changes'} to come`}</>}
          </p>
        </div>
        <aside className="hidden min-w-0 lg:block">
          <LadderPicture ladder={ladder} tries={tries} thing={thing} of={size.places} running={beat < 0 ? null : count.met} />
          <p className="mt-3 text-xl leading-7 text-soft"><b className="text-ink">{words.bold}</b><br />{words.soft}</p>
        </aside>
        <div className="min-w-0 lg:col-span-2"><PassStrip stage={stage} places={count.places} beat={beat < 0 ? null : at} /></div>
        <p className="pb-4 text-[19px] leading-8 text-soft lg:col-span-2">{before && beat >= 0 && beat < SAID_UNTIL ? <><span className="text-dim">The attempt before:</span> <b className="text-ink">{before.run.met} of {before.run.of}</b>{before.run.passed ? ', passed.' : ', not yet.'} </> : null}The next attempt starts by itself after a bar of count-in. Keep your hands on the guitar.</p>
      </div>
    </Shell>
  );
}

const symbolOf = (chord: NowPlaying['now']): string => chord?.symbol ?? 'N.C.';
const fitted = (symbol: string, size: number, width: number): number => Math.min(size, width / chordWidth(symbol));

/** One sentence on one baseline: chord, beats until, next chord; under them the notes to play, or nothing where the rule names none. */
function Sentence({ now, stage }: { now: NowPlaying; stage: DrillStage }) {
  const counting = now.countIn !== null;
  const aims = [aimOver(stage, now.now), aimOver(stage, now.next)] as const;
  const label = (x: number, y: number, text: string) => <text x={x} y={y} fontSize={18} style={{ fill: 'var(--dim)' }}>{text}</text>;
  const aim = (x: number, words: string, names: readonly string[]) => <text x={x} y={296} fontSize={24} style={{ fill: 'var(--soft)' }}>{words} <tspan dx={6} fontSize={54} fontWeight={640} style={{ fill: 'var(--ink)' }}>{names.join(' ')}</tspan></text>;
  return (
    <svg viewBox="0 0 830 310" className="w-full max-w-[830px]" role="img" aria-label={counting ? `count-in ${now.countIn}, first ${symbolOf(now.next)}` : `${symbolOf(now.now)}, ${now.beatsUntil} beats until ${symbolOf(now.next)}`}>
      {label(0, 20, counting ? 'count-in' : 'now')}
      {counting ? <text x={-4} y={220} fontSize={236} fontWeight={640} style={{ fill: 'var(--now)' }}>{now.countIn}</text> : <ChordSvg x={-4} y={220} symbol={symbolOf(now.now)} size={fitted(symbolOf(now.now), 236, 310)} />}
      {!counting && label(336, 84, 'beats until')}
      {!counting && <text x={334} y={220} fontSize={now.beatsUntil > 9 ? 96 : 156} fontWeight={640} style={{ fill: 'var(--now)' }}>{now.beatsUntil}</text>}
      {label(500, 84, counting ? 'first' : 'next')}
      <ChordSvg x={496} y={220} symbol={symbolOf(now.next)} size={fitted(symbolOf(now.next), 156, 320)} fill="var(--soft)" />
      {aims[0] && !counting && aim(0, aims[0].words, aims[0].names)}
      {aims[1] && aim(500, counting ? 'begin on' : 'then', aims[1].names)}
    </svg>
  );
}
