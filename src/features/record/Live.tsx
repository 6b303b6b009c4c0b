'use client';
import { busyWords } from '@/presentation';
import { useCallback, useEffect, useMemo, useState } from 'react';
import { planFromWords } from '@/core/plan';
import { unwrap, elementAt } from '@/core/shared';
import type { TakeSession } from '@/audio/takeSession';
import type { SessionState } from '@/audio/sessionState';
import type { AudioInput } from '@/audio/input/audioInput';
import { KeyOf } from '../shell/commands/KeyOf';
import { LevelBar } from '../shell/DeviceChooser';
import { HELP, usePreferences } from '../shell/preferences';
import { Shell } from '../shell/Shell';
import { useLevel } from '../shell/useRig';
import { useWakeLock } from '../shell/useWakeLock';
import { everyFrame, useBeat } from '../shell/useSession';
import type { Settings } from './settings';
import { Stage } from './Stage';
import { RoundSign } from '@/ui/icons/RoundSign';
import { ChordWords } from '@/ui/ChordWords';
import type { Result } from './Finished';
import { useLiveLine } from './useLiveLine';
import type { Safety, StorageTrouble } from '@/audio/persistence/takeKeeper';

type Props = {
  session: TakeSession;
  state: SessionState;
  settings: Settings;
  rig: AudioInput;
  title: string;
  /** What the take before this one said. */ before: Result | null;
};

/** The last take's result stays readable over so many beats of the next. */
const SAID_UNTIL = 8;

/**
 * The stage while a take runs. Drawn anew once a beat, its meter ten times a second, only the cursor for every
 * frame.
 */
export function Live({ session, state, settings, rig, title, before }: Props) {
  useWakeLock();
  const { chart, choruses, pace } = session.route;
  const { help, position } = usePreferences();
  const beat = useBeat(session);
  const plan = useMemo(() => unwrap(planFromWords(settings.plan)), [settings.plan]);
  const follow = useCallback(
    (draw: (beat: number) => void) =>
      everyFrame(() => draw(Math.min(session.position(), session.endBeat - 0.001))),
    [session],
  );
  const line = useLiveLine(session, plan);
  const waits = busyWords(state.phase);
  const tempi =
    pace.tempi.length > 1 ? `${pace.tempi[0]} to ${pace.tempi[pace.tempi.length - 1]}` : pace.tempi[0];
  return (
    <Shell
      place="Record"
      side={
        <span className="hidden sm:inline">
          {title} · {tempi}
        </span>
      }
      footer={
        <>
          <button type="button" aria-label="Stop and keep the take" onClick={() => void session.stop(false)}>
            <RoundSign name="stop" />
          </button>
          <b className="text-ink" role="status">
            {waits ?? (beat < 0 ? 'Counting in' : 'Recording')}
          </b>
          <span>
            <span className="font-[640] text-now">press</span> stop and keep
          </span>
          <span className="hidden sm:inline">
            <span className="font-[640] text-now">hold</span> throw it away
          </span>
          <span className="hidden md:inline">
            <KeyOf command="play.help" /> {help === 0 ? 'hide help' : `help: ${HELP[help]}`}
          </span>
          <Meter rig={rig} />
          <Safe session={session} />
          <Latency session={session} />
        </>
      }
    >
      {before?.landing && beat < SAID_UNTIL && (
        <p role="status" className="mx-4 -mb-8 text-[19px] leading-8 text-soft sm:mx-8">
          <span className="text-dim">Take {before.number}:</span> <ChordWords text={before.landing.soft} />{' '}
          <b className="text-ink">
            <ChordWords text={before.landing.bold} />
          </b>
        </p>
      )}
      <Worry rig={rig} running={state.phase === 'running' && beat > 4} />
      <Stage
        chart={chart}
        tempo={elementAt(pace.tempi, 0)}
        choruses={choruses}
        plan={plan}
        beat={Math.min(beat, session.endBeat - 0.001)}
        follow={follow}
        line={line}
        help={help}
        position={position}
      />
    </Shell>
  );
}

/** What would spoil the take, said while it can still be mended. */
function Worry({ rig, running }: { rig: AudioInput; running: boolean }) {
  const { highest, clipped } = useLevel(rig);
  if (!running) return null;
  const words = levelWarning(highest, clipped);
  return (
    words && (
      <p role="alert" className="mx-4 border-l-[3px] border-now pl-4 text-xl text-ink sm:mx-8">
        {words}
      </p>
    )
  );
}

function Meter({ rig }: { rig: AudioInput }) {
  const { level, clipped } = useLevel(rig);
  return (
    <span className="ml-auto flex items-center gap-2.5">
      <span className="hidden sm:inline">input</span>{' '}
      <span className="w-24 sm:w-[120px]">
        <LevelBar level={level} clipped={clipped > 0} width={120} />
      </span>{' '}
      <span className="hidden w-20 text-right sm:inline">
        {level <= -100 ? 'silent' : `${String(level).replace('-', '−')} dBFS`}
      </span>
    </span>
  );
}

const LOOK_MS = 500;
const SAID_FROM_SECONDS = 3;

const HALTED = 'The browser has stopped the sound, and the band with it. Click anywhere to go on.';

/** Where the sound is, when it is not yet where it should be. */
function Safe({ session }: { session: TakeSession }) {
  const [words, setWords] = useState<string | null>(null);
  useEffect(() => {
    const timer = setInterval(() => {
      const safety = session.safety;
      setWords(session.isHalted ? HALTED : safetyWords(session.bandFailed, safety));
    }, LOOK_MS);
    return () => clearInterval(timer);
  }, [session]);
  return (
    words && (
      <span role="status" className="basis-full text-ink sm:basis-auto">
        {words}
      </span>
    )
  );
}

/** The delay that is counted, and, for whoever asks, how long after its sound 19 notes of 20 were drawn. */
function Latency({ session }: { session: TakeSession }) {
  const [drawn, setDrawn] = useState<number | null>(null);
  const [kept, setKept] = useState({ late: 0, gaps: 0, ahead: '' });
  useEffect(() => {
    const timer = setInterval(() => {
      const punctual = session.punctuality;
      setKept({
        late: punctual?.late ?? 0,
        gaps: session.gaps,
        ahead: punctual && Number.isFinite(punctual.leastAhead) ? punctual.leastAhead.toFixed(2) : '',
      });
      const sorted = [...session.drawnAfter].sort((a, b) => a - b);
      setDrawn(
        sorted.length < 5
          ? null
          : Math.round(elementAt(sorted, Math.floor(0.95 * (sorted.length - 1))) * 1000),
      );
    }, LOOK_MS);
    return () => clearInterval(timer);
  }, [session]);
  const { seconds, measured } = session.latency;
  const words = drawn === null ? undefined : `19 notes of 20 are drawn within ${drawn} ms of their sound`;
  return (
    <span
      className="hidden lg:inline"
      title={words}
      data-drawn-ms={drawn ?? undefined}
      data-late={kept.late}
      data-gaps={kept.gaps}
      data-ahead={kept.ahead}
    >
      Latency {Math.round(seconds * 1000)} ms, {measured ? 'measured' : 'not measured'}
    </span>
  );
}

function levelWarning(highest: number, clipped: number) {
  if (highest < -60)
    return 'Nothing comes in. Look at the volume, the lead and the chosen input; the take can still be stopped.';
  if (clipped > 3) return 'Too loud: the tops of the notes are cut off. Turn the gain down.';
  return null;
}

const STORAGE_WORDS: Record<StorageTrouble, string> = {
  full: 'This browser’s storage is full',
  closed: 'This browser stores nothing for this page',
};

/** What the player must know about where the take is stored; null where all is well. */
function safetyWords(bandFailed: boolean, safety: Safety | null): string | null {
  if (bandFailed) return 'The band stopped: it could not be computed further. The take goes on.';
  if (!safety) return null;
  const { refused, storageTrouble, waitingSeconds } = safety;
  if (refused) return `${refused} Recording goes on in this browser.`;
  const waits = waitingSeconds >= SAID_FROM_SECONDS;
  if (waits && storageTrouble) {
    const seconds = Math.round(waitingSeconds);
    return `${STORAGE_WORDS[storageTrouble]} and the server is away: ${seconds} s are in memory only. Stop soon.`;
  }
  if (waits) return 'The server is away; recording goes on here and catches up.';
  return storageTrouble && `${STORAGE_WORDS[storageTrouble]}; the server keeps the take.`;
}
