'use client';
import { differenceInCalendarDays } from 'date-fns';
import type { Dates } from '@/presentation';
import { useDates } from '@/ui/dates';
import Link from 'next/link';
import { ruleWords } from '@/core/drills';
import { typeset } from '@/core/music';
import { ladderWords } from '@/core/scheduling';
import { ChordWords } from '@/ui/ChordWords';
import { Cautions } from '../shell/Cautions';
import { KeyOf } from '../shell/commands/KeyOf';
import { usePreferences } from '../shell/preferences';
import { Shell } from '../shell/Shell';
import { DrillSettings } from './DrillSettings';
import { countedThing, sittingWords } from './drillView';
import { Example } from './Example';
import { LadderPicture } from './LadderPicture';
import type { DrillModel } from './useDrillModel';

type Props = { model: DrillModel; ends: readonly [string, string] | null };

/** A drill before and after a sitting: what to play, how, why, and how far it has come. */
export function DrillSheet({ model, ends }: Props) {
  const { drill, rest, stage, tempo, tries, trouble } = model;
  const words = ladderWords(drill.ladder, tries, { met: stage.size.pass, of: stage.size.places });
  return (
    <Shell place="Drills" footer={<Footer model={model} />}>
      <Cautions rest={rest} />
      <div className="mx-4 grid gap-x-14 gap-y-8 pt-4 pb-8 sm:mx-8 lg:grid-cols-[minmax(0,1fr)_328px]">
        <div className="min-w-0">
          <Heading model={model} />
          <Start model={model} />
          {trouble && (
            <p
              role="alert"
              className="mt-4 max-w-[760px] border-l-[3px] border-now py-1 pl-4 text-lg text-ink"
            >
              {trouble}
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
          <DrillSettings model={model} ends={ends} />
        </aside>
      </div>
    </Shell>
  );
}

const isDone = ({ scene }: DrillModel): boolean => scene === 'done';

function Footer({ model }: { model: DrillModel }) {
  const { rest, next } = model;
  const { restMinutes } = usePreferences();
  const afterwards = next ? 'the next drill due' : 'to Today';
  return (
    <>
      <span>
        <span className="font-[640] text-now">press</span>{' '}
        {isDone(model) ? afterwards : 'start, hands free from here'}
      </span>
      <span>
        <span className="font-[640] text-now">hold</span> {isDone(model) ? 'once more' : 'back to Today'}
      </span>
      <span className="hidden sm:inline">
        while it runs: <KeyOf command="play.faster" /> faster <KeyOf command="play.slower" /> slower
      </span>
      <span className="sm:ml-auto">
        {rest.minutes > 0 && `${rest.minutes} minutes without a rest; `}reminder at {restMinutes}
      </span>
    </>
  );
}

/** What the sitting came to, or what is to be played; the rule and its reason. */
function Heading({ model }: { model: DrillModel }) {
  const { drill, tempo, state, last } = model;
  const { rule, reason, name, span } = drill.drill;
  const runs = state.counted.map(({ outcome }) => outcome.run);
  const said = isDone(model) ? sittingWords(runs, last?.climb ?? null, drill.ladder) : null;
  return (
    <>
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
            {drill.title}, bars {span[0]}–{span[1]}
          </p>
          <h1 className="text-[40px] leading-[46px] font-[640] tracking-tight sm:text-[64px] sm:leading-[72px]">
            <ChordWords text={typeset(name)} /> at {tempo}
          </h1>
        </>
      )}
      <p className="mt-2 max-w-[760px] text-xl leading-8 text-soft">
        <b className="text-ink">{ruleWords(rule)}</b> {reason}
      </p>
      {said ? <ComesBack model={model} /> : <Origin model={model} />}
    </>
  );
}

function ComesBack({ model: { drill, next } }: { model: DrillModel }) {
  const dates = useDates();
  return (
    <p className="mt-1 text-lg text-soft">
      It comes back {whenWords(drill.dueAt, dates)}.
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
  );
}

function Origin({ model: { drill } }: { model: DrillModel }) {
  const { origin } = drill;
  if (!origin) return null;
  return (
    <p className="mt-1 max-w-[760px] text-[15px] leading-6 text-dim">
      From{' '}
      <Link className="underline hover:text-ink" href={`/takes/${origin.takeId}`}>
        take {origin.take}
      </Link>
      : <ChordWords text={typeset(origin.sentence)} />
    </p>
  );
}

function Start({ model }: { model: DrillModel }) {
  const { next, start, openNext, stage } = model;
  const { passes, seconds } = stage.size;
  const done = isDone(model);
  return (
    <div className="mt-5 flex flex-wrap items-center gap-4">
      {done && next ? (
        <>
          <button type="button" className="go text-xl" onClick={openNext}>
            The next one
          </button>
          <button type="button" className="quiet" onClick={start}>
            Once more
          </button>
        </>
      ) : (
        <button type="button" className="go flex items-center gap-4 text-xl" onClick={start}>
          {done ? 'Once more' : 'Start'}{' '}
          <span className="text-base font-[560]">{done ? 'hold' : 'Space'}</span>
        </button>
      )}
      <span className="text-lg text-soft">
        {passes} {passes === 1 ? 'pass' : 'passes'} an attempt, about {minutesOf(seconds)} in all
      </span>
    </div>
  );
}

/** Four attempts or so, with their counts and results between. */
const minutesOf = (seconds: number): string => {
  const minutes = Math.max(2, Math.min(5, Math.round(((seconds + 6) * 4) / 60)));
  return `${minutes} minutes`;
};

function whenWords(at: number, dates: Dates): string {
  const days = differenceInCalendarDays(at, Date.now());
  if (days <= 0) return 'today';
  if (days === 1) return 'tomorrow';
  if (days < 7) return `on ${dates.weekday(at)}`;
  return `in ${days} days`;
}
