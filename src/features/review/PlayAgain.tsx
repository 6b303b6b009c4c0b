'use client';
import { useMemo } from 'react';
import { beatAt, secondsAt, steady, timelineOf, readChart } from '@/core/chart';
import { corrected, type CorrectedNote } from '@/core/correct';
import { typeset } from '@/core/music';
import { unwrap } from '@/core/shared';
import { busyWords } from '@/presentation';
import type { TakeSession } from '@/audio/takeSession';
import { ChordWords } from '@/ui/ChordWords';
import { useCommands } from '../shell/commands/useCommands';
import { Far } from '../shell/Far';
import { NoInput } from '../shell/NoInput';
import { changeChannel } from '../shell/openPreferred';
import { useBeat, useSession } from '../shell/useSession';
import { useWakeLock } from '../shell/useWakeLock';
import { Waiting } from '../shell/Waiting';
import { BarBeside } from './BarBeside';
import { chordAt } from './correctNotes';
import { nameOver } from './noteNames';
import { usePlayAgain, type PlayAgainModel } from './usePlayAgain';
import type { ReviewModel } from './useReviewModel';

/** One bar goes round with the band until it is played as it was meant; only its notes are replaced. */
export function PlayAgain({ model }: { model: ReviewModel }) {
  const again = usePlayAgain(model);
  const { state, session, back, start, comeInBy, keep, last, rig, rigState } = again;
  const { scene } = state.view;
  const isRound = scene !== 'no-input' && scene !== 'waiting';
  useWakeLock();
  useCommands({
    'again.keep': { when: isRound && last !== null, run: keep },
    'again.back': back,
    'again.once': { when: isRound && session === null, run: start },
  });
  const title = barName(again);
  if (scene === 'no-input')
    return (
      <NoInput
        trouble={rigState.phase === 'trouble' ? rigState.trouble : 'busy'}
        title={title}
        onAgain={start}
        onDevice={(deviceId) => comeInBy({ kind: 'input', deviceId, channel: 'mix' })}
        onStandIn={() => comeInBy({ kind: 'stand-in', character: 'steady', delayMs: 0 })}
        onBack={back}
      />
    );
  if (scene === 'waiting' && session)
    return (
      <Waiting
        rig={rig}
        title={title}
        onChannel={(channel) => changeChannel(rig, channel)}
        onStart={() => session.startAllTheSame()}
        onBack={back}
      />
    );
  return <Round model={model} again={again} title={title} />;
}

const barName = ({ place }: PlayAgainModel): string => `Bar ${place.bar + 1}, chorus ${place.chorus + 1}`;

type RoundProps = { model: ReviewModel; again: PlayAgainModel; title: string };

function Round({ model, again, title }: RoundProps) {
  const { bar, last, session, times, trouble, keep, back, start } = again;
  const { judgement, data } = model;
  const pace = data.take.pace ?? steady(data.take.tempo);
  const inTake = (beat: number) => data.take.offsetSec + secondsAt(pace, beat);
  const now = useMemo(
    () => (last ? corrected(data.heard, [...model.corrections.edits, last]) : null),
    [data.heard, model.corrections.edits, last],
  );
  const name = ({ onsetSec, midi }: CorrectedNote) => {
    const beat = Math.max(bar.at, beatAt(pace, onsetSec - data.take.offsetSec));
    return nameOver(chordAt(judgement.timeline, beat), midi);
  };
  return (
    <Far
      meta={
        <>
          <span>{title}, again</span>
          <span>{Math.round(bar.tempo)} a minute</span>
          {times > 0 && <span>played {times === 1 ? 'once' : `${times} times`}</span>}
        </>
      }
      soft={trouble ?? <Where again={again} />}
      bold={<Chords session={session} again={again} />}
      press={last ? { words: 'keep the bar as just played', act: keep } : undefined}
      hold={{ words: 'back, with the take as it was', act: back }}
      double={session === null ? { words: 'once more', act: start } : undefined}
    >
      <div className="mt-8">
        <BarBeside
          before={judgement.notes}
          now={now}
          from={inTake(bar.at)}
          to={inTake(bar.at + bar.beats)}
          beats={bar.beats}
          name={name}
        />
      </div>
      <p className="mt-5 text-[20px] leading-8 text-soft sm:text-[22px]">
        It goes round by itself. Only the notes of this bar are replaced; its sound stays as it was recorded.
      </p>
    </Far>
  );
}

/** Where the round is: words to be read while playing. */
function Where({ again: { session, bar, times, isRolling } }: { again: PlayAgainModel }) {
  if (session) return <WhereIn session={session} lead={bar.lead} />;
  if (times === 0) return <>Opening the input.</>;
  return isRolling ? <>Heard; next time in a moment.</> : <>Heard {times} times; that is enough for now.</>;
}

function WhereIn({ session, lead }: { session: TakeSession; lead: number }) {
  const beat = useBeat(session);
  const { phase } = useSession(session);
  const busy = busyWords(phase);
  if (phase === 'finishing') return <>Listening to it.</>;
  if (busy) return <>{busy}.</>;
  if (beat < 0) return <>Counting in.</>;
  return beat < lead ? <>The bar before:</> : <>Now:</>;
}

/** The chords of the bar that sounds, and the beat. */
function Chords({ session, again }: { session: TakeSession | null; again: PlayAgainModel }) {
  return session ? (
    <ChordsNow session={session} again={again} />
  ) : (
    <ChordWords text={chordsOf(again, again.bar.lead)} />
  );
}

function ChordsNow({ session, again }: { session: TakeSession; again: PlayAgainModel }) {
  const beat = useBeat(session);
  const { lead, beats } = again.bar;
  const at = Math.max(0, Math.min(beat, lead + beats - 0.01));
  const from = at < lead ? 0 : lead;
  const count = beat < 0 ? beats + Math.floor(beat) + 1 : Math.floor(at - from) + 1;
  return (
    <>
      <ChordWords text={chordsOf(again, at)} /> <span className="ml-6 text-now">{Math.max(1, count)}</span>
    </>
  );
}

/** The chords of the bar of the passage a beat lies in. */
function chordsOf({ bar }: PlayAgainModel, beat: number): string {
  const { chordSpans } = timelineOf(unwrap(readChart(bar.chartText)), bar.tempo);
  const [from, to] = beat < bar.lead ? [0, bar.lead] : [bar.lead, bar.lead + bar.beats];
  return chordSpans
    .filter(({ start, end }) => start < to && end > from)
    .map(({ chord }) => (chord ? typeset(chord.symbol) : 'N.C.'))
    .join('  ');
}
