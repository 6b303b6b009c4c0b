'use client';
import Link from 'next/link';
import { useRouter } from 'next/navigation';
import { useEffect, useMemo, useState } from 'react';
import { ruleWords } from '@/core/drills';
import { ladderWords, sinceArrival, type LadderTry } from '@/core/scheduling';
import type { StoredDrill, StoredRun } from '@/server/drillRows';
import { ChordWords } from '@/ui/ChordWords';
import { NumberSetting, Setting } from '@/ui/Field';
import { typeset } from '@/core/findings';
import { Cautions } from '../shell/Cautions';
import { DeviceChooser } from '../shell/DeviceChooser';
import { NoInput } from '../shell/NoInput';
import { prefer, preferences, usePreferences } from '../shell/preferences';
import { Shell } from '../shell/Shell';
import { useKeys } from '../shell/useKeys';
import type { Keys } from '../shell/pedal';
import { useRest } from '../shell/useRest';
import { useRigState } from '../shell/useRig';
import { Waiting } from '../shell/Waiting';
import { changeDrill, takeUp } from './drillServer';
import { countedThing, sittingWords, stageOf } from './drillView';
import { Example } from './Example';
import { LadderPicture } from './LadderPicture';
import { LiveDrill } from './LiveDrill';
import { useSitting } from './useSitting';
import { elementAt } from '@/core/shared';

export type NextDrill = { readonly id: string; readonly name: string; readonly title: string };
type Props = {
  drill: StoredDrill;
  runs: readonly StoredRun[];
  /** What is due after this one. */ next: NextDrill | null;
  /** First and last attempt that can be heard. */ ends: readonly [string, string] | null;
  /** Begins at once: it was chosen on another screen by the key that starts it. */ begins?: boolean;
};

/** One drill: what to do and why, an attempt after the other, and what it came to. */
export function DrillScreen({ drill: first, runs, next, ends, begins = false }: Props) {
  const router = useRouter();
  const prefs = usePreferences();
  const { drill, setDrill, standIn, setStandIn, runner, state, rig } = useSitting(first);
  const { scene, session, counted, before, trouble } = state;
  const rigState = useRigState(rig);
  const rest = useRest(scene === 'live');
  const [failed, setFailed] = useState<string | null>(null);
  const tempo = elementAt(drill.ladder.rungs, drill.ladder.at);
  const stage = useMemo(() => stageOf(drill.drill, tempo), [drill.drill, tempo]);
  const tries: readonly LadderTry[] = useMemo(
    () => [...runs, ...[...before, ...counted].map(({ outcome }) => outcome.run)],
    [runs, before, counted],
  );
  const start = () => void runner.start();
  useEffect(() => {
    // a page that was loaded anew has no key that was pressed: sound would stay silent
    if (!begins || !navigator.userActivation?.hasBeenActive) return;
    const timer = setTimeout(() => void runner.start(), 30);
    window.history.replaceState(null, '', window.location.pathname);
    return () => clearTimeout(timer);
  }, [begins, runner]);
  const change = (body: Parameters<typeof changeDrill>[1]) => {
    setFailed(null);
    void changeDrill(drill.id, body)
      .then(setDrill)
      .catch((error: Error) => setFailed(error.message));
  };
  const toTempo = (by: 1 | -1) => {
    const wanted =
      drill.ladder.rungs[drill.ladder.at + by] ?? (by < 0 ? Math.max(40, Math.round(tempo * 0.9)) : null);
    if (wanted === null) return;
    void changeDrill(drill.id, { tempo: wanted })
      .then((changed) => {
        setDrill(changed);
        runner.again();
      })
      .catch((error: Error) => setFailed(error.message));
  };
  const openNext = () => router.push(next ? `/drills/${next.id}?go=1` : '/');
  const keys = (): Keys => {
    switch (scene) {
      case 'ready':
        return { press: start, hold: () => router.push('/') };
      case 'done':
        return { press: openNext, hold: start };
      case 'live':
      case 'counting':
        return {
          press: () => runner.stop(),
          hold: () => runner.stop(),
          faster: () => toTempo(1),
          slower: () => toTempo(-1),
          louder: () => level(1),
          quieter: () => level(-1),
        };
      case 'waiting':
        return { press: () => session?.startAllTheSame(), hold: () => runner.stop() };
      case 'no-input':
        return {
          press: start,
          hold: () => runner.stop(),
          double: () => {
            prefer({ device: { kind: 'stand-in', character: 'steady', delayMs: 0 } });
            start();
          },
        };
    }
  };
  useKeys(keys());

  if (scene === 'no-input') {
    return (
      <NoInput
        trouble={rigState.phase === 'trouble' ? rigState.trouble : 'busy'}
        title={drill.drill.name}
        onAgain={start}
        onDevice={(deviceId) => {
          prefer({ device: { kind: 'input', deviceId, channel: 'mix' } });
          start();
        }}
        onStandIn={() => {
          prefer({ device: { kind: 'stand-in', character: 'steady', delayMs: 0 } });
          start();
        }}
        onBack={() => runner.stop()}
      />
    );
  }
  if (scene === 'waiting' && session)
    return (
      <Waiting
        rig={rig}
        title={drill.drill.name}
        onChannel={(channel) => {
          const { device } = preferences();
          if (device.kind === 'input') {
            prefer({ device: { ...device, channel } });
            void rig.open({ ...device, channel });
          }
        }}
        onStart={() => session.startAllTheSame()}
        onBack={() => runner.stop()}
      />
    );
  if ((scene === 'live' || scene === 'counting') && session) {
    return (
      <LiveDrill
        key={session.id}
        session={session}
        stage={stage}
        ladder={drill.ladder}
        tries={tries}
        before={counted[counted.length - 1]?.outcome ?? null}
        minutes={rest.minutes}
        attempt={sinceArrival(drill.ladder, tries).length + 1}
        title={drill.title}
        onStop={() => runner.stop()}
        onTempo={toTempo}
      />
    );
  }
  const last = counted[counted.length - 1]?.outcome ?? null;
  const said =
    scene === 'done'
      ? sittingWords(
          counted.map(({ outcome }) => outcome.run),
          last?.climb ?? null,
          drill.ladder,
        )
      : null;
  const words = ladderWords(drill.ladder, tries, { met: stage.size.pass, of: stage.size.places });
  const worry = trouble ?? failed ?? (scene === 'counting' ? 'Counting what was met.' : null);
  const afterwards = next ? 'the next one due' : 'to Today';
  return (
    <Shell
      place="Drills"
      side={
        <span className="hidden md:inline">
          {drill.title} · bars {drill.drill.span[0]}–{drill.drill.span[1]}
        </span>
      }
      footer={
        <>
          <span>
            <span className="font-[640] text-now">press</span>{' '}
            {scene === 'done' ? afterwards : 'start, hands free from here'}
          </span>
          <span>
            <span className="font-[640] text-now">hold</span>{' '}
            {scene === 'done' ? 'once more' : 'back to Today'}
          </span>
          <span className="hidden sm:inline">
            while it runs: <kbd className="key">.</kbd> faster <kbd className="key">,</kbd> slower
          </span>
          <span className="sm:ml-auto">
            {rest.minutes > 0 && `${rest.minutes} minutes without a rest; `}reminder at {prefs.restMinutes}
          </span>
        </>
      }
    >
      <Cautions rest={rest} />
      <div className="mx-4 grid gap-x-14 gap-y-8 pt-4 pb-8 sm:mx-8 lg:grid-cols-[minmax(0,1fr)_328px]">
        <div className="min-w-0">
          {said ? (
            <div role="status">
              <h1 className="text-[25px] leading-8 sm:text-[44px] sm:leading-[54px]">
                <span className="text-soft">{said.soft}</span>
                <br />
                <b>
                  <ChordWords text={said.bold} />
                </b>
              </h1>
            </div>
          ) : (
            <>
              <p className="text-xl text-soft">
                {drill.title}, bars {drill.drill.span[0]}–{drill.drill.span[1]}
              </p>
              <h1 className="text-[40px] leading-[46px] font-[640] tracking-tight sm:text-[64px] sm:leading-[72px]">
                <ChordWords text={typeset(drill.drill.name)} /> at {tempo}
              </h1>
            </>
          )}
          <p className="mt-2 max-w-[760px] text-xl leading-8 text-soft">
            <b className="text-ink">{ruleWords(drill.drill.rule)}</b> {drill.drill.reason}
          </p>
          {said && (
            <p className="mt-1 text-lg text-soft">
              It comes back {whenWords(drill.dueAt)}.
              {next && (
                <>
                  {' '}
                  Next:{' '}
                  <b className="text-ink">
                    <ChordWords text={typeset(next.name)} />
                  </b>
                  , {next.title}.
                </>
              )}
            </p>
          )}
          {!said && drill.origin && (
            <p className="mt-1 max-w-[760px] text-[15px] leading-6 text-dim">
              From{' '}
              <Link className="underline hover:text-ink" href={`/takes/${drill.origin.takeId}`}>
                take {drill.origin.take}
              </Link>
              : <ChordWords text={typeset(drill.origin.sentence)} />
            </p>
          )}
          <div className="mt-5 flex flex-wrap items-center gap-4">
            {said && next ? (
              <button type="button" className="go text-xl" onClick={openNext}>
                The next one
              </button>
            ) : (
              <button type="button" className="go flex items-center gap-4 text-xl" onClick={start}>
                {said ? 'Once more' : 'Start'}{' '}
                <span className="text-base font-[560]">{said ? 'hold' : 'Space'}</span>
              </button>
            )}
            {said && next && (
              <button type="button" className="quiet" onClick={start}>
                Once more
              </button>
            )}
            <span className="text-lg text-soft">
              {stage.size.passes} {stage.size.passes === 1 ? 'pass' : 'passes'} an attempt, about{' '}
              {minutesOf(stage.size.seconds)} in all
            </span>
          </div>
          {worry && (
            <p
              role="alert"
              className="mt-4 max-w-[760px] border-l-[3px] border-now py-1 pl-4 text-lg text-ink"
            >
              {worry}
            </p>
          )}
          <div className="mt-7">
            <Example key={tempo} stage={stage} />
          </div>
        </div>
        <aside className="min-w-0">
          <LadderPicture
            ladder={drill.ladder}
            tries={tries}
            thing={countedThing(drill.drill)}
            of={stage.size.places}
          />
          <p className="mt-3 text-xl leading-7 text-soft">
            <b className="text-ink">{words.bold}</b>
            <br />
            {words.soft}
          </p>
          <section className="mt-6 border-t border-line pt-2" aria-label="How it climbs">
            <h2 className="heading">How it climbs</h2>
            <NumberSetting
              name="Goal"
              value={elementAt(drill.ladder.rungs, drill.ladder.rungs.length - 1)}
              low={40}
              high={320}
              onChange={(goal) => change({ goal })}
            />
            <NumberSetting
              name="Now at"
              value={tempo}
              low={40}
              high={320}
              onChange={(wanted) => change({ tempo: wanted })}
            />
            <NumberSetting
              name="Up after"
              value={drill.ladder.up}
              low={1}
              high={5}
              unit="passes in a row"
              onChange={(up) => change({ up })}
            />
            <NumberSetting
              name="Down after"
              value={drill.ladder.down}
              low={1}
              high={5}
              unit="misses in a row"
              onChange={(down) => change({ down })}
            />
            <Setting name="Another key">
              <select
                className="field w-full !py-1 font-[580] text-ink"
                aria-label="Another key"
                value="0"
                onChange={(event) =>
                  void takeUp({ drillId: drill.id, by: Number(event.target.value) })
                    .then(({ id }) => router.push(`/drills/${id}`))
                    .catch((error: Error) => setFailed(error.message))
                }
              >
                <option value="0">as it is</option>
                {KEYS.map(([by, words]) => (
                  <option key={by} value={by}>
                    {words}
                  </option>
                ))}
              </select>
            </Setting>
          </section>
          <section className="mt-5 border-t border-line pt-2" aria-label="You">
            <h2 className="heading">You</h2>
            <DeviceChooser rig={rig} />
            {prefs.device.kind === 'stand-in' && (
              <p
                className="mt-1 flex flex-wrap gap-x-4 text-soft"
                role="radiogroup"
                aria-label="The stand-in player"
              >
                {(['plays', 'misses'] as const).map((one) => (
                  <label key={one} className="flex items-center gap-1.5">
                    <input
                      type="radio"
                      name="stand-in"
                      checked={standIn === one}
                      onChange={() => setStandIn(one)}
                    />
                    {one === 'plays' ? 'it plays the example' : 'it misses on purpose'}
                  </label>
                ))}
              </p>
            )}
          </section>
          {ends && (
            <p className="mt-5 border-t border-line pt-3 text-soft">
              Hear{' '}
              <Link className="underline hover:text-ink" href={`/takes/${ends[0]}`}>
                the first attempt
              </Link>{' '}
              and{' '}
              <Link className="underline hover:text-ink" href={`/takes/${ends[1]}`}>
                the latest
              </Link>
              .
            </p>
          )}
          <p className="mt-5">
            <button type="button" className="quiet" onClick={() => change({ away: !drill.away })}>
              {drill.away ? 'Take it up again' : 'Put it away'}
            </button>{' '}
            {drill.away && <span className="ml-2 text-dim">It does not come back by itself.</span>}
          </p>
        </aside>
      </div>
    </Shell>
  );
}

/** Where a drill may go: round in fourths first, as it is practised. */
const KEYS: readonly (readonly [number, string])[] = [
  [5, 'a fourth up'],
  [-5, 'a fourth down'],
  [1, 'a half step up'],
  [-1, 'a half step down'],
  [2, 'a whole step up'],
  [-2, 'a whole step down'],
  [3, 'a minor third up'],
  [-3, 'a minor third down'],
  [4, 'a major third up'],
  [-4, 'a major third down'],
  [6, 'a tritone away'],
];

const level = (by: 1 | -1): void =>
  prefer({ bandLevel: Math.max(0, Math.min(1, Math.round(preferences().bandLevel * 20 + by) / 20)) });

/** Four attempts or so, with their counts and results between. */
const minutesOf = (seconds: number): string => {
  const minutes = Math.max(2, Math.min(5, Math.round(((seconds + 6) * 4) / 60)));
  return `${minutes} minutes`;
};

const DAY_MS = 86_400_000;
function whenWords(at: number): string {
  const days = Math.round((at - Date.now()) / DAY_MS);
  if (days <= 0) return 'today';
  if (days === 1) return 'tomorrow';
  if (days < 7) return `on ${new Date(at).toLocaleDateString('en-GB', { weekday: 'long' })}`;
  return `in ${days} days`;
}
