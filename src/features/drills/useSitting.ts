'use client';
import { useEffect, useMemo, useState, useSyncExternalStore } from 'react';
import type { PlayedNote } from '@/core/analyse';
import { exampleOf, failingOf } from '@/core/drills';
import { ladderTo } from '@/core/scheduling';
import { RecordingResources } from '@/audio/recordingResources';
import { Sitting, type SittingPolicy } from '@/audio/sitting';
import { newTakeId } from '@/audio/persistence/serverTakes';
import { AudioInput } from '@/audio/input/audioInput';
import { TakeSession } from '@/audio/takeSession';
import type { StoredDrill } from '@/server/drillRows';
import type { RunOutcome } from '@/server/drills';
import { openPreferred } from '../shell/openPreferred';
import { preferences } from '../shell/preferences';
import { countRun } from './drillServer';
import { stageOf, countSoFar, type DrillStage, type LiveCount } from './drillView';
import { elementAt } from '@/core/shared';

/** A sitting ends by itself after so many attempts or minutes: short and often. */
const MOST_ATTEMPTS = 8;
const MOST_SECONDS = 5 * 60;

export type StandIn = 'plays' | 'misses';

/** The next attempt comes a moment after its count, once that says there is one. */
const ATTEMPTS: SittingPolicy = { resultAloneMs: 1_200, resultStays: false, counts: true };

/** What a sitting looks at when it begins an attempt: what was changed meanwhile counts for the next one. */
class Frame {
  id = newTakeId();
  private attempts = 0;
  standIn: StandIn = 'plays';
  constructor(public drill: StoredDrill) {}
  take(drill: StoredDrill): void {
    this.drill = drill;
  }
  letIt(standIn: StandIn): void {
    this.standIn = standIn;
  }
  newSitting(): void {
    this.id = newTakeId();
  }
  nextAttempt(): number {
    return ++this.attempts;
  }
}

/** A drill with band, input and attempts. Everything is let go when the screen is left. */
export function useSitting(first: StoredDrill) {
  const [stored, setStored] = useState(first);
  const [changed, setChanged] = useState(0);
  const [standIn, setStandIn] = useState<StandIn>('plays');
  const [{ frame, rig, resources, sitting }] = useState(() => {
    const own = new Frame(first);
    const made = new RecordingResources(new AudioInput());
    return { frame: own, rig: made.input, resources: made, sitting: sittingOf(own, made) };
  });
  const state = useSyncExternalStore(sitting.subscribe, sitting.getState, sitting.getState);
  useEffect(() => {
    sitting.enter();
    return () => {
      sitting.leave();
      resources.close();
    };
  }, [sitting, resources]);
  const all = state.before.length + state.counted.length;
  const last = [...state.before, ...state.counted][all - 1]?.outcome.drill;
  // whichever is newer: what the last attempt made of it, or what the player set since
  const drill = last && changed < all ? last : stored;
  const setDrill = (next: StoredDrill) => {
    frame.take(next);
    setStored(next);
    setChanged(all);
  };
  const letStandIn = (does: StandIn) => {
    frame.letIt(does);
    setStandIn(does);
  };
  return { drill, setDrill, standIn, setStandIn: letStandIn, sitting, state, rig };
}

function sittingOf(frame: Frame, resources: RecordingResources): Sitting<RunOutcome> {
  return new Sitting<RunOutcome>(ATTEMPTS, {
    openInput: () => openPreferred(resources),
    rolls: () => true,
    nextSettings: () => {
      const attempt = frame.nextAttempt();
      const {
        drill: { id, chartId, title, drill, ladder },
        standIn,
      } = frame;
      const tempo = ladder.rungs[ladder.at] ?? elementAt(ladderTo({ goal: drill.tempo }).rungs, 0);
      const { size } = stageOf(drill, tempo);
      const { bandLevel, levels, chords, device } = preferences();
      const line =
        device.kind === 'stand-in'
          ? (standIn === 'plays' ? exampleOf : failingOf)({ ...drill, tempo }, attempt, size.passes)
          : null;
      return {
        chartId: chartId ?? 'none',
        chartText: drill.chartText,
        title: `${drill.name}, ${title}`.slice(0, 120),
        route: { passes: size.passes, tempo, tempoStep: 0, keyStep: 0 },
        countInBars: 1,
        plan: drill.plan,
        seed: attempt,
        band: { level: bandLevel, levels, chords, click: 'off', dropOut: {} },
        drill: { id, standIn: line },
      };
    },
    makeSession: (settings) => new TakeSession(settings, resources),
    count: async (takeId) => {
      const outcome = await countRun(frame.drill.id, takeId, frame.id);
      frame.take(outcome.drill);
      return outcome;
    },
    goesOn: (counted) => {
      const last = elementAt(counted, counted.length - 1).outcome;
      const seconds = counted.reduce((sum, { outcome }) => sum + outcome.run.seconds, 0);
      const over = last.climb === 'learnt' || counted.length >= MOST_ATTEMPTS || seconds >= MOST_SECONDS;
      if (over) frame.newSitting();
      return !over;
    },
  });
}

/** How the running attempt goes: judged anew with every beat and every note. */
export function useLiveCount(session: TakeSession, stage: DrillStage, beat: number): LiveCount {
  const heard = useSyncExternalStore(session.line.subscribe, session.line.read, session.line.read);
  const last = heard.at(-1);
  const key = `${heard.length} ${last?.midi ?? ''} ${Math.floor(beat)}`;
  return useMemo(() => {
    const notes = heard
      .map((note): PlayedNote => ({
        onsetBeat: session.beatAt(note.onsetSec),
        durationBeats: Math.max(0.05, session.beatAt(note.offsetSec) - session.beatAt(note.onsetSec)),
        midi: note.midi,
        cents: note.cents,
      }))
      .filter(({ onsetBeat }) => onsetBeat > -1);
    return countSoFar(stage, notes, beat);
    // eslint-disable-next-line react-hooks/exhaustive-deps -- a note that merely grows is not judged anew
  }, [key, stage, session]);
}
