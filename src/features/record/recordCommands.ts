import { isRolling, type EndedTake } from '@/audio/sitting';
import type { TakeSession } from '@/audio/takeSession';
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

function waitingCommands({ rig, chooseChannel }: RecordModel, session: TakeSession): Handlers {
  const other = movingChannel(rig.levels, rig.channel);
  const startAnyway = { label: 'Start the count all the same', run: () => session.startAllTheSame() };
  return {
    'play.next':
      other === null ? startAnyway : { label: `Use input ${other + 1}`, run: () => chooseChannel(other) },
    'play.away': { label: 'Back', run: () => void session.discard() },
    'play.other': other === null ? null : startAnyway,
  };
}

function resultCommands(model: RecordModel, ended: EndedTake): Handlers {
  const { state, sitting, start, loop, open } = model;
  const rolling = isRolling(state);
  return {
    'play.next': rolling
      ? { label: 'Stay and look', run: () => sitting.stay() }
      : { label: 'Again from the top', run: start },
    'play.away': { label: 'Throw this take away', run: () => sitting.throwAway() },
    'play.review': { when: ended.kept, run: () => open(ended.id) },
    'play.loop': { when: !rolling && loop !== null, run: () => loop?.() },
  };
}

function liveCommands(model: RecordModel, session: TakeSession): Handlers {
  const { running, sitting } = model;
  if (running.phase === 'running')
    return {
      'play.next': { label: 'Stop and save the take', run: () => void session.stop(false) },
      'play.away': { label: 'Throw the take away', run: () => sitting.discardRunning() },
      ...mixCommands(model),
    };
  if (running.phase !== 'opening') return {};
  return { 'play.away': { label: 'Back', run: () => void session.discard() } };
}

/** What can be done on Record as it stands now. */
export function recordCommands(model: RecordModel): Handlers {
  const { state, bring, cut, sitting, start, letStandInPlay } = model;
  const { view } = state;
  // a take that was cut off has commands of its own
  if (bring.state.phase === 'working' || cut) return {};
  switch (view.scene) {
    case 'ready':
      return { 'play.next': { label: 'Count me in', run: start }, ...mixCommands(model) };
    case 'live':
      return liveCommands(model, view.session);
    case 'waiting':
      return waitingCommands(model, view.session);
    case 'result':
      return resultCommands(model, view.ended);
    case 'silent':
      return {
        'play.next': {
          label: 'Throw it away, try again',
          run: () => {
            sitting.throwAway();
            start();
          },
        },
        'play.away': { label: 'Throw it away', run: () => sitting.throwAway() },
      };
    case 'no-input':
      return {
        'play.next': { label: 'Ask the browser again', run: start },
        'play.away': { label: 'Back', run: () => sitting.back() },
        'play.other': { label: 'Let the stand-in player sit in', run: letStandInPlay },
      };
  }
}
