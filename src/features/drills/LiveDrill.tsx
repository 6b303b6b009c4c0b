'use client';
import { ladderWords, type Ladder, type LadderTry } from '@/core/scheduling';
import type { RunOutcome } from '@/server/drills';
import type { TakeSession } from '@/audio/takeSession';
import { ChordSvg } from '@/ui/ChordSymbol';
import { RoundSign } from '@/ui/icons/RoundSign';
import { chordWidth } from '@/ui/chordParts';
import { ruleWords } from '@/core/drills';
import { nowPlaying, type NowPlaying } from '@/ui/stage/nowPlaying';
import { KeyOf } from '../shell/commands/KeyOf';
import { Shell } from '../shell/Shell';
import { usePreferences } from '../shell/preferences';
import { useBeat, useSession } from '../shell/useSession';
import { aimOver, countedThing, passAt, type DrillStage } from './drillView';
import { LadderPicture } from './LadderPicture';
import { PassStrip } from './PassStrip';
import { useLiveCount } from './useSitting';
import type { Rule } from '@/core/drills';
import type { LiveCount } from './drillView';

type Props = {
  session: TakeSession;
  stage: DrillStage;
  ladder: Ladder;
  tries: readonly LadderTry[];
  before: RunOutcome | null;
  minutes: number;
  attempt: number;
  title: string;
  onStop: () => void;
  onTempo: (by: 1 | -1) => void;
};

/** The last attempt's result stays readable over so many beats of the next. */
const SAID_UNTIL = 8;

/**
 * A running attempt: the chord now and next with what to play of it, how it goes, and the ladder. Quiet: a
 * mark at each change, no sound, no red.
 */
export function LiveDrill({
  session,
  stage,
  ladder,
  tries,
  before,
  minutes,
  attempt,
  title,
  onStop,
  onTempo,
}: Props) {
  const state = useSession(session);
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
    <Shell
      place="Drills"
      side={
        <>
          <span className="hidden sm:inline">{title}</span>
          <span>{passAt(stage, at)}</span>
        </>
      }
      footer={
        <>
          <button type="button" aria-label="Stop the drill" onClick={onStop}>
            <RoundSign name="stop" />
          </button>
          <b className="text-ink" role="status">
            {waits ?? (beat < 0 ? `Counting in at ${drill.tempo}` : `Attempt ${attempt} at ${drill.tempo}`)}
          </b>
          <span>
            <span className="font-[640] text-now">press</span> stop
          </span>
          <button type="button" className="hidden hover:text-ink sm:inline" onClick={() => onTempo(1)}>
            <KeyOf command="play.faster" /> faster
          </button>
          <button type="button" className="hidden hover:text-ink sm:inline" onClick={() => onTempo(-1)}>
            <KeyOf command="play.slower" /> slower
          </button>
          <span className="ml-auto hidden md:inline">
            {minutes > 0 && (
              <>
                <b className="text-ink">
                  {minutes} {minutes === 1 ? 'minute' : 'minutes'}
                </b>{' '}
                without a rest;{' '}
              </>
            )}
            reminder at {restMinutes}
          </span>
        </>
      }
    >
      <div className="mx-4 grid grow gap-x-14 gap-y-4 pt-3 sm:mx-8 lg:grid-cols-[minmax(0,1fr)_328px]">
        <div className="min-w-0">
          <div className="hidden sm:block">
            <Sentence now={now} stage={stage} />
          </div>
          <div className="sm:hidden">
            <PhoneSentence now={now} stage={stage} />
          </div>
          <p
            className="mt-2 text-[24px] leading-9 text-soft sm:mt-5 sm:text-[32px] sm:leading-10"
            data-testid="so-far"
          >
            {beat < 0 && before ? (
              <Before counted={before} tempo={drill.tempo} />
            ) : (
              <SoFar count={count} thing={thing} rule={drill.rule} />
            )}
          </p>
        </div>
        <aside className="hidden min-w-0 lg:block">
          <LadderPicture
            ladder={ladder}
            tries={tries}
            thing={thing}
            of={size.places}
            running={beat < 0 ? null : count.met}
          />
          <p className="mt-3 text-xl leading-7 text-soft">
            <b className="text-ink">{words.bold}</b>
            <br />
            {words.soft}
          </p>
        </aside>
        <div className="hidden min-w-0 sm:block lg:col-span-2">
          <PassStrip stage={stage} places={count.places} beat={beat < 0 ? null : at} />
        </div>
        <div className="min-w-0 sm:hidden">
          <PassStrip stage={stage} places={count.places} beat={beat < 0 ? null : at} narrow />
        </div>
        <p className="hidden pb-4 text-[19px] leading-8 text-soft sm:block lg:col-span-2">
          {before && beat >= 0 && beat < SAID_UNTIL ? (
            <>
              <span className="text-dim">The attempt before:</span>{' '}
              <b className="text-ink">
                {before.run.met} of {before.run.of}
              </b>
              {before.run.passed ? ', passed.' : ', not yet.'}{' '}
            </>
          ) : null}
          The next attempt starts by itself after a bar of count-in. Keep your hands on the guitar.
        </p>
      </div>
    </Shell>
  );
}

const symbolOf = (chord: NowPlaying['now']): string => chord?.symbol ?? 'N.C.';
const fitted = (symbol: string, size: number, width: number): number =>
  Math.min(size, width / chordWidth(symbol));

/**
 * One sentence on one baseline: chord, beats until, next chord; under them the notes to play, or nothing where
 * the rule names none.
 */
function Sentence({ now, stage }: { now: NowPlaying; stage: DrillStage }) {
  const counting = now.countIn !== null;
  const aims = [aimOver(stage, now.now), aimOver(stage, now.next)] as const;
  const label = (x: number, y: number, text: string) => (
    <text x={x} y={y} fontSize={18} style={{ fill: 'var(--dim)' }}>
      {text}
    </text>
  );
  const aim = (x: number, words: string, names: readonly string[]) => (
    <text x={x} y={296} fontSize={24} style={{ fill: 'var(--soft)' }}>
      {words}{' '}
      <tspan dx={6} fontSize={54} fontWeight={640} style={{ fill: 'var(--ink)' }}>
        {names.join(' ')}
      </tspan>
    </text>
  );
  return (
    <svg
      viewBox="0 0 830 310"
      className="w-full max-w-[830px]"
      role="img"
      aria-label={
        counting
          ? `count-in ${now.countIn}, first ${symbolOf(now.next)}`
          : `${symbolOf(now.now)}, ${now.beatsUntil} beats until ${symbolOf(now.next)}`
      }
    >
      {label(0, 20, counting ? 'count-in' : 'now')}
      {counting ? (
        <text x={-4} y={220} fontSize={236} fontWeight={640} style={{ fill: 'var(--now)' }}>
          {now.countIn}
        </text>
      ) : (
        <ChordSvg x={-4} y={220} symbol={symbolOf(now.now)} size={fitted(symbolOf(now.now), 236, 310)} />
      )}
      {!counting && label(336, 84, 'beats until')}
      {!counting && (
        <text
          x={334}
          y={220}
          fontSize={now.beatsUntil > 9 ? 96 : 156}
          fontWeight={640}
          style={{ fill: 'var(--now)' }}
        >
          {now.beatsUntil}
        </text>
      )}
      {label(500, 84, counting ? 'first' : 'next')}
      <ChordSvg
        x={496}
        y={220}
        symbol={symbolOf(now.next)}
        size={fitted(symbolOf(now.next), 156, 320)}
        fill="var(--soft)"
      />
      {aims[0] && !counting && aim(0, aims[0].words, aims[0].names)}
      {aims[1] && aim(500, counting ? 'begin on' : 'then', aims[1].names)}
    </svg>
  );
}

/** The same on a stand: the chord as wide as the phone, the count and the next chord under it. */
function PhoneSentence({ now, stage }: { now: NowPlaying; stage: DrillStage }) {
  const counting = now.countIn !== null;
  const aims = [aimOver(stage, now.now), aimOver(stage, now.next)] as const;
  const label = (x: number, y: number, text: string) => (
    <text x={x} y={y} fontSize={17} style={{ fill: 'var(--dim)' }}>
      {text}
    </text>
  );
  const names = (x: number, y: number, said: readonly string[] | undefined) => (
    <text x={x} y={y} fontSize={46} fontWeight={640}>
      {said?.join(' ')}
    </text>
  );
  return (
    <svg
      viewBox="0 0 358 430"
      className="w-full"
      role="img"
      aria-label={
        counting
          ? `count-in ${now.countIn}, first ${symbolOf(now.next)}`
          : `${symbolOf(now.now)}, ${now.beatsUntil} beats until ${symbolOf(now.next)}`
      }
    >
      {label(0, 16, counting ? 'count-in' : 'now')}
      {counting ? (
        <text x={-4} y={148} fontSize={168} fontWeight={640} style={{ fill: 'var(--now)' }}>
          {now.countIn}
        </text>
      ) : (
        <ChordSvg x={-4} y={148} symbol={symbolOf(now.now)} size={fitted(symbolOf(now.now), 168, 350)} />
      )}
      {aims[0] && !counting && (
        <>
          {label(0, 200, aims[0].words)}
          {names(aims[0].words.length * 8.2 + 8, 206, aims[0].names)}
        </>
      )}
      {!counting && label(0, 252, 'beats')}
      {!counting && (
        <text
          x={-2}
          y={348}
          fontSize={now.beatsUntil > 9 ? 76 : 108}
          fontWeight={640}
          style={{ fill: 'var(--now)' }}
        >
          {now.beatsUntil}
        </text>
      )}
      {label(110, 252, counting ? 'first' : 'next')}
      <ChordSvg
        x={108}
        y={348}
        symbol={symbolOf(now.next)}
        size={fitted(symbolOf(now.next), 108, 240)}
        fill="var(--soft)"
      />
      {aims[1] && (
        <>
          {label(110, 398, counting ? 'begin on' : 'then')}
          {names(counting ? 192 : 156, 404, aims[1].names)}
        </>
      )}
    </svg>
  );
}

/** What came of the attempt before this one. */
function Before({ counted: { run, climb }, tempo }: { counted: RunOutcome; tempo: number }) {
  let words = run.passed ? ', passed' : '';
  if (climb === 'up') words = `, up to ${tempo}`;
  if (climb === 'down') words = `, a little slower: ${tempo}`;
  return (
    <>
      <span className="text-dim">Before:</span>{' '}
      <b className="text-ink">
        {run.met} of {run.of}
      </b>
      {words}
    </>
  );
}

/** What was met so far; before the first change, what is to be met. */
function SoFar({ count, thing, rule }: { count: LiveCount; thing: string; rule: Rule }) {
  if (count.of === 0) return ruleWords(rule);
  return (
    <>
      <b className="text-ink">
        {count.met} of {count.of}
      </b>{' '}
      {thing} so far
      {count.left > 0 && `, ${count.left} ${count.left === 1 ? 'change' : 'changes'} to come`}
    </>
  );
}
