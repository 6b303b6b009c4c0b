'use client';
import { busyWords } from '@/presentation';
import type { Rule } from '@/core/drills';
import { ruleWords } from '@/core/drills';
import { ladderWords, type Ladder, type LadderTry } from '@/core/scheduling';
import type { RunOutcome } from '@/server/drills';
import type { TakeSession } from '@/audio/takeSession';
import { RoundSign } from '@/ui/icons/RoundSign';
import { nowPlaying } from '@/ui/stage/nowPlaying';
import { KeyOf } from '../shell/commands/KeyOf';
import { usePreferences } from '../shell/preferences';
import { Shell } from '../shell/Shell';
import { useBeat, useSession } from '../shell/useSession';
import { useWakeLock } from '../shell/useWakeLock';
import { countedThing, passAt, type DrillStage, type LiveCount } from './drillView';
import { LadderPicture } from './LadderPicture';
import { LiveSentence, PhoneSentence } from './LiveSentence';
import { PassStrip } from './PassStrip';
import { useLiveCount } from './useSitting';

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
export function LiveDrill(props: Props) {
  useWakeLock();
  const { session, stage, before, title } = props;
  const beat = useBeat(session);
  const count = useLiveCount(session, stage, Math.min(beat, session.endBeat));
  const { timeline, plan, drill } = stage;
  const at = Math.min(beat, session.endBeat - 0.001);
  const now = nowPlaying(timeline, plan, at);
  const isCountIn = beat < 0;
  const cursor = isCountIn ? null : at;
  return (
    <Shell
      place="Drills"
      side={
        <>
          <span className="hidden sm:inline">{title}</span>
          <span>{passAt(stage, at)}</span>
        </>
      }
      footer={<Footer {...props} isCountIn={isCountIn} />}
    >
      <div className="mx-4 grid grow gap-x-14 gap-y-4 pt-3 sm:mx-8 lg:grid-cols-[minmax(0,1fr)_328px]">
        <div className="min-w-0">
          <div className="hidden sm:block">
            <LiveSentence now={now} stage={stage} />
          </div>
          <div className="sm:hidden">
            <PhoneSentence now={now} stage={stage} />
          </div>
          <p
            className="mt-2 text-[24px] leading-9 text-soft sm:mt-5 sm:text-[32px] sm:leading-10"
            data-testid="so-far"
          >
            {isCountIn && before ? (
              <Before counted={before} tempo={drill.tempo} />
            ) : (
              <SoFar count={count} thing={countedThing(drill)} rule={drill.rule} />
            )}
          </p>
        </div>
        <LadderSide {...props} running={isCountIn ? null : count.met} />
        <div className="hidden min-w-0 sm:block lg:col-span-2">
          <PassStrip stage={stage} places={count.places} beat={cursor} />
        </div>
        <div className="min-w-0 sm:hidden">
          <PassStrip stage={stage} places={count.places} beat={cursor} narrow />
        </div>
        <p className="hidden pb-4 text-[19px] leading-8 text-soft sm:block lg:col-span-2">
          {before && !isCountIn && beat < SAID_UNTIL && <LastAttempt run={before.run} />}
          The next attempt starts by itself after a bar of count-in. Keep your hands on the guitar.
        </p>
      </div>
    </Shell>
  );
}

type FooterProps = Props & { isCountIn: boolean };

function Footer({ session, stage, minutes, attempt, onStop, onTempo, isCountIn }: FooterProps) {
  const state = useSession(session);
  const { restMinutes } = usePreferences();
  const { tempo } = stage.drill;
  const waits = busyWords(state.phase);
  return (
    <>
      <button type="button" aria-label="Stop the drill" onClick={onStop}>
        <RoundSign name="stop" />
      </button>
      <b className="text-ink" role="status">
        {waits ?? (isCountIn ? `Counting in at ${tempo}` : `Attempt ${attempt} at ${tempo}`)}
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
  );
}

function LadderSide({ stage, ladder, tries, running }: Props & { running: number | null }) {
  const { size, drill } = stage;
  const words = ladderWords(ladder, tries, { met: size.pass, of: size.places });
  return (
    <aside className="hidden min-w-0 lg:block">
      <LadderPicture
        ladder={ladder}
        tries={tries}
        thing={countedThing(drill)}
        of={size.places}
        running={running}
      />
      <p className="mt-3 text-xl leading-7 text-soft">
        <b className="text-ink">{words.bold}</b>
        <br />
        {words.soft}
      </p>
    </aside>
  );
}

const LastAttempt = ({ run }: { run: RunOutcome['run'] }) => (
  <>
    <span className="text-dim">The attempt before:</span>{' '}
    <b className="text-ink">
      {run.met} of {run.of}
    </b>
    {run.passed ? ', passed.' : ', not yet.'}{' '}
  </>
);

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
