import type { Handlers } from '../shell/commands/registry';
import { stepBandLevel } from '../shell/preferences';
import type { DrillModel } from './useDrillModel';

/** What can be done at a drill as it stands now. */
export function drillCommands(model: DrillModel): Handlers {
  const { scene, session, sitting, start, openNext, leave, toTempo, letStandInPlay } = model;
  const stop = { label: 'Stop', run: () => sitting.stay() };
  switch (scene) {
    case 'ready':
      return {
        'play.next': { label: 'Start, hands free from here', run: start },
        'play.away': { label: 'Back to Today', run: leave },
      };
    case 'done':
      return {
        'play.next': { label: model.next ? 'The next drill due' : 'To Today', run: openNext },
        'play.away': { label: 'Once more', run: start },
      };
    case 'live':
    case 'counting':
      return {
        'play.next': stop,
        'play.away': stop,
        'play.faster': () => toTempo(1),
        'play.slower': () => toTempo(-1),
        'play.louder': () => stepBandLevel(1),
        'play.quieter': () => stepBandLevel(-1),
      };
    case 'waiting':
      return {
        'play.next': {
          label: 'Start the count all the same',
          run: () => session?.startAllTheSame(),
        },
        'play.away': stop,
      };
    case 'no-input':
      return {
        'play.next': { label: 'Ask the browser again', run: start },
        'play.away': { label: 'Back', run: () => sitting.stay() },
        'play.other': { label: 'Let the stand-in player sit in', run: letStandInPlay },
      };
  }
}
