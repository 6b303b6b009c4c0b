'use client';
import { useEffect, useState, useSyncExternalStore } from 'react';
import { formPositionOf, steady } from '@/core/chart';
import { barAgain, playedAgain, playedFrom, type BarAgain, type Edit } from '@/core/correct';
import { AudioInput } from '@/audio/input/audioInput';
import { RecordingResources } from '@/audio/recordingResources';
import { endedIn, isRolling, runningIn, Sitting, type SittingPolicy } from '@/audio/sitting';
import { TakeSession } from '@/audio/takeSession';
import type { TakeSettings } from '@/audio/takeSettings';
import { takeTroubleWords } from '@/presentation';
import { openPreferred } from '../shell/openPreferred';
import { prefer, preferences } from '../shell/preferences';
import { useRigState } from '../shell/useRig';
import { beatOfNote } from './correctNotes';
import type { ReviewModel } from './useReviewModel';

/** Round and round until the player keeps one; a bar that does not come after so many is for another day. */
const MOST_TIMES = 8;
const ROUNDS: SittingPolicy = { resultAloneMs: 1_500, resultStays: false, counts: true };

/** One bar played again, as a correction of the take. */
export type Replay = Extract<Edit, { kind: 'again' }>;

/** The bar under the hand, played again with the band until one time is kept. */
export function usePlayAgain(model: ReviewModel) {
  const { corrections, dispatch, hold } = model;
  const [{ bar, resources, sitting, place }] = useState(() => begin(model));
  const state = useSyncExternalStore(sitting.subscribe, sitting.getState, sitting.getState);
  useEffect(() => {
    sitting.enter();
    void sitting.start();
    return () => {
      sitting.leave();
      resources.close();
    };
  }, [sitting, resources]);
  const replays = [...state.before, ...state.counted].map(({ outcome }) => outcome);
  const last = replays.at(-1) ?? null;
  const back = () => dispatch({ type: 'set', change: { isPlayingAgain: false } });
  const start = () => void sitting.start();
  const comeInBy = (device: ReturnType<typeof preferences>['device']) => {
    prefer({ device });
    start();
  };
  return {
    bar,
    place,
    state,
    rig: resources.input,
    rigState: useRigState(resources.input),
    session: runningIn(state),
    last,
    times: replays.length,
    /** The next round comes by itself. */
    isRolling: isRolling(state),
    trouble: troubleOf(state),
    start,
    back,
    comeInBy,
    keep: () => {
      if (!last) return;
      corrections.edit(last);
      hold(last.notes[0]?.id ?? null);
      back();
    },
  };
}
export type PlayAgainModel = ReturnType<typeof usePlayAgain>;

function troubleOf(state: Sitting<Replay>['state']): string | null {
  if (state.trouble !== null) return takeTroubleWords(state.trouble);
  return state.view.scene === 'silent' ? 'Nothing was heard. Look at the input and its level.' : null;
}

function begin(model: ReviewModel) {
  const { judgement, data, corrections, state } = model;
  const { timeline, chart, notes } = judgement;
  const { take } = data;
  const pace = take.pace ?? steady(take.tempo);
  const at = state.held === null ? 0 : Math.max(0, beatOfNote(judgement, state.held));
  const place = formPositionOf(timeline, at);
  const bar = barAgain(chart, timeline, pace, place.chorus * timeline.bars.length + place.bar + 1);
  const line = playedFrom(notes, pace, take.offsetSec)
    .map((note) => ({ ...note, onsetBeat: note.onsetBeat - bar.at + bar.lead }))
    .filter(({ onsetBeat }) => onsetBeat >= 0 && onsetBeat < bar.lead + bar.beats);
  const resources = new RecordingResources(new AudioInput());
  let times = 0;
  const sitting: Sitting<Replay> = new Sitting<Replay>(ROUNDS, {
    openInput: () => openPreferred(resources),
    rolls: () => true,
    nextSettings: () => settingsOf(bar, take.title, times++, line),
    makeSession: (settings) => new TakeSession(settings, resources, false),
    count: () => {
      const heard = endedIn(sitting.state)?.session.heard;
      if (!heard) throw new Error('a round ended that was not heard');
      const replay = playedAgain(bar, heard.notes, heard.offsetSec, { ...take, pace }, corrections.newId);
      return Promise.resolve(replay);
    },
    goesOn: (counted) => counted.length < MOST_TIMES,
  });
  return { bar, resources, sitting, place };
}

function settingsOf(
  { chartText, tempo }: BarAgain,
  title: string,
  seed: number,
  standIn: ReturnType<typeof playedFrom>,
): TakeSettings {
  const { bandLevel, levels, chords } = preferences();
  return {
    chartId: 'none',
    chartText,
    title,
    route: { passes: 1, tempo, tempoStep: 0, keyStep: 0 },
    countInBars: 1,
    plan: { id: 'outline' },
    seed,
    band: { level: bandLevel, levels, chords, click: 'off', dropOut: {} },
    drill: { id: 'again', standIn },
  };
}
