import { CLICK_BEATS } from '@/core/band';
import { elementAt } from '@/core/shared';
import { movingChannel } from '../shell/channels';
import type { Handlers } from '../shell/commands/registry';
import { stepBandLevel, stepHelp, togglePart } from '../shell/preferences';
import type { RecordModel } from './useRecordModel';

const mixCommands = ({ setSettings }: RecordModel): Handlers => ({
  'play.louder': () => stepBandLevel(1),
  'play.quieter': () => stepBandLevel(-1),
  'play.drums': () => togglePart('drums'),
  'play.bass': () => togglePart('bass'),
  'play.chords': () => togglePart('chords'),
  'play.help': stepHelp,
  'play.click': () =>
    setSettings((now) => ({
      ...now,
      click: elementAt(CLICK_BEATS, (CLICK_BEATS.indexOf(now.click) + 1) % CLICK_BEATS.length),
    })),
});

function waitingCommands({ rig, state, chooseChannel }: RecordModel): Handlers {
  const { session } = state;
  const other = movingChannel(rig.levels, rig.channel);
  const startAnyway = { label: 'Start the count all the same', run: () => session?.startAllTheSame() };
  return {
    'play.next':
      other === null ? startAnyway : { label: `Use input ${other + 1}`, run: () => chooseChannel(other) },
    'play.away': { label: 'Back', run: () => void session?.discard() },
    'play.other': other === null ? null : startAnyway,
  };
}

function finishedCommands({ state, flow, start, loop, open }: RecordModel): Handlers {
  const { finished, rolling } = state;
  return {
    'play.next': rolling
      ? { label: 'Stay and look', run: () => flow.stay() }
      : { label: 'Again from the top', run: start },
    'play.away': { label: 'Throw this take away', run: () => flow.throwAway() },
    'play.review': { when: finished?.kept === true, run: () => finished && open(finished.id) },
    'play.loop': { when: !rolling && loop !== null, run: () => loop?.() },
  };
}

function liveCommands(model: RecordModel): Handlers {
  const { state, running, flow } = model;
  const { session } = state;
  if (running.phase === 'running')
    return {
      'play.next': { label: 'Stop and save the take', run: () => void session?.stop(false) },
      'play.away': { label: 'Throw the take away', run: () => flow.discardRunning() },
      ...mixCommands(model),
    };
  if (running.phase !== 'opening') return {};
  return { 'play.away': { label: 'Back', run: () => void session?.discard() } };
}

/** What can be done on Record as it stands now. */
export function recordCommands(model: RecordModel): Handlers {
  const { state, bring, cut, flow, start, letStandInPlay } = model;
  // a take that was cut off has commands of its own
  if (bring.state.phase === 'working' || cut) return {};
  switch (state.scene) {
    case 'setup':
      return { 'play.next': { label: 'Count me in', run: start }, ...mixCommands(model) };
    case 'live':
      return liveCommands(model);
    case 'waiting':
      return waitingCommands(model);
    case 'finished':
      return finishedCommands(model);
    case 'silent':
      return {
        'play.next': {
          label: 'Throw it away, try again',
          run: () => {
            flow.throwAway();
            start();
          },
        },
        'play.away': { label: 'Throw it away', run: () => flow.throwAway() },
      };
    case 'no-input':
      return {
        'play.next': { label: 'Ask the browser again', run: start },
        'play.away': { label: 'Back', run: () => flow.back() },
        'play.other': { label: 'Let the stand-in player sit in', run: letStandInPlay },
      };
  }
}
