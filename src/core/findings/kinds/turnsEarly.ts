import { defineKind } from '../measure';
import { beatsInWords } from '../words';
import { times } from '../../music';
import { turnings, type TurningFacts } from './turning';

/** The whole line leaves each chord early. */
export const turnsEarly = defineKind<TurningFacts>({
  id: 'turns-early',
  name: 'turns early',
  hides: ['target-missed', 'targets-missed', 'approach-unresolved'],
  drill: 'one-target',
  detect: (context) => turnings(context, 'early'),
  say: ({ missed, of, facts: { by } }) => ({
    title: 'Waiting for the chord',
    sentence: `You leave each chord about ${beatsInWords(by)} early, ${times(missed)} in ${of}.`,
    advice: 'Stay on the chord until it changes.',
  }),
  example: { by: -1 },
});
