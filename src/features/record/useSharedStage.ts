import { useEffect, useEffectEvent } from 'react';
import type { SharedStage } from '@/server/stageHub';
import { findCommand } from '../shell/commands/registry';
import { COMMANDS } from '../shell/commands/catalogue';
import { preferences, usePreferences } from '../shell/preferences';
import { runningIn } from '@/audio/sitting';
import { listenToStage, showStage } from './stageEvents';
import type { RecordModel } from './useRecordModel';

const SAID_MS = 1_000;

const pressed = () => findCommand((id) => COMMANDS[id].pedal === 'press', false);

/** Record as other screens see it. */
function sharedOf({ state, settings, running }: RecordModel): SharedStage {
  const session = runningIn(state);
  const does = pressed()?.label ?? null;
  if (!session || running.phase !== 'running') return { running: null, does };
  const { help, position } = preferences();
  const { text: chartText, choruses, pace } = session.route;
  return {
    does,
    running: {
      chartText,
      choruses,
      pace,
      plan: settings.plan,
      help,
      position,
      beat: session.position(),
    },
  };
}

/** Shows the running take on other screens of the house, and takes their presses for the pedal's. */
export function useSharedStage(model: RecordModel, isShared: boolean): void {
  const say = useEffectEvent(() => showStage(sharedOf(model)));
  const { help } = usePreferences();
  const { scene } = model.state.view;
  const { phase } = model.running;
  useEffect(() => {
    if (!isShared) return undefined;
    const stop = listenToStage({ onPress: () => pressed()?.run() });
    const timer = setInterval(() => say(), SAID_MS);
    return () => {
      stop();
      clearInterval(timer);
      showStage({ running: null, does: null });
    };
  }, [isShared]);
  // what changes is said at once
  useEffect(() => {
    if (isShared) say();
  }, [isShared, scene, phase, help]);
}
